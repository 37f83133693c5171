/** From millimetres of the vehicle to pixels of the drawing. Pure, no React. */
import type { Elevation } from "../api/client";

export type Face = "front" | "rear";

export type Picture = {
  k: number;
  /** Sideways: the vehicle's left lies on the right when looked at from the front. */
  x: (y: number) => number;
  y: (z: number) => number;
};

/** Fits the axle, the frame and the travel into a drawing, ground at the bottom. */
export function fit(
  elevation: Elevation,
  width: number,
  height: number,
  face: Face,
  margin: number,
  /** Room under the ground, for a wheel that hangs lower than it. */
  under = 0,
  /** Height from the ground of what has to be seen over all that. */
  over = 0,
): Picture {
  const half = elevation.track_mm / 2 + elevation.tyre_width_mm / 2 + 60 + under / 3;
  const droop = elevation.driven_travel_mm - elevation.full_droop_mm;
  const rails = elevation.frame_bottom_mm + elevation.rail_height_mm + 25 + droop;
  const top = Math.max(rails, elevation.tyre_diameter_mm, over) + 30;
  const k = Math.min((width - 2 * margin) / (2 * half), (height - 2 * margin) / (top + under));
  const turn = face === "front" ? 1 : -1;
  // The rule lies under the axle: what is left over stays above.
  const ground = height - margin - under * k;
  return { k, x: (y) => width / 2 + turn * y * k, y: (z) => ground - z * k };
}
