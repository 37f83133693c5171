/** Picking a pose out of the fetched envelope, and the ways it is gone through. Pure, no React. */
import type { Envelope, SetupCycle } from "../api/client";
import type { Round } from "./stance";

export type Wheels = { left: number; right: number };

/** A pose as it is drawn: straight between the poses of the grid. */
export type DrawnPose = Wheels & {
  /** Heave. */
  z: number;
  /** + left wheel higher. */
  roll_deg: number;
  x_mm: number;
  y_mm: number;
  pitch_deg: number;
  yaw_deg: number;
  bar_angle_deg: number | undefined;
  roll_centre_mm: number;
  steer_deg: number | undefined;
  bind_mm: number;
  /** Points of the links, x y z each. */
  points: number[];
  /** Index of the nearest limit, and how it stands. */
  nearest: number | undefined;
  level: NonNullable<Envelope["level"][number]>;
};

/** The cell's corners with their shares; corners without a pose are left out. */
function corners(
  envelope: Pick<Envelope, "travels_mm" | "reached">,
  { left, right }: Wheels,
): { index: number; share: number }[] {
  const { travels_mm: travels } = envelope;
  const side = travels.length;
  const low = travels[0] ?? 0;
  const step = ((travels[side - 1] ?? 0) - low) / (side - 1);
  const place = (mm: number) => Math.max(0, Math.min(side - 1, (mm - low) / step));
  const [row, column] = [place(left), place(right)];
  const [r, c] = [Math.min(Math.floor(row), side - 2), Math.min(Math.floor(column), side - 2)];
  const [down, along] = [row - r, column - c];
  const all = [
    { index: r * side + c, share: (1 - down) * (1 - along) },
    { index: r * side + c + 1, share: (1 - down) * along },
    { index: (r + 1) * side + c, share: down * (1 - along) },
    { index: (r + 1) * side + c + 1, share: down * along },
  ];
  return all.filter(({ index, share }) => share > 1e-9 && envelope.reached[index]);
}

/** The pose at two wheel travels; undefined out of reach. */
export function poseAt(setup: SetupCycle, wheels: Wheels): DrawnPose | undefined {
  const { drawn } = setup.envelope;
  const near = corners(drawn, wheels);
  const whole = near.reduce((sum, corner) => sum + corner.share, 0);
  const nearest = corners(setup.envelope, wheels).reduce(
    (best, corner) => (corner.share > best.share ? corner : best),
    { index: -1, share: 0 },
  );
  // The finer grid tells where the links still reach.
  if (whole === 0 || nearest.index < 0) return undefined;
  const between = (column: readonly (number | null)[], stride = 1, offset = 0): number | undefined => {
    let sum = 0;
    for (const { index, share } of near) {
      const value = column[index * stride + offset];
      if (value === null || value === undefined) return undefined;
      sum += (value * share) / whole;
    }
    return sum;
  };
  const stride = 3 * drawn.points_per_pose;
  return {
    ...wheels,
    z: between(drawn.z_mm) ?? 0,
    roll_deg: between(drawn.roll_deg) ?? 0,
    x_mm: between(drawn.x_mm) ?? 0,
    y_mm: between(drawn.y_mm) ?? 0,
    pitch_deg: between(drawn.pitch_deg) ?? 0,
    yaw_deg: between(drawn.yaw_deg) ?? 0,
    bar_angle_deg: between(drawn.bar_angle_deg),
    roll_centre_mm: between(drawn.roll_centre_mm) ?? 0,
    steer_deg: between(drawn.steer_deg),
    bind_mm: between(drawn.bind_mm) ?? 0,
    points: Array.from({ length: stride }, (_, offset) => between(drawn.points_mm, stride, offset) ?? 0),
    nearest: setup.envelope.nearest[nearest.index] ?? undefined,
    level: setup.envelope.level[nearest.index] ?? "free",
  };
}

const straight = (from: Wheels, to: Wheels, share: number): Wheels => ({
  left: from.left + (to.left - from.left) * share,
  right: from.right + (to.right - from.right) * share,
});

/** Where the wheels are at a share of a round, 0 to 1. */
export function roundAt(setup: SetupCycle, round: Round, share: number): Wheels {
  const ends = setup.ways.map((way) => ({ left: way.end_mm[0] ?? 0, right: way.end_mm[1] ?? 0 }));
  const [droop, bump, leftUp, rightUp] = ends;
  if (!droop || !bump || !leftUp || !rightUp) return { left: 0, right: 0 };
  const swing = Math.sin(share * 2 * Math.PI);
  const ride = { left: 0, right: 0 };
  if (round === "heave") return straight(ride, swing > 0 ? bump : droop, Math.abs(swing));
  if (round === "cross") return straight(ride, swing > 0 ? leftUp : rightUp, Math.abs(swing));
  const stations = [bump, leftUp, droop, rightUp];
  const place = share * stations.length;
  const from = stations[Math.floor(place) % stations.length];
  const to = stations[(Math.floor(place) + 1) % stations.length];
  return from && to ? straight(from, to, place - Math.floor(place)) : ride;
}

/** Points of one link in a drawn pose, body end first. */
export function linkPoints(setup: SetupCycle, pose: DrawnPose): { link: number; points: number[][] }[] {
  let next = 0;
  const take = () => {
    const point = pose.points.slice(3 * next, 3 * next + 3);
    next += 1;
    return point;
  };
  return setup.links.map((link, index) => ({
    link: index,
    points: [link.body_mm, ...Array.from({ length: link.bent ? 2 : 1 }, take)],
  }));
}
