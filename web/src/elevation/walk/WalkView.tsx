import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useMemo, useRef } from "react";
import type { Unit } from "../../api/client";
import { useSize } from "../useSize";
import { type Named, shapes } from "./draw";
import { Names } from "./Leader";
import { NearLine, nameOfNear } from "./NearLine";
import type { Near } from "./near";
import { Shapes } from "./Shapes";
import { type Situation, scene } from "./scene";
import { type Camera, camera, type Look, type Point } from "./space";
import { standing, useLook } from "./useLook";
import { letters, nameOf, settled, turned } from "./views";

type WalkViewProps = {
  situation: Situation;
  near: Near | undefined;
  look: Look;
  units: Unit;
  /** Left or right is the driver's, where that is known. */
  driver: "left" | "right" | undefined;
};

/** Degrees of a pixel that is dragged, and of a key. */
const DRAG = 0.35;
const KEY = 7.5;

const STEPS: Record<string, Look> = {
  ArrowLeft: { turn: -KEY, tilt: 0 },
  ArrowRight: { turn: KEY, tilt: 0 },
  ArrowUp: { turn: 0, tilt: KEY },
  ArrowDown: { turn: 0, tilt: -KEY },
};

/** Turns the drawing while something on it is dragged: sideways walks round, down lies under it. */
export function useWalking() {
  const from = useRef<Look>({ turn: 0, tilt: 0 });
  return useDrag(
    ({ first, last, movement: [mx, my], event, cancel, tap }) => {
      // What can be grasped in the drawing is grasped.
      if (
        first &&
        event.target instanceof Element &&
        event.target.closest("[data-eye], [data-hole], button")
      ) {
        cancel();
        return;
      }
      if (tap) return;
      if (first) from.current = standing();
      const to = turned(from.current, { turn: -mx * DRAG, tilt: -my * DRAG });
      useLook.getState().walkTo(last ? settled(to) : to);
    },
    // What is dragged may be drawn in another place of the order meanwhile: the window keeps the pointer, not the part.
    { threshold: 8, filterTaps: true, pointer: { touch: false, keys: false, capture: false } },
  );
}

/** The drawing from any side: what the pose solver says, in one style at every angle. */
export function WalkView({ situation, near, look, units, driver }: WalkViewProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const drag = useWalking();
  const parts = useMemo(() => scene(situation), [situation]);
  const { elevation, pose } = situation;
  const k = Math.min(width / (elevation.track_mm + 620), height / 1250);
  const centre: Point = [0, 0, elevation.axle_height_mm + pose.z + 90];
  const view = camera(look, centre, k, [width / 2, height / 2]);
  const drawn = shapes(parts, view, centre);
  const [left, right] = letters(look);
  const onKey = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    useLook.getState().walkTo(settled(turned(look, step)));
  };
  return (
    <div
      role="slider"
      aria-valuemin={-180}
      aria-valuemax={180}
      aria-valuenow={Math.round(look.turn)}
      aria-valuetext={nameOf(look) ?? `${Math.round(look.turn)}° around, ${Math.round(look.tilt)}° up`}
      ref={box}
      tabIndex={0}
      onKeyDown={onKey}
      {...drag()}
      aria-label="The axle as you would see it standing there; arrow keys walk around it"
      className="relative min-h-0 cursor-grab touch-pan-y select-none overflow-hidden active:cursor-grabbing"
      data-walk
      data-turn={look.turn.toFixed(1)}
      data-tilt={look.tilt.toFixed(1)}
    >
      {width > 0 && height > 0 && (
        <svg width={width} height={height} className="block" aria-hidden>
          {look.tilt > -6 && <Floor view={view} situation={situation} />}
          <Shapes shapes={drawn} k={k} />
          {near && <NearLine near={near} view={view} />}
          <Names named={namesOf(drawn, near, view, units)} width={width} height={height} />
        </svg>
      )}
      <SideLetter side={left} driver={driver} className="left-2" />
      <SideLetter side={right} driver={driver} className="right-2 text-right" />
    </div>
  );
}

type SideLetterProps = { side: string; driver: "left" | "right" | undefined; className: string };

function SideLetter({ side, driver, className }: SideLetterProps) {
  const about = side === "left" || side === "right";
  return (
    <div className={`absolute top-8 leading-tight ${className}`} data-letter={side}>
      <b className="uppercase tracking-wide">{side}</b>
      {about && driver && (
        <div className="text-[15px] text-muted">{side === driver ? "driver" : "passenger"}</div>
      )}
    </div>
  );
}

/** The floor under it with the body's centreline. */
function Floor({ view, situation: { elevation, pose } }: { view: Camera; situation: Situation }) {
  const z = elevation.axle_height_mm - elevation.tyre_diameter_mm / 2 + pose.z;
  const [ahead, aside] = [760, elevation.track_mm / 2 + 220];
  const at = (x: number, y: number) => {
    const { x: px, y: py } = view.spot([x, y, z]);
    return `${px.toFixed(1)},${py.toFixed(1)}`;
  };
  return (
    <g>
      <polygon
        points={[at(ahead, aside), at(ahead, -aside), at(-ahead, -aside), at(-ahead, aside)].join(" ")}
        fill="var(--line)"
        fillOpacity={0.4}
      />
      <polyline
        points={`${at(ahead, 0)} ${at(-ahead, 0)}`}
        stroke="var(--frame)"
        strokeWidth={1.5}
        strokeDasharray="12 4 2 4"
      />
    </g>
  );
}

const OWN = 14;

/** What is named: bars and links, what stands in the way, and the nearest gap. */
function namesOf(
  drawn: ReturnType<typeof shapes>,
  near: Near | undefined,
  view: Camera,
  units: Unit,
): Named[] {
  const named: Named[] = near ? nameOfNear(near, view, units) : [];
  for (const { part, spots } of drawn) {
    if (part.kind !== "rod" || !part.name || named.length >= OWN) continue;
    if (named.some((other) => other.text === part.name)) continue;
    const middle = spots[Math.floor((spots.length - 1) / 2)];
    const next = spots[Math.floor((spots.length - 1) / 2) + 1];
    if (!middle) continue;
    const [x, y] = next ? [(middle.x + next.x) / 2, (middle.y + next.y) / 2] : [middle.x, middle.y];
    named.push({ text: part.name, x, y, owner: part.owner });
  }
  return named;
}
