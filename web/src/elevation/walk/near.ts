/** Picking the nearest gap of a pose out of the fetched grid. Pure, no React. */
import type { Schemas } from "../../api/client";
import type { Wheels } from "../cyclePose";
import type { Point } from "./space";

/** What is nearest to touching in this pose. */
export type Near = { gap_mm: number; between: string; points: [Point, Point] };

type NearPoses = Schemas["NearPoses"];

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
