import { line } from "d3-shape";
import type { Sample, Unit } from "../api/client";
import { at } from "../measure/travel";
import { useSettings } from "../ui/settings";
import { useStance } from "./stance";

/** Half of what a plot of a sweep spans sideways, in millimetres. */
export function reachOf(sweep: readonly Sample[]): number {
  return Math.max(6, ...sweep.map((s) => Math.max(Math.abs(s.found_mm), Math.abs(s.planned_mm)))) * 1.08;
}

const GRID = { in: 25.4 / 4, mm: 5 } satisfies Record<Unit, number>;

/** What one line of the grid is worth. */
export function lineWords(unit: Unit): string {
  return unit === "in" ? 'one line is 1/4"' : "one line is 5 mm";
}

type SwingCurvesProps = {
  sweep: readonly Sample[];
  hasPlan: boolean;
  driven: number;
  /** From sideways millimetres as viewed, left on the left. */
  x: (mm: number) => number;
  /** From travel, bump upward. */
  y: (mm: number) => number;
  sides: readonly [number, number];
  ends: readonly [number, number];
};

/** Sideways motion over travel, as found dashed and planned in yellow, and where it is now. */
export function SwingCurves({ sweep, hasPlan, driven, x, y, sides, ends }: SwingCurvesProps) {
  const { units, face } = useSettings();
  const held = useStance((s) => s.travel);
  const first = sweep[0];
  const last = sweep[sweep.length - 1];
  if (!first || !last) return null;
  const turn = face === "front" ? 1 : -1;
  const curve = (pick: (sample: Sample) => number) =>
    line<Sample>(
      (s) => x(turn * pick(s)),
      (s) => y(s.travel_mm),
    )([...sweep]) ?? "";
  const travel = Math.max(first.travel_mm, Math.min(last.travel_mm, held ?? driven));
  const here = at(sweep, travel);
  const count = Math.floor(reachOf(sweep) / GRID[units]);
  const grid = Array.from({ length: 2 * count + 1 }, (_, index) => (index - count) * GRID[units]);
  const dot = (mm: number, fill: string, stroke: string) => (
    <circle cx={x(turn * mm)} cy={y(travel)} r={5.5} fill={fill} stroke={stroke} strokeWidth={1.6} />
  );
  return (
    <g data-swing>
      {grid.map((mm) => (
        <line key={mm} x1={x(mm)} x2={x(mm)} y1={ends[0]} y2={ends[1]} stroke="var(--line)" />
      ))}
      <line
        x1={x(0)}
        x2={x(0)}
        y1={ends[0]}
        y2={ends[1]}
        stroke="var(--frame)"
        strokeWidth={1.5}
        strokeDasharray="10 4 2 4"
      />
      <line
        x1={sides[0]}
        x2={sides[1]}
        y1={y(driven)}
        y2={y(driven)}
        stroke="var(--muted)"
        strokeDasharray="2 4"
      />
      <path
        d={curve((s) => s.found_mm)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.2}
        strokeDasharray={hasPlan ? "8 5" : undefined}
      />
      {hasPlan && (
        <>
          <path d={curve((s) => s.planned_mm)} fill="none" stroke="var(--ink)" strokeWidth={7} />
          <path d={curve((s) => s.planned_mm)} fill="none" stroke="var(--marker)" strokeWidth={4} />
        </>
      )}
      {here && dot(here.found_mm, "var(--axle)", "var(--slate)")}
      {here && hasPlan && dot(here.planned_mm, "var(--marker)", "var(--ink)")}
    </g>
  );
}
