/** The named views, and walking from one to the other. Pure, no React. */
import type { Face } from "../picture";
import type { Look } from "./space";

export type ViewName = "front" | "quarter" | "side" | "rear" | "below";

export const VIEWS = [
  { name: "front", look: { turn: 0, tilt: 0 } },
  { name: "quarter", look: { turn: 38, tilt: 16 } },
  { name: "side", look: { turn: 90, tilt: 0 } },
  { name: "rear", look: { turn: 180, tilt: 0 } },
  { name: "below", look: { turn: 8, tilt: -62 } },
] as const satisfies readonly { name: ViewName; look: Look }[];

/** Nearer than this to front or rear, the plain elevation takes over. */
const SNAP_DEG = 5;
const LOWEST = -88;
const HIGHEST = 60;

/** An angle from −180 up to 180. */
export const wrapped = (turn: number) => ((((turn + 180) % 360) + 360) % 360) - 180;

/** The end that is looked at straight on, if one is. */
export function endOf(look: Look): Face | undefined {
  if (Math.abs(look.tilt) > 0.01) return undefined;
  const turn = Math.abs(wrapped(look.turn));
  return turn < 0.01 ? "front" : turn > 179.99 ? "rear" : undefined;
}

/** A look turned by so much, never over the top. */
export const turned = (look: Look, by: Look): Look => ({
  turn: wrapped(look.turn + by.turn),
  tilt: Math.max(LOWEST, Math.min(HIGHEST, look.tilt + by.tilt)),
});

/** Let go near an end, the look comes to it. */
export function settled(look: Look): Look {
  const turn = wrapped(look.turn);
  if (Math.abs(look.tilt) > SNAP_DEG) return { ...look, turn };
  if (Math.abs(turn) < SNAP_DEG) return { turn: 0, tilt: 0 };
  if (Math.abs(turn) > 180 - SNAP_DEG) return { turn: 180, tilt: 0 };
  return { ...look, turn };
}

/** The named view a look is at, if it is at one. */
export function nameOf(look: Look): ViewName | undefined {
  const same = (a: Look) => Math.abs(wrapped(a.turn - look.turn)) < 0.5 && Math.abs(a.tilt - look.tilt) < 0.5;
  return VIEWS.find((view) => same(view.look))?.name;
}

/** What is lettered at the left and at the right edge of the picture, and what at the far edge where one looks along. */
export function letters(look: Look): readonly [string, string] {
  const turn = wrapped(look.turn);
  if (Math.abs(turn) <= 45) return ["right", "left"];
  if (Math.abs(turn) >= 135) return ["left", "right"];
  return turn > 0 ? ["front", "rear"] : ["rear", "front"];
}
