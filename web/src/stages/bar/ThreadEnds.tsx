import type { Schemas } from "../../api/client";
import { distance, fine } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

type EndAfter = Schemas["EndAfter"];

/** How much thread stays in at each end, drawn. */
export function ThreadEnds({ setting }: { setting: Schemas["Setting"] }) {
  const units = useSettings((s) => s.units);
  const drawn = setting.ends.filter((end) => end.engagement_after_mm !== undefined);
  return (
    <div className="grid gap-2">
      {drawn.length > 0 && (
        <div className="grid grid-cols-2 gap-3">
          {drawn.map((end, index) => (
            <ThreadEnd
              key={index}
              end={end}
              name={drawn.length === 1 ? "Adjusting end" : index === 0 ? "Frame end" : "Axle end"}
            />
          ))}
        </div>
      )}
      {(setting.equal_engagement_shortest_mm !== undefined ||
        setting.equal_engagement_longest_mm !== undefined) && (
        <p className="text-[16px]">
          This bar adjusts
          {setting.equal_engagement_shortest_mm !== undefined && (
            <Figure>{` from ${fine(setting.equal_engagement_shortest_mm, units)}`}</Figure>
          )}
          {setting.equal_engagement_longest_mm !== undefined && (
            <Figure>{` up to ${fine(setting.equal_engagement_longest_mm, units)}`}</Figure>
          )}
          , eye to eye.
        </p>
      )}
    </div>
  );
}

const SCALE = 1.5;

function ThreadEnd({ end, name }: { end: EndAfter; name: string }) {
  const units = useSettings((s) => s.units);
  const after = Math.max(0, end.engagement_after_mm ?? 0);
  const before = end.engagement_before_mm ?? after;
  const least = end.least_engagement_mm;
  const depth = Math.max(end.full_depth_mm ?? 0, before, after, least) + 8;
  const x = (mm: number) => 128 - Math.min(mm * SCALE, 118);
  const bad = end.enough === false;
  return (
    <figure className="min-w-0">
      <svg
        viewBox="0 0 178 66"
        className="w-full"
        role="img"
        aria-label={`${name}: ${distance(after, units)} of thread engaged, needs at least ${distance(least, units)}`}
      >
        <rect
          x={x(depth)}
          y={16}
          width={128 - x(depth)}
          height={34}
          fill="var(--slate)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        <rect
          x={x(after)}
          y={24}
          width={150 - x(after)}
          height={18}
          fill="var(--marker)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        {Array.from({ length: Math.floor((150 - x(after)) / 5) }, (_, index) => {
          const at = x(after) + 4 + index * 5;
          return <line key={at} x1={at} x2={at + 2} y1={24} y2={42} stroke="var(--ink)" strokeWidth={0.9} />;
        })}
        <circle cx={161} cy={33} r={13} fill="var(--slate)" stroke="var(--ink)" strokeWidth={2.5} />
        <line
          x1={x(least)}
          x2={x(least)}
          y1={8}
          y2={58}
          stroke={bad ? "var(--axle)" : "var(--frame)"}
          strokeWidth={2.5}
        />
        <text x={x(least) + 3} y={12} fontSize={12} fill="var(--ink)">
          least
        </text>
        {Math.abs(before - after) > 0.5 && (
          <line
            x1={x(before)}
            x2={x(before)}
            y1={20}
            y2={46}
            stroke="var(--muted)"
            strokeWidth={1.5}
            strokeDasharray="3 2"
          />
        )}
      </svg>
      <figcaption className="text-[15px] leading-tight">
        <b>{name}:</b> <Figure>{`${distance(after, units)} stays engaged`}</Figure>
        {bad && <b className="text-axle"> — too little</b>}
      </figcaption>
    </figure>
  );
}
