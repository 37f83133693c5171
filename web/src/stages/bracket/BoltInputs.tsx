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
  tab: "flag (tab) nut",
  captive: "captive",
  welded: "welded",
  castle: "castle",
});
const LENGTHS = [
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
          label="Track bar bolt thread"
          value={bolt.thread}
          onCommit={(thread) => set({ thread })}
        />
        <FigureField
          kind="torque"
          pointer="/bracket/bolt/torque"
          label="Torque from the part's instructions"
          value={bolt.torque}
          onCommit={(torque) => set({ torque })}
        />
        <FigureField
          kind="thread"
          pointer="/bracket/bolt/nut_thread"
          label="Nut thread"
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
