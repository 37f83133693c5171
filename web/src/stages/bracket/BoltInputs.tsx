import type { Schemas } from "../../api/client";
import { setBracketing } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

type Bolt = NonNullable<Schemas["Bracketing"]["bolt"]>;

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
  tab: "on a tab",
  captive: "captive",
  welded: "welded",
  castle: "castle",
});
const LENGTHS = [
  ["hole", "Hole in the ears"],
  ["ear", "Thickness of one ear"],
  ["washer", "One washer, one at each end"],
  ["nut_height", "Height of the nut"],
  ["length", "Bolt that is there, under its head"],
  ["threaded", "Length of its thread"],
  ["room_at_head", "Room behind its head"],
  ["room_at_nut", "Room beyond the nut's ear"],
  ["play", "Play of both bolts in their holes"],
] as const satisfies readonly (readonly [keyof Bolt, string])[];

/** The bolt through the eye: what is on it, and what it has to pass. */
export function BoltInputs() {
  const { view, job, change } = useJob();
  const bolt: Bolt = job.bracket?.bolt ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Bolt>) => change(setBracketing({ bolt: { ...bolt, ...part } }));
  return (
    <>
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        <FigureField
          kind="thread"
          pointer="/bracket/bolt/thread"
          label="Eye bolt's thread"
          value={bolt.thread}
          onCommit={(thread) => set({ thread })}
        />
        <FigureField
          kind="torque"
          pointer="/bracket/bolt/torque"
          label="Its torque from the part's sheet"
          value={bolt.torque}
          onCommit={(torque) => set({ torque })}
        />
        <FigureField
          kind="thread"
          pointer="/bracket/bolt/nut_thread"
          label="The nut's thread"
          value={bolt.nut_thread}
          onCommit={(nut_thread) => set({ nut_thread })}
        />
        {LENGTHS.map(([field, label]) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`/bracket/bolt/${field}`}
            label={label}
            unit={unit}
            value={bolt[field]}
            onCommit={(entry) => set({ [field]: entry })}
          />
        ))}
      </div>
      <Choice
        label="Marked on its head"
        value={bolt.grade ?? "unknown"}
        options={GRADES}
        onPick={(grade) => set({ grade: grade === "unknown" ? undefined : grade })}
      />
      <Choice label="Its nut is" value={bolt.nut ?? "plain"} options={NUTS} onPick={(nut) => set({ nut })} />
      <Choice
        label="The bolt's thread is"
        value={bolt.treatment ?? "dry"}
        options={TREATMENTS}
        onPick={(treatment) => set({ treatment })}
      />
    </>
  );
}
