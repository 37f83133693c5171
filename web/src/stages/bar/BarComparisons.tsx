import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { usePlanned } from "../bracket/usePlanned";

/** Bars side by side: reach, strength and mass, estimated. */
export function BarComparisons() {
  const units = useSettings((s) => s.units);
  const plan = usePlanned();
  if (!plan || plan.bars.length === 0) return null;
  return (
    <section className="grid gap-2">
      <ul data-bars>
        {plan.bars.map((bar) => (
          <li key={bar.name} className="grid gap-1 border-line border-b py-2">
            <div className="flex justify-between gap-2">
              <b>{bar.name}</b>
              <span className="shrink-0 text-muted">{say(bar.mass_says, units)}</span>
            </div>
            <span className="text-muted">
              <Figure>{say(bar.made_of, units)}</Figure>
            </span>
            <span>
              <Figure>{say(bar.says, units)}</Figure>
              {bar.thread_root_share !== undefined &&
                `; thread root is ${(bar.thread_root_share * 100).toFixed(0)} % of the body by area`}
              {bar.reaches === false && <b className="text-axle">; does not reach this length</b>}
            </span>
            <WorkingOut working={bar.working} />
          </li>
        ))}
      </ul>
      {plan.bolt?.says.map((words) => (
        <p key={words.in} className="mt-1">
          <Figure>{say(words, units)}</Figure>
        </p>
      ))}
      <p className="mt-2 text-[15px] text-muted">{plan.leaves_out}</p>
    </section>
  );
}
