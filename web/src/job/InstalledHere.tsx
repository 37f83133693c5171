import { Tick } from "../ui/Tick";
import { type FittedPart, isPlanned, planPart } from "./installs";
import { useJob } from "./useJob";

type InstalledHereProps = { part: FittedPart; label: string };

/** Whether something is installed in this job, or was on the vehicle before. */
export function InstalledHere({ part, label }: InstalledHereProps) {
  const { job, change } = useJob();
  return (
    <Tick
      label={label}
      value={isPlanned(job, part)}
      onPick={(installed) => change(planPart(part, installed))}
    />
  );
}
