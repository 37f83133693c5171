/** What is drawn, in space: the parts of an axle in a pose. Pure, no React. */
import type { Elevation, Schemas, SetupCycle, SwayLinks, SwayPose } from "../../api/client";
import { type DrawnPose, linkPoints } from "../cyclePose";
import { type AxlePose, axlePlacer, between, circle, type Point, plus } from "./space";

/** Whose it is: the frame's, the axle's, what one sets, what locates the axle, a spring. */
export type Owner = "frame" | "axle" | "set" | "arm" | "spring" | "sway";

export type Part =
  | { kind: "rod"; owner: Owner; points: Point[]; radius: number; name?: string; assumed?: boolean }
  | { kind: "ball"; owner: Owner; at: Point; radius: number }
  | { kind: "eye"; owner: "frame" | "axle"; at: Point; radius: number }
  | { kind: "box"; owner: Owner; corners: Point[] }
  | { kind: "coil"; points: Point[] }
  /** The room something thick takes, seen through. */
  | { kind: "swept"; points: Point[]; radius: number }
  | { kind: "tyre"; faces: [Point[], Point[]]; rim: Point[]; hub: Point; outward: Point };

/** Half a rail's run that is drawn, before and behind the axle. */
const RAIL_AHEAD = 620;
const TUBE = 44;
const HOUSING = 140;
const COIL = { radius: 52, turns: 6, each: 12 };

/** Boxes between two x, two y and two z. */
const box = (owner: Owner, x: [number, number], y: [number, number], z: [number, number]): Part => ({
  kind: "box",
  owner,
  corners: x.flatMap((px) => y.flatMap((py) => z.map((pz): Point => [px, py, pz]))),
});

/** Frame rails and the crossmember between them. */
function rails(e: Elevation): Part[] {
  // The elevation stands at the driven height; the body's axes are those of ride height.
  const low = e.frame_bottom_mm + e.driven_travel_mm;
  const half = e.frame_width_mm / 2;
  const side = (sign: 1 | -1) =>
    [-RAIL_AHEAD, 0].map((from) =>
      box(
        "frame",
        [from, from + RAIL_AHEAD],
        [sign * half, sign * (half - e.rail_width_mm)],
        [low, low + e.rail_height_mm],
      ),
    );
  const inside = half - e.rail_width_mm;
  const level = (share: number) => low + share * e.rail_height_mm;
  const across = box("frame", [260, 330], [-inside, inside], [level(0.3), level(0.8)]);
  return [...side(1), ...side(-1), across];
}

function tyre(e: Elevation, side: 1 | -1, place: (p: Point) => Point): Part {
  const [near, far] = [0, 1].map((end) => {
    const y = side * (e.track_mm / 2 + (end === 0 ? 0.5 : -0.5) * e.tyre_width_mm);
    return circle([0, y, e.axle_height_mm], [0, 1, 0], e.tyre_diameter_mm / 2).map(place);
  }) as [Point[], Point[]];
  const outer: Point = [0, side * (e.track_mm / 2 + 0.5 * e.tyre_width_mm), e.axle_height_mm];
  return {
    kind: "tyre",
    faces: [near, far],
    rim: circle(outer, [0, 1, 0], e.tyre_diameter_mm * 0.28).map(place),
    hub: place(outer),
    outward: [0, side, 0],
  };
}

/** A coil spring of a side, from its seat on the axle to the rail. */
function coil(e: Elevation, side: 1 | -1, place: (p: Point) => Point): Part {
  const y = side * (e.frame_width_mm / 2 - e.rail_width_mm / 2);
  const foot = place([0, y, e.axle_height_mm + TUBE]);
  const top: Point = [0, y, e.frame_bottom_mm + e.driven_travel_mm + e.rail_height_mm * 0.6];
  const points = Array.from({ length: COIL.turns * COIL.each + 1 }, (_, index): Point => {
    const angle = (index / COIL.each) * 2 * Math.PI;
    const middle = between(foot, top, index / (COIL.turns * COIL.each));
    return plus(middle, [COIL.radius * Math.cos(angle), COIL.radius * Math.sin(angle), 0]);
  });
  return { kind: "coil", points };
}

/** Leaf springs: a flat bow before and behind the axle. */
function leaf(e: Elevation, side: 1 | -1, place: (p: Point) => Point): Part {
  const y = side * (e.frame_width_mm / 2 - e.rail_width_mm / 2);
  const seat = place([0, y, e.axle_height_mm + TUBE]);
  const ends = e.frame_bottom_mm + e.driven_travel_mm - 30;
  const points = [-560, -280, 0, 280, 560].map((x): Point => {
    const share = Math.abs(x) / 560;
    return [x, seat[1] * (1 - share) + y * share, seat[2] * (1 - share ** 2) + ends * share ** 2];
  });
  return { kind: "rod", owner: "spring", points, radius: 16 };
}

/** The axle itself: tubes, housing, hubs. */
function axle(e: Elevation, place: (p: Point) => Point): Part[] {
  const inner = e.track_mm / 2 - e.tyre_width_mm / 2;
  const diff = (e.differential_side === "left" ? 1 : -1) * e.track_mm * 0.14;
  const at = (y: number): Point => place([0, y, e.axle_height_mm]);
  const tube = (from: number, to: number): Part => ({
    kind: "rod",
    owner: "axle",
    points: [at(from), at(to)],
    radius: TUBE,
  });
  return [
    tube(-inner, diff),
    tube(diff, inner),
    { kind: "ball", owner: "axle", at: at(diff), radius: HOUSING },
  ];
}

/** A bar or arm with its eyes: square on the frame, round on the axle. */
function link(
  points: Point[],
  radius: number,
  owner: Owner,
  more: { name?: string; assumed?: boolean },
): Part[] {
  const [from, to] = [points[0], points[points.length - 1]];
  const eye = Math.max(radius * 1.3, 22);
  return [
    { kind: "rod", owner, points, radius, ...more },
    ...(from ? [{ kind: "eye", owner: "frame", at: from, radius: eye } as const] : []),
    ...(to ? [{ kind: "eye", owner: "axle", at: to, radius: eye } as const] : []),
  ];
}

/** Links, drag link and obstacles, as the pose solver has them. */
function mechanism(setup: SetupCycle, pose: DrawnPose, place: (p: Point) => Point): Part[] {
  const at = (p: readonly number[]): Point => [p[0] ?? 0, p[1] ?? 0, p[2] ?? 0];
  const parts = linkPoints(setup, pose).flatMap(({ link: index, points }) => {
    const reported = setup.links[index];
    const owner: Owner = reported?.is_bar ? "set" : "arm";
    return link(points.map(at), reported?.radius_mm ?? 20, owner, {
      ...(reported?.is_bar && { name: "track bar" }),
      assumed: reported?.assumed ?? false,
    });
  });
  const pitman = setup.steering?.pitman_mm;
  const drag = pitman ? link([at(pitman), at(pose.points.slice(-3))], 14, "arm", { name: "drag link" }) : [];
  const obstacles = setup.obstacles.map((obstacle): Part => {
    const ends = obstacle.ends_mm.map(at).map((end) => (obstacle.on_axle ? place(end) : end));
    const owner = obstacle.on_axle ? "axle" : "frame";
    return { kind: "rod", owner, points: ends, radius: obstacle.radius_mm, name: obstacle.name };
  });
  return [...parts, ...drag, ...obstacles];
}

/** The bar alone, where nothing else was measured. */
function bareBar(e: Elevation, planned: boolean, place: (p: Point) => Point): Part[] {
  const eyes = (planned && e.planned_eyes) || e.eyes;
  if (!eyes) return [];
  const frame: Point = [120, eyes.frame.y_mm, eyes.frame.z_mm + e.driven_travel_mm];
  return link([frame, place([120, eyes.axle.y_mm, eyes.axle.z_mm])], 19, "set", { name: "track bar" });
}

/** The sway bar, its arms and links, in a pose. */
export function swayParts(links: SwayLinks, pose: SwayPose): Part[] {
  const ahead = [
    [0, 0],
    [0, pose.left.eye_ahead_mm],
    [0, pose.right.eye_ahead_mm],
    [pose.left.eye_ahead_mm, pose.left.far_ahead_mm],
    [pose.right.eye_ahead_mm, pose.right.far_ahead_mm],
  ];
  return (pose.end_mm ?? []).map((rod, index): Part => {
    const points = rod.map(
      (end, at): Point => [links.axis_ahead_mm + (ahead[index]?.[at] ?? 0), end[0] ?? 0, end[1] ?? 0],
    );
    const set = index > 2;
    return {
      kind: "rod",
      owner: set ? "set" : links.on_axle ? "axle" : "sway",
      points,
      radius: set ? 12 : 17,
      ...(index === 0 && { name: "sway bar" }),
      ...(index === 3 && { name: "sway link" }),
    };
  });
}

type RoomThing = Schemas["RoomThing"];

/** Shocks that were measured; with the section about it, tyres at their lock as well. */
export function roomParts(
  things: readonly RoomThing[],
  steered: boolean,
  place: (p: Point) => Point,
): Part[] {
  return things.flatMap(({ name, kind, points_mm, on_axle, radius_mm: radius }): Part[] => {
    const points = points_mm.map((p, index): Point => {
      const at: Point = [p[0] ?? 0, p[1] ?? 0, p[2] ?? 0];
      return on_axle[index] ? place(at) : at;
    });
    if (kind === "shock") return link(points, radius, "spring", { name });
    return kind === "steered_tyre" && steered ? [{ kind: "swept", points, radius }] : [];
  });
}

export type Situation = {
  elevation: Elevation;
  pose: AxlePose;
  /** The mechanism with its pose, where it could be put together. */
  solved?: { setup: SetupCycle; pose: DrawnPose } | undefined;
  planned: boolean;
  leafSprings: boolean;
  sway?: { links: SwayLinks; pose: SwayPose } | undefined;
  /** What arms and links are kept clear of, and whether the section about it is open. */
  room?: { things: readonly RoomThing[]; open: boolean } | undefined;
};

/** Every part of a situation. */
export function scene({ elevation, pose, solved, planned, leafSprings, sway, room }: Situation): Part[] {
  const place = axlePlacer(pose, elevation.axle_height_mm);
  const spring = leafSprings ? leaf : coil;
  return [
    ...rails(elevation),
    tyre(elevation, 1, place),
    tyre(elevation, -1, place),
    ...axle(elevation, place),
    spring(elevation, 1, place),
    spring(elevation, -1, place),
    ...(solved ? mechanism(solved.setup, solved.pose, place) : bareBar(elevation, planned, place)),
    ...(sway ? swayParts(sway.links, sway.pose) : []),
    ...(room ? roomParts(room.things, room.open, place) : []),
  ];
}
