import { Crosshair } from "lucide-react";
import type { CycleResult, SetupCycle } from "../../api/client";
import { useStance } from "../../elevation/stance";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { lowered } from "./lowered";

/** What ends the travel first each way, before and after. */
export function Ways({ cycle, setup }: { cycle: CycleResult; setup: SetupCycle }) {
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const other = setup === cycle.plan ? cycle.found : undefined;
  return (
    <section className="grid gap-1">
      <h3 className="font-semibold text-[20px] leading-tight">What stops the travel first</h3>
      <ul className="grid">
        {setup.ways.map((way, index) => {
          const [left = 0, right = 0] = way.ended_at_mm ?? way.end_mm;
          const before = other?.ways[index];
          const differs = before && say(before.says, units) !== say(way.says, units);
          return (
            <li key={way.way} className="border-line border-b last:border-b-0">
              <button
                type="button"
                className="grid min-h-11 w-full grid-cols-[112px_minmax(0,1fr)_20px] items-center gap-2 py-1.5 text-left leading-tight"
                data-way={way.way}
                onClick={() => setWheels(left, right)}
              >
                <span className="text-muted">{way.name}</span>
                <span>
                  <span className={way.ended_at_mm ? "font-semibold" : ""}>
                    <Figure>{say(way.says, units)}</Figure>
                  </span>
                  {differs && (
                    <span className="block text-[15px] text-muted">
                      as found: <Figure>{lowered(say(before.says, units))}</Figure>
                    </span>
                  )}
                </span>
                <Crosshair size={18} aria-hidden />
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
