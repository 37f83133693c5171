import { ArrowDown, Check, CircleX } from "lucide-react";
import { useState } from "react";
import type { PlanOption, PlanResult } from "../../api/client";
import { degrees, distance } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { keyOf, useLookedAt, useMoreOptions } from "./usePlanned";

const SORTS = {
  rank: { label: "hole and bar", by: (o: PlanOption) => o.rank },
  angle: { label: "angle", by: (o: PlanOption) => Math.abs(o.angle_deg) },
  swing: { label: "swing", by: (o: PlanOption) => o.peak_to_peak_mm },
  roll: { label: "roll centre", by: (o: PlanOption) => o.roll_centre_mm },
} as const;
type Sort = keyof typeof SORTS;

/** Every hole with every bar, best first or as one likes. */
export function OptionTable({ plan, here }: { plan: PlanResult; here: PlanOption }) {
  const [sort, setSort] = useState<Sort>("rank");
  const [all, showAll] = useState(false);
  const { options, left, more } = useMoreOptions(plan);
  const sorted = [...plan.options, ...options].sort(
    (a, b) => SORTS[sort].by(a) - SORTS[sort].by(b) || a.rank - b.rank,
  );
  const shown = all ? sorted : sorted.slice(0, 8);
  const rows = shown.includes(here) ? shown : [...shown, here];
  return (
    <section>
      <table className="w-full border-collapse text-left" data-options>
        <thead>
          <tr className="border-ink border-b-[1.5px]">
            {(Object.keys(SORTS) as Sort[]).map((name) => (
              <th
                key={name}
                scope="col"
                aria-sort={sort === name ? "ascending" : "none"}
                className={name === "rank" ? "" : "text-right"}
              >
                <button
                  type="button"
                  className={`inline-flex min-h-11 items-center gap-0.5 font-semibold text-[15px] leading-tight ${name === "rank" ? "text-left" : "pl-2 text-right"}`}
                  onClick={() => setSort(name)}
                >
                  {SORTS[name].label}
                  {sort === name && <ArrowDown size={14} aria-hidden />}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((option) => (
            <Row key={keyOf(option)} option={option} here={option === here} />
          ))}
        </tbody>
      </table>
      <p className="text-[15px] text-muted">
        Best first: what fails last, then the angle to half a degree, the swing, the smallest move.
      </p>
      {plan.options.length > 8 && (
        <button type="button" className="min-h-11 underline" onClick={() => showAll(!all)}>
          {all ? "Show the first eight" : `Show ${left > 0 ? "the first" : "all"} ${sorted.length}`}
        </button>
      )}
      {all && left > 0 && (
        <button type="button" className="ml-4 min-h-11 underline" onClick={more}>
          {`Fetch more: ${left} are left, none better`}
        </button>
      )}
    </section>
  );
}

function Row({ option, here }: { option: PlanOption; here: boolean }) {
  const units = useSettings((s) => s.units);
  const look = useLookedAt((s) => s.look);
  const failing = option.fails.length > 0;
  return (
    <tr
      className={`border-line border-b align-top ${here ? "bg-marker text-on-marker" : ""}`}
      data-option={option.name}
      data-bar={option.bar}
      data-rank={option.rank}
    >
      <td>
        <button
          type="button"
          aria-pressed={here}
          className="flex min-h-11 w-full items-start gap-1.5 py-1.5 text-left leading-tight"
          onClick={() => look(keyOf(option))}
        >
          {failing ? (
            <CircleX size={16} className="mt-0.5 shrink-0" aria-label="fails" />
          ) : option.chosen ? (
            <Check size={16} className="mt-0.5 shrink-0" aria-label="chosen" />
          ) : (
            <span className="w-4 shrink-0" />
          )}
          <span>
            <b className={failing ? "font-normal" : "font-semibold"}>{option.name}</b>
            <span className={`block text-[15px] ${here ? "" : "text-muted"}`}>
              {option.bar}
              {option.chosen ? ", chosen" : option.kept ? ", kept" : ""}
            </span>
          </span>
        </button>
      </td>
      <td className="py-1.5 text-right">{degrees(option.angle_deg)}</td>
      <td className="py-1.5 text-right">
        <Figure>{distance(option.peak_to_peak_mm, units)}</Figure>
      </td>
      <td className="py-1.5 text-right">
        <Figure>{distance(option.roll_centre_mm, units)}</Figure>
      </td>
    </tr>
  );
}
