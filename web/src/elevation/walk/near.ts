/** Picking the nearest gap of a pose out of the fetched grid. Pure, no React. */
import type { Schemas } from "../../api/client";
import type { Wheels } from "../cyclePose";
import type { Point } from "./space";

/** What is nearest to touching in this pose. */
export type Near = { gap_mm: number; between: string; points: [Point, Point] };

type NearPoses = Schemas["NearPoses"];

/** A pose that was picked stands where it was told; wheels nearly alike are drawn alike. */
const SAME_POSE = 0.3;

/**
 * Of the gaps of arms and links, tightest first, the one to the thing that was picked, else the tightest that was told
 * of this pose; undefined in any other.
 */
export function roomGapAt(
  gaps: readonly Schemas["SwayGap"][],
  wheels: Wheels,
  picked: string | null,
): Near | undefined {
  const all = gaps.filter(({ at_mm: [left, right] }) =>
    [(left ?? 0) - wheels.left, (right ?? 0) - wheels.right].every((off) => Math.abs(off) < SAME_POSE),
  );
  const here = all.find(({ thing }) => thing === picked) ?? all[0];
  if (!here) return undefined;
  const [a, b] = here.between_mm.map((p): Point => [p[0] ?? 0, p[1] ?? 0, p[2] ?? 0]);
  return a && b && { gap_mm: here.gap_mm, between: `${here.rod} to ${here.thing}`, points: [a, b] };
}

/** The gap of the grid's pose nearest to where the wheels are; undefined where nothing is watched. */
export function nearAt(poses: NearPoses | undefined, { left, right }: Wheels): Near | undefined {
  if (!poses) return undefined;
  const { travels_mm: travels } = poses;
  const low = travels[0] ?? 0;
  const step = ((travels[travels.length - 1] ?? 0) - low) / (travels.length - 1);
  const place = (mm: number) => Math.max(0, Math.min(travels.length - 1, Math.round((mm - low) / step)));
  const index = place(left) * travels.length + place(right);
  const [gap, which] = [poses.gap_mm[index], poses.nearest[index]];
  if (gap === null || gap === undefined || which === null || which === undefined) return undefined;
  const figure = (at: number) => poses.points_mm[6 * index + at] ?? 0;
  const point = (from: number): Point => [figure(from), figure(from + 1), figure(from + 2)];
  return { gap_mm: gap, between: poses.names[which] ?? "", points: [point(0), point(3)] };
}
