import { useDrag } from "@use-gesture/react";
import { memo, useId, useRef } from "react";
import type { Limit, SetupCycle } from "../api/client";
import { distance, withMarks } from "../measure/format";
import { useSettings } from "../ui/settings";
import type { Wheels } from "./cyclePose";
import { stickStep } from "./Stick";

type EnvelopeMapProps = {
  setup: SetupCycle;
  wheels: Wheels;
  onMove: (wheels: Wheels) => void;
};

export const KIND_COLOURS = {
  tilt: "var(--frame)",
  wind_up: "var(--frame)",
  gap: "var(--axle)",
  bind: "var(--bind)",
} satisfies Record<Limit["kind"], string>;

const SIZE = 300;
const EDGE = { left: 22, bottom: 34, top: 10, right: 12 };

/** Left × right: what limits each pose, and where it is now. Moved by finger or arrow keys. */
export function EnvelopeMap({ setup, wheels, onMove }: EnvelopeMapProps) {
  const box = useRef<SVGSVGElement>(null);
  const units = useSettings((s) => s.units);
  const { travels_mm: travels } = setup.envelope;
  const [low, high] = [travels[0] ?? 0, travels[travels.length - 1] ?? 1];
  const inner = SIZE - EDGE.left - EDGE.right;
  const k = inner / (high - low);
  const x = (mm: number) => EDGE.left + (mm - low) * k;
  const y = (mm: number) => EDGE.top + (high - mm) * k;
  const hold = (mm: number) => Math.max(low, Math.min(high, mm));
  const bind = useDrag(
    ({ xy: [pageX, pageY], event }) => {
      event.preventDefault();
      const edge = box.current?.getBoundingClientRect();
      if (!edge) return;
      // The drawing may be shown larger or smaller than it is drawn.
      const scale = SIZE / edge.width;
      onMove({
        left: hold(low + ((pageX - edge.left) * scale - EDGE.left) / k),
        right: hold(high - ((pageY - edge.top) * scale - EDGE.top) / k),
      });
    },
    { pointer: { keys: false } },
  );
  const step = stickStep[units];
  const words = `left wheel ${distance(wheels.left, units)} ${wheels.left < 0 ? "down" : "up"}, right wheel ${distance(wheels.right, units)} ${wheels.right < 0 ? "down" : "up"}`;
  return (
    <div
      role="application"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the map is moved by arrow keys
      tabIndex={0}
      aria-label={`Map of left and right wheel travel; arrow keys move the wheels. Now: ${words}`}
      className="touch-none select-none"
      data-map
      {...bind()}
      onKeyDown={(event) => {
        const move = { ArrowUp: [0, 1], ArrowDown: [0, -1], ArrowRight: [1, 0], ArrowLeft: [-1, 0] }[
          event.key
        ];
        if (!move) return;
        event.preventDefault();
        onMove({
          left: hold(wheels.left + (move[0] ?? 0) * step),
          right: hold(wheels.right + (move[1] ?? 0) * step),
        });
      }}
    >
      <svg
        ref={box}
        viewBox={`0 0 ${SIZE} ${SIZE - EDGE.right + EDGE.bottom - 26}`}
        className="block w-full max-w-[392px] cursor-crosshair"
        aria-hidden
      >
        <Cells setup={setup} x={x} y={y} />
        <line x1={x(low)} y1={y(low)} x2={x(high)} y2={y(high)} stroke="var(--muted)" strokeDasharray="2 4" />
        <line x1={x(0)} y1={y(low)} x2={x(0)} y2={y(high)} stroke="var(--muted)" strokeDasharray="6 4" />
        <line x1={x(low)} y1={y(0)} x2={x(high)} y2={y(0)} stroke="var(--muted)" strokeDasharray="6 4" />
        <rect
          x={x(low)}
          y={y(high)}
          width={inner}
          height={inner}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        <Lettering x={x} y={y} low={low} high={high} />
        <Here at={[x(hold(wheels.left)), y(hold(wheels.right))]} />
      </svg>
    </div>
  );
}

type Scale = (mm: number) => number;

/** Which wheel goes which way, and how far. */
function Lettering({ x, y, low, high }: { x: Scale; y: Scale; low: number; high: number }) {
  const units = useSettings((s) => s.units);
  return (
    <g fontSize={13} fill="var(--ink)">
      <text x={x(low)} y={y(low) + 15}>
        {withMarks(`${distance(low, units)} down`)}
      </text>
      <text x={(x(low) + x(high)) / 2} y={y(low) + 15} textAnchor="middle">
        left wheel ▸
      </text>
      <text x={x(high)} y={y(low) + 15} textAnchor="end">
        {withMarks(`${distance(high, units)} up`)}
      </text>
      <text
        transform={`translate(${EDGE.left - 8} ${(y(low) + y(high)) / 2}) rotate(-90)`}
        textAnchor="middle"
      >
        right wheel ▸
      </text>
    </g>
  );
}

/** Where the wheels are. */
function Here({ at: [cx, cy] }: { at: readonly [number, number] }) {
  return (
    <g>
      <circle cx={cx} cy={cy} r={8} fill="var(--marker)" stroke="var(--ink)" strokeWidth={2} />
      <path d={`M${cx - 13},${cy}h26M${cx},${cy - 13}v26`} stroke="var(--ink)" strokeWidth={1.2} />
    </g>
  );
}

type CellsProps = { setup: SetupCycle; x: (mm: number) => number; y: (mm: number) => number };

/** The poses, drawn once for a setup. */
const Cells = memo(
  function Cells({ setup, x, y }: CellsProps) {
    const id = useId();
    const { envelope, limits } = setup;
    const { travels_mm: travels } = envelope;
    const side = travels.length;
    const half = ((travels[1] ?? 0) - (travels[0] ?? 0)) / 2;
    const size = x(2 * half) - x(0) + 0.3;
    return (
      <g shapeRendering="crispEdges" clipPath={`url(#${id}-frame)`}>
        <defs>
          <clipPath id={`${id}-frame`}>
            <rect
              x={x(travels[0] ?? 0)}
              y={y(travels[side - 1] ?? 0)}
              width={x(travels[side - 1] ?? 0) - x(travels[0] ?? 0)}
              height={y(travels[0] ?? 0) - y(travels[side - 1] ?? 0)}
            />
          </clipPath>
          <pattern id={id} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1={0} y1={0} x2={0} y2={5} stroke="var(--slate)" strokeWidth={1.6} />
          </pattern>
        </defs>
        {envelope.level.map((level, index) => {
          const left = travels[Math.floor(index / side)] ?? 0;
          const right = travels[index % side] ?? 0;
          if (level === null) return null;
          const reached = envelope.reached[index];
          const limit = limits[envelope.nearest[index] ?? -1];
          const used = envelope.used[index] ?? 0;
          const over = level === "violated";
          const place = { x: x(left) - size / 2, y: y(right) - size / 2, width: size, height: size };
          const colour = reached ? (limit ? KIND_COLOURS[limit.kind] : "var(--slate)") : "var(--ink)";
          const strength = !reached || over ? 100 : Math.max(0, Math.min(70, (used - 0.25) * 105));
          // Mixed, not see-through: cells that touch would show their seams.
          const fill = `color-mix(in srgb, ${colour} ${strength.toFixed(0)}%, var(--slate))`;
          return (
            <g key={index}>
              <rect {...place} fill={fill} />
              {over && <rect {...place} fill={`url(#${id})`} opacity={0.75} />}
            </g>
          );
        })}
      </g>
    );
  },
  (before, after) => before.setup === after.setup,
);
