import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { PoseResult, SetupCycle } from "../api/client";
import { withMarks } from "../measure/format";
import { useSettings } from "../ui/settings";
import type { PlotScale } from "./Stick";
import { type Plotted, useStance } from "./stance";

type HeavePlotProps = {
  found: SetupCycle;
  plan?: SetupCycle;
  travel: number;
  scale: PlotScale;
  className?: string;
};

/** What a figure is called, its grid in the unit shown, and what its two ways mean. */
export const PLOTS = {
  y_mm: { name: "sideways", grid: { in: 25.4 / 4, mm: 5 }, line: { in: '1/4"', mm: "5 mm" } },
  pitch_deg: { name: "pinion angle, caster", grid: { in: 1, mm: 1 }, line: { in: "1°", mm: "1°" } },
  yaw_deg: { name: "axle steer", grid: { in: 0.25, mm: 0.25 }, line: { in: "0.25°", mm: "0.25°" } },
  steer_deg: { name: "bump steer", grid: { in: 0.5, mm: 0.5 }, line: { in: "0.5°", mm: "0.5°" } },
  roll_centre_mm: { name: "roll center", grid: { in: 25.4, mm: 25 }, line: { in: '1"', mm: "25 mm" } },
  bind_mm: { name: "bind", grid: { in: 25.4 / 16, mm: 2 }, line: { in: '1/16"', mm: "2 mm" } },
} satisfies Record<Plotted, unknown>;

/** Which ways left and right of a plot mean, as viewed. */
function ways(plotted: Plotted, face: "front" | "rear"): [string, string] {
  if (plotted === "pitch_deg") return ["top back", "top forward"];
  if (plotted === "roll_centre_mm") return ["lower", "higher"];
  if (plotted === "bind_mm") return ["", "more"];
  return face === "front" ? ["right", "left"] : ["left", "right"];
}

const EDGE = 8;

/** A figure over heave, beside the stick at its height and scale. */
export function HeavePlot({ found, plan, travel, scale, className = "" }: HeavePlotProps) {
  const { units, face } = useSettings();
  const plotted = useStance((s) => s.plotted);
  const { width, height, y, ends } = scale;
  const pick = (pose: PoseResult) => pose[plotted];
  const all = [...found.heave, ...(plan?.heave ?? [])].map(pick).filter((value) => value !== undefined);
  // Heights are far from nought: they are plotted about where they are at ride height.
  const middle =
    plotted === "roll_centre_mm" ? (found.heave[Math.floor(found.heave.length / 2)]?.roll_centre_mm ?? 0) : 0;
  const grid = PLOTS[plotted].grid[units];
  const most = Math.max(grid * 1.5, ...all.map((value) => Math.abs(value - middle))) * 1.06;
  const sideways = plotted === "y_mm" || plotted === "yaw_deg" || plotted === "steer_deg";
  // From the front the vehicle's left lies on the right.
  const toLeft = sideways && face === "rear" ? -1 : 1;
  const x = scaleLinear([-most, most], [EDGE, width - EDGE]);
  const at = (value: number) => x(toLeft * (value - middle));
  const curve = (setup: SetupCycle) =>
    line<PoseResult>()
      .defined((pose) => pick(pose) !== undefined)
      .x((pose) => at(pick(pose) ?? 0))
      .y((pose) => y(pose.left_mm))([...setup.heave]) ?? "";
  const count = Math.floor(most / grid);
  const lines = Array.from({ length: 2 * count + 1 }, (_, index) => (index - count) * grid);
  const dot = (setup: SetupCycle) =>
    setup.heave.reduce<PoseResult | undefined>(
      (best, pose) =>
        !best || Math.abs(pose.left_mm - travel) < Math.abs(best.left_mm - travel) ? pose : best,
      undefined,
    );
  const [less, more] = ways(plotted, face);
  return (
    <svg
      width={width}
      height={height}
      className={className}
      role="img"
      aria-label={`${PLOTS[plotted].name} over the travel; figures in the table`}
      data-plot={plotted}
    >
      {lines.map((value) => (
        <line key={value} x1={x(value)} x2={x(value)} y1={ends[0]} y2={ends[1]} stroke="var(--line)" />
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
      <path
        d={curve(found)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.2}
        strokeDasharray={plan ? "8 5" : undefined}
      />
      {plan && (
        <>
          <path d={curve(plan)} fill="none" stroke="var(--ink)" strokeWidth={7} />
          <path d={curve(plan)} fill="none" stroke="var(--marker)" strokeWidth={4} />
        </>
      )}
      {[found, plan].map((setup) => {
        const here = setup && dot(setup);
        const value = here && pick(here);
        if (!here || value === undefined) return null;
        return (
          <circle
            key={setup === plan ? "plan" : "found"}
            cx={at(value)}
            cy={y(travel)}
            r={5.5}
            fill={setup === plan ? "var(--marker)" : "var(--axle)"}
            stroke="var(--ink)"
            strokeWidth={1.4}
          />
        );
      })}
      <text x={2} y={15} fontSize={14} fill="var(--ink)">
        {less && `◂ ${less}`}
      </text>
      <text x={width - 2} y={15} fontSize={14} textAnchor="end" fill="var(--ink)">{`${more} ▸`}</text>
      <text x={width / 2} y={height - 6} fontSize={14} textAnchor="middle" fill="var(--ink)">
        {withMarks(`one grid line = ${PLOTS[plotted].line[units]}`)}
      </text>
    </svg>
  );
}
