/**
 * Places in space and how one looks at them: millimetres forward, left, up in the body's axes at ride height. Pure,
 * no React. The turns are those of the core's poses: R = Rz(yaw) · Rx(roll) · Ry(pitch) about the axle's centre.
 */

export type Point = readonly [number, number, number];
export type Spot = { x: number; y: number; depth: number };

/** What of a pose places the axle. */
export type AxlePose = {
  x_mm: number;
  y_mm: number;
  /** Heave. */
  z: number;
  roll_deg: number;
  pitch_deg: number;
  yaw_deg: number;
};

const RAD = Math.PI / 180;

export const plus = (a: Point, b: Point): Point => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Point, k: number): Point => [a[0] * k, a[1] * k, a[2] * k];
export const between = (a: Point, b: Point, share: number): Point => plus(a, times(minus(b, a), share));
export const length = (a: Point): number => Math.hypot(...a);

/** Places what is fixed to the axle, given where it is at ride height with the axle centred. */
export function axlePlacer(pose: AxlePose, axleHeight: number): (point: Point) => Point {
  const [sr, cr] = [Math.sin(pose.roll_deg * RAD), Math.cos(pose.roll_deg * RAD)];
  const [sp, cp] = [Math.sin(pose.pitch_deg * RAD), Math.cos(pose.pitch_deg * RAD)];
  const [sy, cy] = [Math.sin(pose.yaw_deg * RAD), Math.cos(pose.yaw_deg * RAD)];
  return ([x, y, h]) => {
    const z = h - axleHeight;
    // About y by the pitch, about x by the roll, about z by the yaw.
    const [px, pz] = [x * cp + z * sp, z * cp - x * sp];
    const [ry, rz] = [y * cr - pz * sr, y * sr + pz * cr];
    return [px * cy - ry * sy + pose.x_mm, px * sy + ry * cy + pose.y_mm, rz + axleHeight + pose.z];
  };
}

/**
 * How one looks at it. `turn` 0 is from the front, 90 from the vehicle's left, 180 from the rear; `tilt` + looks down
 * on it, − up from below, in degrees.
 */
export type Look = { turn: number; tilt: number };

export type Camera = {
  /** Pixels of a millimetre. */
  k: number;
  /** Where a point is drawn, and how near it is: more is nearer. */
  spot: (point: Point) => Spot;
  /** How a direction lies in the picture, its depth + towards whoever looks. */
  along: (direction: Point) => Spot;
};

/** Looks at `centre`, drawn at the middle of a picture. Parallel: what is as long is drawn as long. */
export function camera(look: Look, centre: Point, k: number, middle: readonly [number, number]): Camera {
  const [st, ct] = [Math.sin(look.turn * RAD), Math.cos(look.turn * RAD)];
  const [sv, cv] = [Math.sin(look.tilt * RAD), Math.cos(look.tilt * RAD)];
  // From the front one looks backward: the vehicle's left is on the right.
  const towards = ([x, y]: Point) => x * ct + y * st;
  const along = (direction: Point): Spot => {
    const near = towards(direction);
    const right = direction[1] * ct - direction[0] * st;
    return {
      x: right * k,
      y: (-direction[2] * cv + near * sv) * k,
      depth: near * cv + direction[2] * sv,
    };
  };
  return {
    k,
    along,
    spot: (point) => {
      const from = along(minus(point, centre));
      return { x: middle[0] + from.x, y: middle[1] + from.y, depth: from.depth };
    },
  };
}

/** The corners of the smallest outline round some spots, in order. */
export function outline(spots: readonly Spot[]): Spot[] {
  const sorted = [...spots].sort((a, b) => a.x - b.x || a.y - b.y);
  const cross = (o: Spot, a: Spot, b: Spot) => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
  const half = (points: readonly Spot[]) => {
    const hull: Spot[] = [];
    for (const point of points) {
      for (;;) {
        const [b, a] = [hull[hull.length - 1], hull[hull.length - 2]];
        if (!a || !b || cross(a, b, point) > 0) break;
        hull.pop();
      }
      hull.push(point);
    }
    return hull.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** Points of a circle about `centre`, across `axis`. */
export function circle(centre: Point, axis: Point, radius: number, points = 28): Point[] {
  const k = times(axis, 1 / (length(axis) || 1));
  const helper: Point = Math.abs(k[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const cross = (a: Point, b: Point): Point => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ];
  const side = cross(k, helper);
  const u = times(side, 1 / (length(side) || 1));
  const v = cross(k, u);
  return Array.from({ length: points }, (_, index) => {
    const angle = (index / points) * 2 * Math.PI;
    return plus(centre, plus(times(u, radius * Math.cos(angle)), times(v, radius * Math.sin(angle))));
  });
}
