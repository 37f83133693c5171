import type { Sheet } from "../../api/client";
import { ticks } from "../../measure/travel";

/** Length of a tick by its weight, in pixels. */
const TICKS = [5, 7, 9, 13] as const;
const SIZE = { width: 392, height: 62, side: 10 };

/** The repeats of both sides as marks on one stretch of tape: how far they scatter. */
export function SpreadMarks({ sheet }: { sheet: Sheet }) {
  const of = (side: "left" | "right") =>
    (sheet[side] ?? []).flatMap((entry) => (entry?.mm === undefined ? [] : [entry.mm]));
  const left = of("left");
  const right = of("right");
  const all = [...left, ...right];
  if (left.length === 0 || right.length === 0) return null;
  const margin = Math.max(4, (Math.max(...all) - Math.min(...all)) * 0.08);
  const from = Math.min(...all) - margin;
  const to = Math.max(...all) + margin;
  const x = (mm: number) => SIZE.side + ((mm - from) / (to - from)) * (SIZE.width - 2 * SIZE.side);
  const coarse = to - from > 80;
  return (
    <figure>
      <svg
        viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
        className="w-full"
        role="img"
        aria-label="The repeats of both sides on one tape"
      >
        <rect x={1} y={17} width={SIZE.width - 2} height={28} fill="var(--tape)" stroke="var(--ink)" />
        {ticks(from, to, sheet.unit ?? "in")
          .filter(({ weight }) => weight === 3 || !coarse)
          .map(({ mm, weight }) => (
            <line key={mm} x1={x(mm)} x2={x(mm)} y1={45} y2={45 - TICKS[weight]} stroke="var(--muted)" />
          ))}
        {left.map((mm, index) => (
          <path
            key={index}
            d={`M${x(mm) - 6} 8 h12 l-6 12 z`}
            fill="var(--axle)"
            fillOpacity={0.65}
            stroke="var(--ink)"
          />
        ))}
        {right.map((mm, index) => (
          <path
            key={index}
            d={`M${x(mm) - 6} 56 h12 l-6 -12 z`}
            fill="var(--marker)"
            fillOpacity={0.75}
            stroke="var(--ink)"
          />
        ))}
        <text x={2} y={12} fontSize={13} fill="var(--ink)">
          left ▾
        </text>
        <text x={SIZE.width - 2} y={59} fontSize={13} textAnchor="end" fill="var(--ink)">
          right ▴
        </text>
      </svg>
    </figure>
  );
}
