import type { ReactNode } from "react";
import type { Part } from "../api/client";
import { RACK_SCALE, type Sketch } from "./sketch";

/** Where nobody measured a thickness. */
const USUAL = { bar: 32, rod: 16, plate: 46, ear: 60, link: 20 };
const PAD = 14;
/** In smaller pictures the numbers of holes would lie on each other. */
const NUMBERED_FROM = 0.35;

type PartPictureProps = { sketch: Sketch; k?: number };

/** A part to scale in the marks of the work screens. */
export function PartPicture({ sketch, k = RACK_SCALE }: PartPictureProps) {
  const { width, height, drawn } = DRAWERS[sketch.kind](sketch, k > NUMBERED_FROM);
  const [w, h] = [width * k + 2 * PAD, height * k + 2 * PAD];
  return (
    <svg
      width={w}
      height={h}
      viewBox={`0 0 ${w} ${h}`}
      className="block max-w-full"
      aria-hidden
      data-picture={sketch.kind}
    >
      <g transform={`translate(${PAD} ${PAD}) scale(${k})`} strokeWidth={1.6 / k} strokeLinejoin="round">
        {drawn}
      </g>
    </svg>
  );
}

type Drawn = { width: number; height: number; drawn: ReactNode };

const ink = { stroke: "var(--ink)" };
const set = { fill: "var(--marker)", ...ink };
const steel = { fill: "var(--arm)", ...ink };
const FrameEye = ({ x, y }: { x: number; y: number }) => (
  <rect x={x - 22} y={y - 22} width={44} height={44} fill="var(--frame)" stroke="var(--slate)" />
);
const AxleEye = ({ x, y }: { x: number; y: number }) => (
  <circle cx={x} cy={y} r={23} fill="var(--axle)" stroke="var(--slate)" />
);

/** Something between two eyes that is made from a shortest to a longest: the stretch it slides over is dashed. */
function stretch(shortest: number, longest: number, thick: number, eyes: boolean): Drawn {
  const half = Math.max(thick, 44) / 2;
  return {
    width: longest + 44,
    height: 2 * half,
    drawn: (
      <g transform={`translate(22 ${half})`}>
        {longest - shortest > 1 && (
          <>
            <rect
              x={shortest}
              y={-thick / 2}
              width={longest - shortest}
              height={thick}
              fill="var(--tape)"
              stroke="var(--ink)"
              strokeDasharray="22 16"
            />
            <circle cx={longest} cy={0} r={20} fill="none" stroke="var(--axle)" strokeDasharray="14 10" />
          </>
        )}
        <rect x={0} y={-thick / 2} width={shortest} height={thick} {...set} />
        {eyes ? <FrameEye x={0} y={0} /> : <circle cx={0} cy={0} r={16} {...steel} />}
        {eyes ? <AxleEye x={shortest} y={0} /> : <circle cx={shortest} cy={0} r={16} {...steel} />}
      </g>
    ),
  };
}

function bar({ mm, adjuster }: Sketch): Drawn {
  const shortest = mm.made_min ?? mm.made_max ?? 800;
  const longest = adjuster === "fixed" ? shortest : (mm.made_max ?? shortest);
  return stretch(shortest, longest, mm.outside ?? USUAL.bar, true);
}

function bracket({ holes, end }: Sketch, numbered: boolean): Drawn {
  const ups = [0, ...holes.map(({ up }) => up)];
  const [low, high] = [Math.min(...ups) - 40, Math.max(...ups) + 40];
  const outs = [0, ...holes.map(({ outward }) => outward)];
  const [left, right] = [Math.min(...outs) - 34, Math.max(...outs) + 34];
  const at = (up: number) => high - up;
  const tip = 60;
  return {
    width: right - left + 160,
    height: high - low + tip,
    drawn: (
      <g transform={`translate(${-left} ${end === "axle" ? 0 : tip})`}>
        <rect
          x={left}
          y={end === "axle" ? 0 : -tip}
          width={right - left}
          height={high - low + tip}
          rx={16}
          fill={`var(--${end}-soft)`}
          stroke={`var(--${end})`}
        />
        <circle cx={0} cy={at(0)} r={11} fill="none" stroke={`var(--${end})`} strokeDasharray="9 7" />
        {holes.map((hole) => (
          <g key={hole.name} data-hole-drawn={hole.name}>
            <circle cx={hole.outward} cy={at(hole.up)} r={12} fill="var(--slate)" stroke={`var(--${end})`} />
            {numbered && (
              <text x={right + 16} y={at(hole.up) + 16} fontSize={46} fill="var(--ink)">
                {hole.name.replace(/^hole /, "")}
              </text>
            )}
          </g>
        ))}
      </g>
    ),
  };
}

/** A rod of a length, with a mark of what it is. */
const rod = (length: number, thick: number, look: { fill: string; stroke: string }): Drawn => ({
  width: length,
  height: thick,
  drawn: <rect width={length} height={thick} rx={thick / 3} {...look} />,
});

function swayBar({ mm }: Sketch): Drawn {
  const [long, arm, thick] = [mm.active_length ?? 900, mm.arm ?? 250, mm.outside ?? 28];
  const path = `M ${thick} ${arm} L ${thick * 2} ${thick} H ${long - thick} L ${long} ${arm}`;
  return {
    width: long + thick,
    height: arm + thick,
    drawn: (
      <g fill="none" strokeLinecap="round">
        <path d={path} stroke="var(--ink)" strokeWidth={thick + 8} />
        <path d={path} stroke="var(--frame)" strokeWidth={thick} />
      </g>
    ),
  };
}

function fastener({ mm }: Sketch): Drawn {
  const long = mm.length ?? 75;
  return {
    width: long + 30,
    height: 44,
    drawn: (
      <g>
        <rect y={0} width={20} height={44} {...steel} />
        <rect x={20} y={13} width={long} height={18} {...steel} />
        <path
          d={Array.from({ length: 5 }, (_, at) => `M ${20 + long - 8 - at * 7} 13 v 18`).join(" ")}
          {...ink}
        />
      </g>
    ),
  };
}

const block = (width: number, height: number): Drawn => ({
  width,
  height,
  drawn: <rect width={width} height={height} rx={6} {...steel} />,
});

const DRAWERS = {
  bar,
  bracket,
  sway_bar: swayBar,
  fastener,
  sway_link: ({ mm }) =>
    stretch(mm.made_min ?? mm.made_max ?? 200, mm.made_max ?? mm.made_min ?? 200, USUAL.link, false),
  brace: ({ mm }) => rod(mm.length ?? 400, USUAL.rod, steel),
  joint: ({ mm }) => ({
    width: 70,
    height: mm.width ?? 60,
    drawn: (
      <g>
        <rect x={8} width={54} height={mm.width ?? 60} rx={10} {...steel} />
        <rect
          x={35 - (mm.bolt ?? 14) / 2}
          width={mm.bolt ?? 14}
          height={mm.width ?? 60}
          fill="var(--slate)"
          {...ink}
        />
      </g>
    ),
  }),
  drag_link: ({ mm }) => {
    const rise = Math.max(mm.raises_axle_end ?? 0, mm.drops_pitman_end ?? 0, 20);
    return {
      width: 120,
      height: rise + 40,
      drawn: (
        <g>
          <rect x={40} width={40} height={rise + 40} rx={14} {...steel} />
          <circle cx={60} cy={18} r={12} fill="var(--axle)" stroke="var(--slate)" />
          <circle cx={60} cy={rise + 22} r={11} fill="none" stroke="var(--axle)" strokeDasharray="8 6" />
        </g>
      ),
    };
  },
  shim: ({ mm }) => block(90, Math.max(mm.thickness ?? 6, 4)),
  disconnect: () => rod(90, 16, set),
  kit: () => block(220, 110),
} satisfies Record<Part["kind"], (sketch: Sketch, numbered: boolean) => Drawn>;
