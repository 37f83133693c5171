import type { PlanResult, Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setBracketing } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";

const TARGETS = optionsOf<Schemas["Target"]>({
  level_driven: "level at driven height",
  level_mid_travel: "level at mid-travel",
  parallel_to_drag_link: "parallel to the drag link",
  as_the_maker_had_it: "its stock angle",
});

/** What the angle is aimed at, the exact move for it, and the hole at every other height. */
export function Aim({ plan }: { plan: PlanResult }) {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <>
      <Choice
        label="Aim for"
        pointer="/bracket/target"
        value={job.bracket?.target ?? "level_driven"}
        options={TARGETS.filter((t) => t.value !== "parallel_to_drag_link" || job.hardpoints?.steering)}
        onPick={(target) => change(setBracketing({ target }))}
      />
      {job.bracket?.target === "as_the_maker_had_it" && (
        <AngleField
          job={view.id}
          pointer="/bracket/stock_angle"
          label="Stock angle of the bar"
          hint="degrees, + with the frame end higher; from the vehicle's manual or one never lifted"
          value={job.bracket?.stock_angle}
          onCommit={(stock_angle) => change(setBracketing({ stock_angle }))}
        />
      )}
      {plan.exact_says.in && (
        <p>
          <Figure>{say(plan.exact_says, units)}</Figure>
        </p>
      )}
      {plan.other_heights.map((says) => (
        <p key={says.in}>
          <Figure>{say(says, units)}</Figure>
        </p>
      ))}
      <WorkingOut working={plan.working} />
    </>
  );
}
