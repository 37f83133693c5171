import { ArrowDown, Check, CircleX } from "lucide-react";
import { useState } from "react";
import type { PlanOption, PlanResult } from "../../api/client";
import { degrees, distance } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { alike } from "./alike";
import { keyOf, useLookedAt, useMoreOptions } from "./usePlanned";

const SORTS = {
  rank: { label: "hole and bar", by: (o: PlanOption) => o.rank },
  angle: { label: "angle", by: (o: PlanOption) => Math.abs(o.angle_deg) },
  swing: { label: "sideways", by: (o: PlanOption) => o.peak_to_peak_mm },
  roll: { label: "roll center", by: (o: PlanOption) => o.roll_centre_mm },
} as const;
type Sort = keyof typeof SORTS;

/** Rows shown before somebody asks for all. */
const FIRST = 4;

/** Every hole with every bar, best first or as one likes. */
export function OptionTable({ plan, here }: { plan: PlanResult; here: PlanOption }) {
  const units = useSettings((s) => s.units);
  const [sort, setSort] = useState<Sort>("rank");
  const [all, showAll] = useState(false);
  const { options, left, more } = useMoreOptions(plan);
  const sorted = [...plan.options, ...options].sort(
    (a, b) => SORTS[sort].by(a) - SORTS[sort].by(b) || a.rank - b.rank,
  );
  const rows = alike(sorted, units);
  const shown = rows.filter((options, place) => all || place < FIRST || options.includes(here));
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
          {shown.map((options) => (
            <Row
              key={options.map(keyOf).join()}
              options={options}
              here={options.includes(here) ? here : undefined}
            />
          ))}
        </tbody>
      </table>
      <p className="text-[15px] text-muted">
        Best first: options that fail go last, then by bar angle (to half a degree), side-to-side movement,
        smallest move.
      </p>
      {rows.length > FIRST && (
        <button type="button" className="min-h-11 underline" onClick={() => showAll(!all)}>
          {all ? `Show the first ${FIRST}` : `Show ${left > 0 ? "the first" : "all"} ${rows.length}`}
        </button>
      )}
      {all && left > 0 && (
        <button type="button" className="ml-4 min-h-11 underline" onClick={more}>
          {`Show more: ${left} left, none better`}
        </button>
      )}
    </section>
  );
}

function Row({ options, here }: { options: PlanOption[]; here: PlanOption | undefined }) {
  const units = useSettings((s) => s.units);
  const look = useLookedAt((s) => s.look);
  const option = here ?? options[0];
  if (!option) return null;
  const failing = option.fails.length > 0;
  return (
    <>
      <tr
        className={here ? "bg-marker text-on-marker" : "border-line border-t"}
        data-option={option.name}
        data-rank={option.rank}
      >
        <td>
          <button
            type="button"
            aria-pressed={here !== undefined}
            className="flex min-h-11 w-full items-center gap-1.5 pt-1.5 text-left leading-tight"
            onClick={() => look(keyOf(option))}
          >
            {failing ? (
              <CircleX size={16} className="shrink-0" aria-label="fails" />
            ) : option.chosen ? (
              <Check size={16} className="shrink-0" aria-label="chosen" />
            ) : (
              <span className="w-4 shrink-0" />
            )}
            <b className={failing ? "font-normal" : "font-semibold"}>{option.name}</b>
          </button>
        </td>
        <td className="text-right">{degrees(option.angle_deg)}</td>
        <td className="pl-2 text-right">
          <Figure>{distance(option.peak_to_peak_mm, units)}</Figure>
        </td>
        <td className="whitespace-nowrap pl-2 text-right">
          <Figure>{distance(option.roll_centre_mm, units)}</Figure>
        </td>
      </tr>
      <tr className={here ? "bg-marker text-on-marker" : ""}>
        <td colSpan={4} className="pb-1.5 pl-[22px] text-[15px] leading-tight">
          <Bars options={options} here={here} />
        </td>
      </tr>
    </>
  );
}

const reported = ({ bar, chosen, kept }: PlanOption) => `${bar}${chosen ? ", chosen" : kept ? ", kept" : ""}`;

/** The bars that come to these figures: each a press in the row that is looked at. */
function Bars({ options, here }: { options: PlanOption[]; here: PlanOption | undefined }) {
  const look = useLookedAt((s) => s.look);
  if (!here || options.length === 1) {
    return (
      <span className={here ? "" : "text-muted"} data-bar={options[0]?.bar}>
        {options.length > 1 && `${options.length} bars give the same: `}
        {options.map(reported).join(" · ")}
      </span>
    );
  }
  return (
    <span className="flex flex-wrap gap-1.5">
      {options.map((option) => (
        <button
          key={keyOf(option)}
          type="button"
          aria-pressed={option === here}
          className={`min-h-11 rounded-[3px] border-[1.5px] border-on-marker px-2 text-left leading-tight ${option === here ? "bg-on-marker text-marker" : ""}`}
          data-bar={option.bar}
          onClick={() => look(keyOf(option))}
        >
          {reported(option)}
        </button>
      ))}
    </span>
  );
}
