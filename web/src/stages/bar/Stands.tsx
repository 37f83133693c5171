import type { Schemas } from "../../api/client";
import { SwingPlot } from "../../elevation/SwingPlot";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { HeightTable } from "./HeightTable";

type BarResult = Schemas["BarResult"];

/** The bar as it stands: angle, rate, what the lift did, its arc over the travel. */
export function Stands({ bar }: { bar: BarResult }) {
  const { view, results } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold text-[20px] leading-tight">{say(bar.says, units)}</h3>
      <p>
        <Figure>{say(bar.rate_says, units)}</Figure>
      </p>
      {bar.angle_measured && !bar.correction && (
        <p data-need>
          <Figure>{say(bar.need.says, units)}</Figure>
        </p>
      )}
      {bar.lift && (
        <p>
          <Figure>{`${say(bar.lift.says, units)}.`}</Figure>
        </p>
      )}
      {bar.angle_measured && bar.correction && (
        <p data-need>
          <Figure>{say(bar.correction.leaves_says, units)}</Figure>
        </p>
      )}
      {bar.correction?.longer_says && (
        <p className="text-muted">
          <Figure>{say(bar.correction.longer_says, units)}</Figure>
        </p>
      )}
      <SwingPlot
        key={view.id}
        sweep={bar.sweep}
        hasPlan={bar.correction !== undefined}
        planName={bar.correction?.set ? "as set" : "plan"}
        driven={results.elevation.driven_travel_mm}
      />
      <HeightTable />
    </section>
  );
}

/** How each figure of the bar is worked out. */
export function Workings({ bar }: { bar: BarResult }) {
  const units = useSettings((s) => s.units);
  const { correction } = bar;
  return (
    <div>
      {bar.angle_measured && <WorkingOut working={bar.working} />}
      {bar.lift && <WorkingOut working={bar.lift.working} />}
      {correction && (
        <>
          <WorkingOut working={correction.working} />
          {correction.thumb_says && <p className="py-1 text-muted">{say(correction.thumb_says, units)}</p>}
        </>
      )}
      {correction?.setting && <WorkingOut working={correction.setting.working} />}
    </div>
  );
}
