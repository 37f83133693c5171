import type { Approach, PlanResult } from "../../api/client";
import { choosePlan } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { say, sideways } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { COLOURS, DASHES } from "./ApproachPlot";

/** The approaches side by side, each with its line in the plot. */
export function Approaches({ plan }: { plan: PlanResult }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  const row = (approach: Approach) => (
    <li
      key={approach.approach}
      className="grid gap-1 border-line border-b py-2 last:border-b-0"
      data-approach={approach.approach}
    >
      <div className="flex items-center gap-2">
        <svg width={34} height={8} aria-hidden>
          <line
            x1={0}
            x2={34}
            y1={4}
            y2={4}
            stroke={COLOURS[approach.approach]}
            strokeWidth={2.6}
            strokeDasharray={DASHES[approach.approach]}
          />
        </svg>
        <b>{approach.name}</b>
        <span className="text-muted">{approach.option.name}</span>
      </div>
      <p className="leading-snug">
        <Figure>{say(approach.says, units)}</Figure>
      </p>
      {approach.at_hand && !approach.option.chosen && (
        <Button className="justify-self-start" onClick={() => change(choosePlan(approach.option.plan))}>
          Choose {approach.name}
        </Button>
      )}
    </li>
  );
  return (
    <section>
      <ul>{plan.approaches.map(row)}</ul>
      {plan.longer_says && (
        <p className="text-muted">
          <Figure>{say(plan.longer_says, units)}</Figure>
        </p>
      )}
      <Fold title="Side-to-side movement, as a table">
        <CurveTable approaches={plan.approaches} />
      </Fold>
    </section>
  );
}

function CurveTable({ approaches }: { approaches: readonly Approach[] }) {
  const units = useSettings((s) => s.units);
  const rows = [40, 30, 20, 10, 0];
  return (
    <table className="w-full text-left text-[15px]">
      <thead>
        <tr className="border-ink border-b">
          <th scope="col" className="py-1 font-semibold">
            approach
          </th>
          {rows.map((row) => (
            <th scope="col" key={row} className="font-semibold">
              {row === 40 ? "full bump" : row === 0 ? "full droop" : ""}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {approaches.map((approach) => (
          <tr key={approach.approach} className="border-line border-b">
            <td className="py-1">{approach.name}</td>
            {rows.map((row) => (
              <td key={row}>
                <Figure>{sideways(approach.curve[row]?.y_mm ?? 0, units)}</Figure>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
