import type { PartView } from "../api/client";
import { KIND_NAMES } from "../parts/fields";
import { RACK_SCALE } from "../parts/sketch";
import { useSettings } from "../ui/settings";
import { PartCard, type PartDeeds } from "./PartCard";

/** The length that is marked: ten inches. */
const RULE_MM = 254;

type Kind = PartView["part"]["kind"];

/** The rack on the bay wall: a shelf a kind, every part drawn to one scale. */
export function PartRack({ parts, deeds }: { parts: readonly PartView[]; deeds: PartDeeds }) {
  const units = useSettings((s) => s.units);
  const kinds = (Object.keys(KIND_NAMES) as Kind[]).filter((kind) =>
    parts.some((view) => view.part.kind === kind),
  );
  return (
    <div className="grid gap-5" data-parts>
      <p className="flex items-center gap-2 text-muted">
        <svg width={RULE_MM * RACK_SCALE + 4} height={16} aria-hidden>
          <path
            d={`M 2 2 v 12 M 2 8 h ${RULE_MM * RACK_SCALE} M ${RULE_MM * RACK_SCALE + 2} 2 v 12`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        </svg>
        {units === "in" ? "10 in" : "254 mm"}; every part is drawn to this scale
      </p>
      {kinds.map((kind) => (
        <section key={kind} aria-label={KIND_NAMES[kind]}>
          <h2 className="mb-2 border-ink border-b-[5px] font-semibold">{KIND_NAMES[kind]}</h2>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(340px,1fr))] gap-3 max-sm:grid-cols-1">
            {parts
              .filter((view) => view.part.kind === kind)
              .map((view) => (
                <PartCard key={view.id} view={view} deeds={deeds} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
