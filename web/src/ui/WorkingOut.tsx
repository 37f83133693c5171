import type { Working } from "../api/client";
import { say } from "../measure/format";
import { Fold } from "./Fold";
import { useSettings } from "./settings";

/** How a figure is worked out, with this job's numbers. */
export function WorkingOut({ working, title }: { working: Working; title?: string }) {
  const units = useSettings((s) => s.units);
  if (working.steps.length === 0) return null;
  return (
    <Fold title={title ?? `How this is calculated: ${working.title.toLowerCase()}`}>
      <ol className="grid gap-2.5">
        {working.steps.map((step, index) => (
          <li key={index} className="border-line border-l-[3px] pl-2.5">
            <div className="text-[15px] text-muted">{step.meaning}</div>
            <div className="font-semibold">{step.formula}</div>
            <div className="break-words">
              = {say(step.numbers, units)} = <b>{say(step.result, units)}</b>
            </div>
          </li>
        ))}
      </ol>
    </Fold>
  );
}
