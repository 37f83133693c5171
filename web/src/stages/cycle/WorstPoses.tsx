import { Crosshair } from "lucide-react";
import type { Limit, SetupCycle } from "../../api/client";
import { useStance } from "../../elevation/stance";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";

/** The worst of each limit, one click from the drawing. */
export function WorstPoses({ setup }: { setup: SetupCycle }) {
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const rank = { violated: 0, near: 1, free: 2 } as const;
  const used = (limit: Limit) =>
    limit.kind === "gap" ? -limit.worst / Math.max(limit.near, 1) : limit.worst / limit.violated;
  const sorted = [...setup.limits].sort((a, b) => rank[a.level] - rank[b.level] || used(b) - used(a));
  const row = (limit: Limit) => (
    <li key={limit.name} className="border-line border-b last:border-b-0">
      <button
        type="button"
        className="grid min-h-11 w-full grid-cols-[minmax(0,1fr)_auto_20px] items-center gap-2 py-1.5 text-left leading-tight"
        data-limit={limit.name}
        data-level={limit.level}
        onClick={() => setWheels(limit.worst_left_mm, limit.worst_right_mm)}
      >
        <span>
          {limit.name}
          <span className="block text-[15px] text-muted">
            <Figure>{`at ${say(limit.worst_place, units)}`}</Figure>
          </span>
        </span>
        <span className={`text-right ${limit.level === "free" ? "" : "font-semibold"}`}>
          <Figure>{say(limit.worst_says, units)}</Figure>
          {limit.level !== "free" && (
            <span className="block text-[15px] text-axle">
              {limit.level === "violated" ? "over" : "close"}
            </span>
          )}
        </span>
        <Crosshair size={18} aria-hidden />
      </button>
    </li>
  );
  const shown = Math.max(4, sorted.filter((limit) => limit.level !== "free").length);
  return (
    <section className="grid gap-1">
      <ul>{sorted.slice(0, shown).map(row)}</ul>
      {sorted.length > shown && (
        <Fold title={`${sorted.length - shown} more, all free`}>
          <ul>{sorted.slice(shown).map(row)}</ul>
        </Fold>
      )}
      {setup.standing.length > 0 && (
        <ul data-standing>
          {setup.standing.map((pair) => (
            <li key={pair.says.in} className={pair.level === "free" ? "" : "font-semibold"}>
              <Figure>{say(pair.says, units)}</Figure>
            </li>
          ))}
        </ul>
      )}
      {setup.not_judged_say && (
        <p className="text-[15px] text-muted" data-not-judged>
          {say(setup.not_judged_say, units)}
        </p>
      )}
    </section>
  );
}
