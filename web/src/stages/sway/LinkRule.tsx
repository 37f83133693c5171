import { useRef } from "react";
import type { SwayLinks } from "../../api/client";
import { useSize } from "../../elevation/useSize";
import { fine, withMarks } from "../../measure/format";
import { ticks } from "../../measure/travel";
import { useSettings } from "../../ui/settings";

const HEIGHT = 104;
const TOP = 44;
/** Room a label takes. */
const LABEL = 100;

/** Lengths of link on a rule: the lengths that work as a band, the link as it is and as aimed at. */
export function LinkRule({ links }: { links: SwayLinks }) {
  const box = useRef<HTMLDivElement>(null);
  const { width } = useSize(box);
  const units = useSettings((s) => s.units);
  const aimed = links.targets.find((target) => target.chosen);
  const points = [links.link_mm, ...(aimed ? [aimed.link_mm] : [])];
  const unit = units === "in" ? 25.4 : 10;
  const low =
    Math.floor((Math.min(...points, links.window_mm?.[0] ?? Number.POSITIVE_INFINITY) - 30) / unit) * unit;
  const high = Math.ceil((Math.max(...points, (links.window_mm?.[0] ?? 0) + 60) + 60) / unit) * unit;
  const x = (mm: number) => 10 + ((mm - low) / (high - low)) * (width - 20);
  const hold = (mm: number) => Math.max(low, Math.min(high, mm));
  const marks = [
    ...(links.sized ? [] : [{ name: "sway link now", mm: links.link_mm, fill: "var(--axle)", row: 16 }]),
    ...(aimed ? [{ name: "needed", mm: aimed.link_mm, fill: "var(--marker)", row: 34 }] : []),
  ];
  // The lower label turns away from the upper mark's line, where there is room for it.
  const leftward = (mm: number) => {
    const [here, other] = [x(mm), x(links.link_mm)];
    return here > width - LABEL || (here < other && here > LABEL && other - here < LABEL);
  };
  return (
    <div ref={box} className="w-full" data-link-rule>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label="Link lengths: what works, what is on now, and the target"
        >
          <rect
            x={10}
            y={TOP}
            width={width - 20}
            height={HEIGHT - TOP - 4}
            fill="var(--tape)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          {links.window_mm && (
            <rect
              x={x(hold(links.window_mm[0] ?? 0))}
              y={TOP + 1}
              width={x(hold(links.window_mm[1] ?? 0)) - x(hold(links.window_mm[0] ?? 0))}
              height={HEIGHT - TOP - 6}
              fill="var(--gap)"
              data-window
            />
          )}
          <Ticks low={low} high={high} x={x} width={width} />
          {marks.map(({ name, mm, fill, row }) => (
            <g key={name}>
              <line x1={x(mm)} x2={x(mm)} y1={row} y2={HEIGHT - 5} stroke={fill} strokeWidth={3} />
              <text
                x={x(mm) + (leftward(mm) ? -6 : 6)}
                y={row - 2}
                textAnchor={leftward(mm) ? "end" : "start"}
                fontSize={15}
                fill="var(--ink)"
              >
                {withMarks(`${name} ${fine(mm, units)}`)}
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}

type TicksProps = { low: number; high: number; x: (mm: number) => number; width: number };

function Ticks({ low, high, x, width }: TicksProps) {
  const units = useSettings((s) => s.units);
  const unit = units === "in" ? 25.4 : 10;
  const step = units === "in" ? 3 : 5;
  return (
    <g>
      {ticks(low, high, units)
        .filter(({ weight }) => weight >= (units === "in" ? 1 : 2))
        .map(({ mm, weight }) => (
          <line
            key={mm}
            x1={x(mm)}
            x2={x(mm)}
            y1={HEIGHT - 5}
            y2={HEIGHT - 5 - weight * 7}
            stroke="var(--ink)"
            strokeWidth={weight === 3 ? 1.6 : 1}
          />
        ))}
      {ticks(low, high, units)
        .filter(({ mm, weight }) => weight === 3 && Math.round(mm / unit) % step === 0)
        .map(({ mm }) => (
          <text
            key={mm}
            // A number at an end stays on the rule.
            x={Math.min(Math.max(x(mm), 24), width - 24)}
            y={TOP + 19}
            textAnchor="middle"
            fontSize={16}
            fontWeight={600}
            fill="var(--ink)"
          >
            {Math.round(units === "in" ? mm / 25.4 : mm)}
          </text>
        ))}
    </g>
  );
}
