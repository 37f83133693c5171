import { useDrag } from "@use-gesture/react";
import { scaleLinear } from "d3-scale";
import { Pause, Play } from "lucide-react";
import { type ReactNode, useRef } from "react";
import type { Elevation, Results, Sample } from "../api/client";
import { distance, withMarks } from "../measure/format";
import { ticks } from "../measure/travel";
import { Button } from "../ui/Button";
import { useSettings } from "../ui/settings";
import type { Wheels } from "./cyclePose";
import { lineWords, reachOf, SwingCurves } from "./SwingCurves";
import { useStance } from "./stance";
import { usePlay } from "./usePlay";
import { useSize } from "./useSize";

type StickProps = {
  elevation: Elevation;
  heights: Results["heights"];
  low: number;
  high: number;
  /** The motion to plot beside the stick where there is room. */
  plot?: { sweep: readonly Sample[]; hasPlan: boolean };
  /** Another plot in its place, drawn at the stick's height and scale. */
  beside?: (scale: PlotScale) => ReactNode;
  /** Where the wheels are at a share of the round that plays; up and down where left out. */
  round?: (share: number) => Wheels;
};

export type PlotScale = {
  width: number;
  height: number;
  y: (mm: number) => number;
  ends: readonly [number, number];
};

/** Length of a tick by its weight, in pixels. */
const TICKS = [0, 7, 12, 20] as const;
const PAD = 26;
const BODY = { x: 20, width: 30 };

/** How far one step of a key goes: an eighth of an inch, or 2 mm. */
export const stickStep = { in: 25.4 / 8, mm: 2 } as const;

/** The height stick: travel from full droop to full bump, with the named heights. */
export function Stick({ elevation, heights, low, high, plot, beside, round }: StickProps) {
  const box = useRef<HTMLDivElement>(null);
  const { height } = useSize(box);
  const units = useSettings((s) => s.units);
  const { travel: held, setTravel, playing, setPlaying } = useStance();
  const { full_droop_mm: bottom, full_bump_mm: top, driven_travel_mm: driven } = elevation;
  const travel = Math.max(low, Math.min(high, held ?? driven));
  const k = Math.max(0, height - 2 * PAD) / (top - bottom);
  const y = (mm: number) => height - PAD - (mm - bottom) * k;
  const move = (to: number) => setTravel(Math.max(low, Math.min(high, to)));
  const [middle, half] = [(low + high) / 2, (high - low) / 2];
  const upAndDown = (share: number) => {
    const to = middle + half * Math.sin(share * 2 * Math.PI);
    return { left: to, right: to };
  };
  usePlay(round ?? upAndDown, () =>
    round ? 0 : Math.asin(Math.max(-1, Math.min(1, (travel - middle) / half))) / (2 * Math.PI) + 1,
  );

  const drag = useDrag(
    ({ xy: [, pageY], event }) => {
      event.preventDefault();
      const edge = box.current?.getBoundingClientRect();
      if (edge && k > 0) move(bottom + (edge.bottom - PAD - pageY) / k);
    },
    // Keys have their own steps below.
    { pointer: { keys: false } },
  );
  const words = travel === 0 ? "ride height" : `${distance(travel, units)} ${travel > 0 ? "bump" : "droop"}`;
  return (
    <div className="flex h-full flex-col items-end">
      <div className="flex min-h-0 flex-1">
        {beside && height > 0 && beside({ width: PLOT.width, height, y, ends: [y(top), y(bottom)] })}
        {plot && height > 0 && (
          <StickPlot {...plot} driven={driven} height={height} y={y} ends={[y(top), y(bottom)]} />
        )}
        <div
          ref={box}
          role="slider"
          tabIndex={0}
          aria-label="Travel"
          aria-orientation="vertical"
          aria-valuemin={Math.round(low)}
          aria-valuemax={Math.round(high)}
          aria-valuenow={Math.round(travel)}
          aria-valuetext={words}
          data-stick
          className="min-h-0 w-[124px] cursor-ns-resize touch-none select-none sm:w-[128px]"
          {...drag()}
          onWheel={(event) => move(travel - Math.sign(event.deltaY) * stickStep[units])}
          onKeyDown={(event) => {
            const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 8, PageDown: -8 }[
              event.key
            ];
            if (step === undefined) return;
            event.preventDefault();
            move(travel + step * stickStep[units]);
          }}
        >
          {height > 0 && (
            <StickDrawing
              ends={[bottom, top]}
              reach={[low, high]}
              travel={travel}
              heights={heights}
              height={height}
              y={y}
            />
          )}
        </div>
      </div>
      <output className="block min-h-[2.7em] w-[124px] text-center text-[15px] leading-tight" data-travel>
        {withMarks(words)}
      </output>
      <Button className="mr-4" onClick={() => setPlaying(!playing)} aria-pressed={playing}>
        {playing ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />}
        {playing ? "Pause" : "Cycle"}
      </Button>
    </div>
  );
}

type StickDrawingProps = {
  /** Full droop and full bump. */
  ends: readonly [number, number];
  /** How far it can be moved. */
  reach: readonly [number, number];
  travel: number;
  heights: Results["heights"];
  height: number;
  y: (mm: number) => number;
};

function StickDrawing({
  ends: [bottom, top],
  reach: [low, high],
  travel,
  heights,
  height,
  y,
}: StickDrawingProps) {
  const units = useSettings((s) => s.units);
  return (
    <svg width="100%" height={height} aria-hidden>
      <rect
        x={BODY.x}
        y={y(top)}
        width={BODY.width}
        height={y(bottom) - y(top)}
        fill="var(--tape)"
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
      {ticks(bottom, top, units).map(({ mm, weight }) => {
        if (weight === 0 || (units === "mm" && weight < 3)) return null;
        return (
          <line
            key={mm}
            x1={BODY.x}
            x2={BODY.x + TICKS[weight]}
            y1={y(mm)}
            y2={y(mm)}
            stroke="var(--ink)"
            strokeWidth={weight === 3 ? 1.5 : 1}
          />
        );
      })}
      {low > bottom + 0.5 && (
        <rect
          x={BODY.x}
          y={y(low)}
          width={BODY.width}
          height={y(bottom) - y(low)}
          fill="var(--axle)"
          opacity={0.35}
        />
      )}
      {high < top - 0.5 && (
        <rect
          x={BODY.x}
          y={y(top)}
          width={BODY.width}
          height={y(high) - y(top)}
          fill="var(--axle)"
          opacity={0.35}
        />
      )}
      <Marks heights={heights} bottom={bottom} top={top} y={y} />
      <polygon
        points={`${BODY.x - 1},${y(travel)} ${BODY.x - 18},${y(travel) - 10} ${BODY.x - 18},${y(travel) + 10}`}
        fill="var(--marker)"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      <line
        x1={BODY.x}
        x2={BODY.x + BODY.width}
        y1={y(travel)}
        y2={y(travel)}
        stroke="var(--ink)"
        strokeWidth={3}
      />
    </svg>
  );
}

/** A name in lines that fit beside the stick. */
function lines(name: string): string[] {
  const found: string[] = [];
  for (const word of name.split(" ")) {
    const last = found[found.length - 1];
    if (last !== undefined && last.length + word.length < 10) found[found.length - 1] = `${last} ${word}`;
    else found.push(word);
  }
  return found.slice(0, 3);
}

type StickPlotProps = {
  sweep: readonly Sample[];
  hasPlan: boolean;
  driven: number;
  height: number;
  y: (mm: number) => number;
  ends: readonly [number, number];
};

const PLOT = { width: 144, edge: 6 };

/** The swing beside the stick, at its height and scale. */
function StickPlot({ sweep, hasPlan, driven, height, y, ends }: StickPlotProps) {
  const { units, face } = useSettings();
  const most = reachOf(sweep);
  const x = scaleLinear([-most, most], [PLOT.edge, PLOT.width - PLOT.edge]);
  const [leftName, rightName] = face === "front" ? ["right", "left"] : ["left", "right"];
  return (
    <svg
      width={PLOT.width}
      height={height}
      className="ml-4 max-xl:hidden"
      role="img"
      aria-label="Side-to-side movement of the axle over the travel; figures in the table"
    >
      <SwingCurves
        sweep={sweep}
        hasPlan={hasPlan}
        driven={driven}
        x={x}
        y={y}
        sides={[0, PLOT.width]}
        ends={ends}
      />
      <text x={2} y={15} fontSize={14} fill="var(--ink)">{`◂ ${leftName}`}</text>
      <text x={PLOT.width - 2} y={15} fontSize={14} textAnchor="end" fill="var(--ink)">
        {`${rightName} ▸`}
      </text>
      <text x={PLOT.width / 2} y={height - 6} fontSize={14} textAnchor="middle" fill="var(--ink)">
        {withMarks(lineWords(units))}
      </text>
    </svg>
  );
}

type MarksProps = {
  heights: Results["heights"];
  bottom: number;
  top: number;
  y: (mm: number) => number;
};

function Marks({ heights, bottom, top, y }: MarksProps) {
  const ends = [
    { name: "full bump", mm: top, driven: false },
    { name: "full droop", mm: bottom, driven: false },
  ];
  const named = heights.map((height) => ({ name: height.name, mm: height.travel_mm, driven: height.driven }));
  const placed: { name: string; mm: number; driven: boolean; text: number }[] = [];
  for (const mark of [...ends, ...named].sort((a, b) => b.mm - a.mm)) {
    const above = placed[placed.length - 1];
    const below = above ? above.text + 4 + 15 * lines(above.name).length : 0;
    placed.push({ ...mark, text: Math.max(y(mark.mm), below) });
  }
  return placed.map((mark) => (
    <g key={mark.name}>
      <polyline
        points={`${BODY.x + BODY.width},${y(mark.mm)} ${BODY.x + BODY.width + 5},${y(mark.mm)} ${BODY.x + BODY.width + 9},${mark.text}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.3}
      />
      <text fontSize={14} fontWeight={mark.driven ? 700 : 400} fill="var(--ink)">
        {lines(mark.name).map((part, index) => (
          <tspan key={part} x={BODY.x + BODY.width + 11} y={mark.text + 5 + index * 15}>
            {part}
          </tspan>
        ))}
      </text>
    </g>
  ));
}
