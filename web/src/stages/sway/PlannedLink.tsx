import { addRound, planSway } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { fine } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

/** A link that is planned: everything here is shown with it, until it is set or let go of. */
export function PlannedLink() {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const link = job.setups?.plans?.sway?.link;
  if (!link) return null;
  return (
    <section className="grid gap-2 border-[1.5px] border-ink bg-paper p-3" data-planned-link>
      <p>
        <b>Planned.</b>{" "}
        <Figure>{`Sway links ${fine(link.mm ?? 0, units)}, both sides equal, eye to eye.`}</Figure>
      </p>
      <div className="flex flex-wrap gap-2">
        <Button
          look="strong"
          onClick={() => change((old) => planSway(undefined)(addRound({ sway_link: link })(old)))}
        >
          They are set to this
        </Button>
        <Button onClick={() => change(planSway(undefined))}>Drop this plan</Button>
      </div>
    </section>
  );
}
