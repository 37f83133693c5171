import { useState } from "react";
import type { Schemas } from "../../api/client";
import { setBracketing } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";
import { type Bolt, boltOf, type EyeKey, withBolt } from "./eyes";

export const TREATMENTS = optionsOf<Schemas["ThreadTreatment"]>({
  dry: "dry or plated",
  threadlocker: "threadlocker",
  oiled: "oiled",
  anti_seize: "anti-seize",
});
export const GRADES = optionsOf<Schemas["Grade"] | "unknown">({
  unknown: "not marked",
  grade_5: "grade 5",
  grade_8: "grade 8",
  "8.8": "8.8",
  "10.9": "10.9",
  "12.9": "12.9",
});
export const NUTS = optionsOf<Schemas["NutKind"]>({
  plain: "plain",
  nylon_insert: "nylon insert",
  crushed: "crushed",
  flanged: "flanged",
  tab: "flag (tab) nut",
  captive: "captive",
  welded: "welded",
  castle: "castle",
});
const LENGTHS = [
  ["diameter", "Bolt diameter, measured. Empty: its thread's"],
  ["hole", "Hole size in the bracket"],
  ["ear", "Thickness of one bracket ear"],
  ["washer", "One washer, one at each end"],
  ["nut_height", "Nut height"],
  ["length", "Length of the bolt in it now, under the head"],
  ["threaded", "Its threaded length"],
  ["room_at_head", "Room behind the bolt head"],
  ["room_at_nut", "Room beyond the bracket ear, nut side"],
  ["play", "Slop of both bolts in their holes"],
] as const satisfies readonly (readonly [keyof Bolt, string])[];

const EYES = optionsOf<EyeKey | "both">({
  both: "both eyes the same",
  frame_eye: "frame eye",
  axle_eye: "axle eye",
});

/** The bolt through the eye: what is on it, and what it has to pass. Where the eyes differ, each has its own. */
export function BoltInputs() {
  const { view, job, change } = useJob();
  const [eye, setEye] = useState<EyeKey | "both">("both");
  const bolt: Bolt = boltOf(job.bracket, eye);
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Bolt>) => change(setBracketing(withBolt(job.bracket, eye, part)));
  const at = eye === "both" ? "/bracket/bolt" : `/bracket/${eye}/bolt`;
  return (
    <>
      <Choice label="Which eye" value={eye} options={EYES} onPick={setEye} />
      {eye !== "both" && <OneEye eye={eye} />}
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        <FigureField
          kind="thread"
          pointer={`${at}/thread`}
          label="Track bar bolt thread"
          value={bolt.thread}
          onCommit={(thread) => set({ thread })}
        />
        <FigureField
          kind="torque"
          pointer={`${at}/torque`}
          label="Torque from the part's instructions"
          value={bolt.torque}
          onCommit={(torque) => set({ torque })}
        />
        <FigureField
          kind="thread"
          pointer={`${at}/nut_thread`}
          label="Nut thread"
          value={bolt.nut_thread}
          onCommit={(nut_thread) => set({ nut_thread })}
        />
        {(eye === "both" ? LENGTHS : LENGTHS.slice(0, -1)).map(([field, label]) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`${at}/${field}`}
            label={label}
            unit={unit}
            value={bolt[field]}
            onCommit={(entry) => set({ [field]: entry })}
          />
        ))}
      </div>
      <Choice
        label="Head marking"
        value={bolt.grade ?? "unknown"}
        options={GRADES}
        onPick={(grade) => set({ grade: grade === "unknown" ? undefined : grade })}
      />
      <Choice label="Nut type" value={bolt.nut ?? "plain"} options={NUTS} onPick={(nut) => set({ nut })} />
      <Choice
        label="Threads are"
        value={bolt.treatment ?? "dry"}
        options={TREATMENTS}
        onPick={(treatment) => set({ treatment })}
      />
    </>
  );
}

/** What one eye has otherwise than the other, and the way back to both alike. */
function OneEye({ eye }: { eye: EyeKey }) {
  const { view, job, change } = useJob();
  const fit = job.bracket?.[eye];
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    <div className="grid gap-1" data-eye={eye}>
      <p className="text-[15px] text-muted">
        {fit?.bolt || fit?.ear_width
          ? "What you enter here is for this eye alone."
          : "Shown as entered for both. What you enter here is for this eye alone."}
      </p>
      <TapeField
        job={view.id}
        pointer={`/bracket/${eye}/ear_width`}
        label="Inside width between the ears of this eye"
        unit={unit}
        value={fit?.ear_width}
        onCommit={(ear_width) => change(setBracketing({ [eye]: { ...fit, ear_width } }))}
      />
      {(fit?.bolt || fit?.ear_width) && (
        <div>
          <Button look="quiet" onClick={() => change(setBracketing({ [eye]: undefined }))}>
            This eye is like the other
          </Button>
        </div>
      )}
    </div>
  );
}
