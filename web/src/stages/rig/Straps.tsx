import { setRig } from "../../job/edits";
import { isPlanned, planPart } from "../../job/installs";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { Tick } from "../../ui/Tick";

const LENGTHS = [
  ["length", "Strap, tight, bolt to bolt"],
  ["at_droop", "Bolt to bolt at full droop, shocks all the way out"],
  ["at_driven", "Bolt to bolt at the driven height"],
] as const;

/** Limit straps: whether this job installs them, and what they are held against. */
export function Straps() {
  const { job, change } = useJob();
  const straps = job.rig?.straps;
  return (
    <div data-straps>
      <Tick
        label="Limit straps get installed in this job"
        value={isPlanned(job, "straps")}
        onPick={(here) =>
          change((old) =>
            planPart("straps", here)(here ? setRig({ straps: old.rig?.straps ?? {} })(old) : old),
          )
        }
      />
      {straps && (
        <div className="grid items-end gap-x-2 sm:grid-cols-3">
          <LengthFields
            at="/rig/straps"
            form={straps}
            fields={LENGTHS}
            onPut={(part) => change((old) => setRig({ straps: { ...old.rig?.straps, ...part } })(old))}
          />
        </div>
      )}
    </div>
  );
}
