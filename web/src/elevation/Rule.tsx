import { useRef } from "react";
import type { Unit } from "../api/client";
import { sideways, withMarks } from "../measure/format";
import { ticks } from "../measure/travel";
import { useSettings } from "../ui/settings";
import { useSize } from "./useSize";

export type Pointer = { name: string; mm: number; kind: "found" | "plan" | "proved"; uncertainty?: number };

type RuleProps = { pointers: readonly Pointer[]; tolerance: number };

const COLOURS = { found: "var(--axle)", plan: "var(--marker)", proved: "var(--frame)" } satisfies Record<
  Pointer["kind"],
  string
>;
/** Length of a tick by its weight, in pixels. */
const TICKS = [9, 14, 19, 30] as const;
const HEIGHT = 112;
const TOP = 48;
const LABELS: Record<Unit, (mm: number) => string> = {
  in: (mm) => `${Math.round(Math.abs(mm) / 25.4)}`,
  mm: (mm) => `${Math.round(Math.abs(mm))}`,
};

/** Half of what the rule spans: no less than an inch and a half, and all pointers. */
function reach(pointers: readonly Pointer[], unit: Unit): number {
  const furthest = Math.max(0, ...pointers.map((p) => Math.abs(p.mm) + (p.uncertainty ?? 0)));
  const unitMm = unit === "in" ? 25.4 : 10;
  return Math.max(
    unit === "in" ? 1.5 * 25.4 : 40,
    Math.min(Math.ceil((furthest * 1.15) / unitMm) * unitMm, 254),
  );
}

/** A steel tape under the elevation: nought at the vehicle's centreline. */
export function Rule({ pointers, tolerance }: RuleProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width } = useSize(box);
  const { units, face } = useSettings();
  const half = reach(pointers, units);
  const turn = face === "front" ? 1 : -1;
  const k = (width / 2 - 12) / half;
  const x = (mm: number) => width / 2 + turn * mm * k;
  const band = (from: number, to: number) => ({
    x: Math.min(x(from), x(to)),
    width: Math.abs(x(to) - x(from)),
  });
  const inside = (mm: number) => Math.max(-half, Math.min(half, mm));
  const said = pointers.map((p) => `${p.name} ${sideways(p.mm, units)}`).join(", ");
  return (
    <div ref={box} className="w-full" data-rule>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Ruler, zero at the vehicle centerline: ${said || "nothing measured yet"}`}
        >
          <rect
            x={8}
            y={TOP}
            width={width - 16}
            height={HEIGHT - TOP - 4}
            fill="var(--tape)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <rect {...band(-tolerance, tolerance)} y={TOP + 1} height={HEIGHT - TOP - 6} fill="var(--gap)" />
          {pointers.map(
            (p) =>
              p.uncertainty && (
                <rect
                  key={p.name}
                  {...band(inside(p.mm - p.uncertainty), inside(p.mm + p.uncertainty))}
                  y={TOP + 1}
                  height={HEIGHT - TOP - 6}
                  fill={COLOURS[p.kind]}
                  opacity={0.28}
                />
              ),
          )}
          {ticks(-half, half, units).map(({ mm, weight }) => (
            <line
              key={mm}
              x1={x(mm)}
              x2={x(mm)}
              y1={HEIGHT - 5}
              y2={HEIGHT - 5 - TICKS[weight]}
              stroke="var(--ink)"
              strokeWidth={weight === 3 ? 1.8 : 1}
            />
          ))}
          {ticks(-half, half, units)
            .filter(({ mm, weight }) => weight === 3 && Math.abs(mm) < half - 3 / k)
            .map(({ mm }) => (
              <text
                key={mm}
                x={x(mm)}
                y={TOP + 21}
                textAnchor="middle"
                fontSize={18}
                fontWeight={600}
                fill="var(--ink)"
              >
                {LABELS[units](mm)}
              </text>
            ))}
          <Pointers pointers={pointers} x={(mm) => x(inside(mm))} width={width} />
        </svg>
      )}
    </div>
  );
}

/** About how wide a name and its figure are written. */
function writtenWidth(pointer: Pointer, unit: Unit): number {
  return (pointer.name.length + sideways(pointer.mm, unit).length + 1) * 7.4;
}

/** Names of near pointers go apart; against an edge a name goes to the upper level. */
function Pointers({
  pointers,
  x,
  width,
}: {
  pointers: readonly Pointer[];
  x: (mm: number) => number;
  width: number;
}) {
  const units = useSettings((s) => s.units);
  const sorted = [...pointers].sort((a, b) => x(a.mm) - x(b.mm));
  return sorted.map((p, index) => {
    const place = x(p.mm);
    const wide = writtenWidth(p, units);
    const near = (other: Pointer | undefined) =>
      other !== undefined && Math.abs(x(other.mm) - place) < (wide + writtenWidth(other, units)) / 2 + 12;
    const anchor = near(sorted[index + 1])
      ? "end"
      : near(sorted[index - 1])
        ? "start"
        : place > width - wide / 2
          ? "end"
          : place < wide / 2
            ? "start"
            : "middle";
    const squeezed = (anchor === "end" && place < wide) || (anchor === "start" && place > width - wide);
    const from = squeezed
      ? anchor === "end"
        ? 4
        : width - 4
      : place + { end: 9, start: -9, middle: 0 }[anchor];
    const turned = squeezed ? (anchor === "end" ? "start" : "end") : anchor;
    return (
      <g key={p.name} data-pointer={p.kind}>
        <polygon
          points={`${place - 8},36 ${place + 8},36 ${place},${TOP + 2}`}
          fill={COLOURS[p.kind]}
          stroke="var(--ink)"
          strokeWidth={1.3}
        />
        <text x={from} y={squeezed ? 14 : 31} textAnchor={turned} fontSize={16} fill="var(--ink)">
          {p.name}{" "}
          <tspan fontWeight={700}>
            <DrawnFigure>{sideways(p.mm, units)}</DrawnFigure>
          </tspan>
        </text>
      </g>
    );
  });
}

/** A figure inside a drawing, its fraction set as a fraction. */
function DrawnFigure({ children }: { children: string }) {
  return withMarks(children)
    .split(/(\d+\/\d+)/)
    .map((part, index) => (
      <tspan key={index} className={part.includes("/") ? "fraction" : undefined}>
        {part}
      </tspan>
    ));
}
