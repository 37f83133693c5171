import type { PlanResult, School } from "../../api/client";
import { choosePlan } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { say, sideways } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { COLOURS, DASHES } from "./SchoolPlot";

/** The schools side by side, each with its line in the plot. */
export function Schools({ plan }: { plan: PlanResult }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  const row = (school: School) => (
    <li
      key={school.school}
      className="grid gap-1 border-line border-b py-2 last:border-b-0"
      data-school={school.school}
    >
      <div className="flex items-center gap-2">
        <svg width={34} height={8} aria-hidden>
          <line
            x1={0}
            x2={34}
            y1={4}
            y2={4}
            stroke={COLOURS[school.school]}
            strokeWidth={2.6}
            strokeDasharray={DASHES[school.school]}
          />
        </svg>
        <b>{school.name}</b>
        <span className="text-muted">{school.option.name}</span>
      </div>
      <p className="leading-snug">
        <Figure>{say(school.says, units)}</Figure>
      </p>
      {school.at_hand && !school.option.chosen && (
        <Button className="justify-self-start" onClick={() => change(choosePlan(school.option.plan))}>
          Choose {school.name}
        </Button>
      )}
    </li>
  );
  return (
    <section>
      <ul>{plan.schools.map(row)}</ul>
      {plan.longer_says && (
        <p className="text-muted">
          <Figure>{say(plan.longer_says, units)}</Figure>
        </p>
      )}
      <Fold title="Their sideways motion, as a table">
        <CurveTable schools={plan.schools} />
      </Fold>
    </section>
  );
}

function CurveTable({ schools }: { schools: readonly School[] }) {
  const units = useSettings((s) => s.units);
  const rows = [40, 30, 20, 10, 0];
  return (
    <table className="w-full text-left text-[15px]">
      <thead>
        <tr className="border-ink border-b">
          <th scope="col" className="py-1 font-semibold">
            school
          </th>
          {rows.map((row) => (
            <th scope="col" key={row} className="font-semibold">
              {row === 40 ? "full bump" : row === 0 ? "full droop" : ""}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {schools.map((school) => (
          <tr key={school.school} className="border-line border-b">
            <td className="py-1">{school.name}</td>
            {rows.map((row) => (
              <td key={row}>
                <Figure>{sideways(school.curve[row]?.y_mm ?? 0, units)}</Figure>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
