import type { CycleResult } from "../../api/client";
import { useStance } from "../../elevation/stance";
import { setTrial, tried } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { Choice } from "../../ui/Choice";

/** The bracket's holes by name, for whoever does not grasp the eye. */
export function Holes({ cycle }: { cycle: CycleResult }) {
  const { job, change } = useJob();
  const trial = job.setups?.plans?.trial;
  const options = cycle.axle_holes.map((hole) => ({
    value: hole.id || "-",
    label: hole.name || "current hole",
  }));
  const chosen = cycle.axle_holes.find((hole) => hole.chosen)?.id;
  return (
    <Choice
      label="Axle end in"
      value={chosen || "-"}
      options={options}
      onPick={(id) => {
        useStance.getState().setShown("planned");
        change(setTrial(tried(trial, "axle", id === "-" ? "" : id)));
      }}
      hint="Or drag the bar's end in the drawing. The bar length is set to center the axle there."
    />
  );
}
