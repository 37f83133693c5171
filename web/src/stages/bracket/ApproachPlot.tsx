import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Approach } from "../../api/client";
import type { PlotScale } from "../../elevation/Stick";
import { lineWords } from "../../elevation/SwingCurves";
import { withMarks } from "../../measure/format";
import { useSettings } from "../../ui/settings";
import { usePlanned } from "./usePlanned";

/** Each approach has a dash of its own, so that nothing rests on colour. */
export const DASHES = {
  length_only: "2 4",
  riser_only: "9 4",
  drop_only: "9 4 2 4",
  riser_and_length: undefined,
  drop_and_length: "14 4",
} satisfies Record<Approach["approach"], string | undefined>;

export const COLOURS = {
  length_only: "var(--ink)",
  riser_only: "var(--axle)",
  drop_only: "var(--frame)",
  riser_and_length: "var(--axle)",
  drop_and_length: "var(--frame)",
} satisfies Record<Approach["approach"], string>;

const GRID = { in: 25.4 / 4, mm: 5 };

/** Sideways motion of every approach about the body's centre, beside the stick at its scale. */
export function ApproachPlot({ scale, className = "" }: { scale: PlotScale; className?: string }) {
  const { units, face } = useSettings();
  const plan = usePlanned();
  const { width, height, y, ends } = scale;
  const approaches = plan?.approaches ?? [];
  const all = approaches.flatMap((approach) => approach.curve.map((point) => Math.abs(point.y_mm)));
  const most = Math.max(GRID[units] * 1.5, ...all) * 1.06;
  const turn = face === "front" ? 1 : -1;
  const x = scaleLinear([-most, most], [8, width - 8]);
  const count = Math.floor(most / GRID[units]);
  const [leftName, rightName] = face === "front" ? ["right", "left"] : ["left", "right"];
  // A Y-link has no approaches: an empty plot says nothing.
  if (approaches.length === 0) return null;
  return (
    <svg
      width={width}
      height={height}
      className={className}
      role="img"
      aria-label="Side-to-side movement for each option over the travel; figures in the table"
      data-approaches
    >
      {Array.from({ length: 2 * count + 1 }, (_, i) => (i - count) * GRID[units]).map((mm) => (
        <line key={mm} x1={x(mm)} x2={x(mm)} y1={ends[0]} y2={ends[1]} stroke="var(--line)" />
      ))}
      <line x1={x(0)} x2={x(0)} y1={ends[0]} y2={ends[1]} stroke="var(--frame)" strokeDasharray="10 4 2 4" />
      {approaches.map((approach) => (
        <path
          key={approach.approach}
          d={
            line<Approach["curve"][number]>(
              (point) => x(turn * point.y_mm),
              (point) => y(point.travel_mm),
            )([...approach.curve]) ?? ""
          }
          fill="none"
          stroke={COLOURS[approach.approach]}
          strokeWidth={2.4}
          strokeDasharray={DASHES[approach.approach]}
        />
      ))}
      <text x={2} y={15} fontSize={14} fill="var(--ink)">{`◂ ${leftName}`}</text>
      <text x={width - 2} y={15} fontSize={14} textAnchor="end" fill="var(--ink)">{`${rightName} ▸`}</text>
      <text x={width / 2} y={height - 6} fontSize={14} textAnchor="middle" fill="var(--ink)">
        {withMarks(lineWords(units))}
      </text>
    </svg>
  );
}
