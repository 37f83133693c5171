import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TextField } from "../../ui/TextField";
import { setProof } from "./edits";

type RoadStep = Schemas["RoadStep"];
type RoadRecord = Schemas["RoadRecord"];

const LADDER = [
  ["yard", "In the yard, at walking pace"],
  ["slow_turns", "Slow turns, both ways"],
  ["dips", "Dips"],
  ["expansion_joints", "Expansion joints, edges"],
  ["swerve", "A swerve: how many times does it rock"],
  ["washboard", "Washboard"],
  ["highway", "Highway"],
  ["trail", "Trail articulation"],
] as const satisfies readonly (readonly [RoadStep, string])[];

const RESULTS = optionsOf<Schemas["RoadResult"]>({
  good: "good",
  noticed: "noticed",
  stopped: "stopped",
});

/** The road test, a rung at a time. */
export function RoadTest() {
  const { view, job, change } = useJob();
  const road = job.proof?.road ?? [];
  const put = (step: RoadStep, part: Partial<RoadRecord>) =>
    change(
      setProof((proof) => {
        const known = (proof.road ?? []).find((record) => record.step === step);
        const record: RoadRecord = { step, result: "good", ...known, ...part };
        return { road: [...(proof.road ?? []).filter((other) => other.step !== step), record] };
      }),
    );
  const driven = LADDER.filter(([step]) => road.some((record) => record.step === step)).length;
  return (
    <Fold keep title={`Road test, one step at a time (${driven} of ${LADDER.length})`}>
      <p className="mb-2 text-[16px] text-muted">
        Stop at the first wobble; what was noticed belongs beside its rung.
      </p>
      <div className="grid gap-2" data-road>
        {LADDER.map(([step, label]) => {
          const record = road.find((known) => known.step === step);
          return (
            <div key={step} className="border-line border-b pb-1.5">
              <Choice
                label={label}
                value={record?.result}
                options={RESULTS}
                onPick={(result) => put(step, { result })}
              />
              {record && (record.result !== "good" || step === "swerve" || record.note) && (
                <TextField
                  job={view.id}
                  pointer={`/proof/road/${step}/note`}
                  label={step === "swerve" ? "How many times it rocks, and what else" : "What was noticed"}
                  value={record.note ?? ""}
                  onCommit={(note) => put(step, { note })}
                />
              )}
            </div>
          );
        })}
      </div>
    </Fold>
  );
}
