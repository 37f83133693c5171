import type { Elevation, SetupCycle } from "../api/client";
import { type DrawnPose, linkPoints } from "./cyclePose";
import { EyeBrackets } from "./EyeBrackets";
import type { Picture } from "./picture";
import { labels, type Named } from "./walk/draw";
import { Leader } from "./walk/Leader";

type CyclePartsProps = {
  setup: SetupCycle;
  /** The other setup, its bar as a ghost. */
  other?: SetupCycle;
  otherPose?: DrawnPose;
  pose: DrawnPose;
  elevation: Elevation;
  picture: Picture;
  /** Turn of the axle in the picture, clockwise, in degrees. */
  turned: number;
};

/** Links, obstacles and brackets of a pose, in the end view. */
export function CycleParts({ setup, other, otherPose, pose, elevation, picture, turned }: CyclePartsProps) {
  const { k, x, y } = picture;
  const body = (p: readonly number[]) => [x(p[1] ?? 0), y((p[2] ?? 0) - pose.z)] as const;
  const axleTurn = `rotate(${turned} ${x(pose.y_mm)} ${y(elevation.axle_height_mm)})`;
  const ghost =
    other && otherPose && linkPoints(other, otherPose).find(({ link }) => other.links[link]?.is_bar);
  const drawn = linkPoints(setup, pose);
  // In a small picture a name would lie over everything.
  const named = k > 0.14;
  const bar = drawn.find(({ link }) => setup.links[link]?.is_bar)?.points.map(body);
  const railBottom = elevation.frame_bottom_mm + elevation.driven_travel_mm;
  const obstacles = setup.obstacles.map((obstacle) => ({
    ...obstacle,
    ends: obstacle.ends_mm.map((end) =>
      obstacle.on_axle ? ([x((end[1] ?? 0) + pose.y_mm), y(end[2] ?? 0)] as const) : body(end),
    ),
  }));
  const drag = pose.points.length / 3 > drawn.reduce((n, { points }) => n + points.length - 1, 0);
  return (
    <g>
      {obstacles.map((obstacle) => (
        <Obstacle
          key={obstacle.name}
          name={obstacle.name}
          onAxle={obstacle.on_axle}
          ends={obstacle.ends}
          radius={obstacle.radius_mm * k}
          transform={obstacle.on_axle ? axleTurn : undefined}
        />
      ))}
      {drawn
        .filter(({ link }) => !setup.links[link]?.is_bar)
        .map(({ link, points }) => (
          <Arm
            key={link}
            points={points.map(body)}
            width={(setup.links[link]?.radius_mm ?? 20) * 2 * k}
            assumed={setup.links[link]?.assumed}
          />
        ))}
      {drag && <DragLink setup={setup} pose={pose} body={body} />}
      {bar?.[0] && (
        <EyeBrackets
          frame={bar[0]}
          axle={bar[bar.length - 1] ?? bar[0]}
          eye={8}
          rail={y(railBottom - pose.z)}
          tube={y(elevation.axle_height_mm + 46)}
          line={1.75}
        />
      )}
      {ghost && (
        <polyline
          points={ghost.points.map((p) => body(p).join(",")).join(" ")}
          fill="none"
          stroke="var(--muted)"
          strokeWidth={3}
          strokeDasharray="9 6"
        />
      )}
      {drawn
        .filter(({ link }) => setup.links[link]?.is_bar)
        .map(({ link, points }) => (
          <BarLine
            key={link}
            points={points.map(body)}
            width={(setup.links[link]?.radius_mm ?? 16) * 2 * k}
            eye={Math.max(24 * k, 7)}
          />
        ))}
      {touching(setup, pose).map((at) => (
        <circle
          key={at.join(" ")}
          cx={body(at)[0]}
          cy={body(at)[1]}
          r={15}
          fill="none"
          stroke="var(--axle)"
          strokeWidth={3.5}
          strokeDasharray="7 4"
          data-touch
        />
      ))}
      {/* Names last, over all parts. */}
      {named &&
        labels(namesOf(obstacles), 2 * x(0), 16, y(0) - 6).map((label) => (
          <Leader key={label.text} label={label} below={label.at.y > y(0) / 2} />
        ))}
    </g>
  );
}

type Place = readonly [number, number];

const path = (points: readonly Place[]) => points.map((p) => p.join(",")).join(" ");

type ObstacleProps = {
  name: string;
  onAxle: boolean;
  ends: readonly Place[];
  radius: number;
  transform?: string;
};

/** Where parts meet in this pose, where it is one that was worked out for a gap. */
function touching(setup: SetupCycle, pose: DrawnPose): number[][] {
  const here = (left: number, right: number) =>
    Math.abs(left - pose.left) < 0.5 && Math.abs(right - pose.right) < 0.5;
  return setup.limits
    .flatMap((limit) => [
      limit.level !== "free" && here(limit.worst_left_mm, limit.worst_right_mm)
        ? limit.worst_points_mm
        : undefined,
      ...limit.crossings.map(({ violated_at_mm: at, violated_points_mm: points }) =>
        at && here(at[0] ?? 0, at[1] ?? 0) ? points : undefined,
      ),
    ])
    .map((points) => points?.[0])
    .filter((point) => point !== undefined);
}

type Placed = { name: string; on_axle: boolean; ends: readonly Place[] };

/** Each at its middle. */
function namesOf(obstacles: readonly Placed[]): Named[] {
  return obstacles.flatMap(({ name, on_axle, ends: [a, b] }) =>
    a && b
      ? [{ text: name, x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, owner: on_axle ? "axle" : "frame" }]
      : [],
  );
}

/** Something in the way: hatched, ink blue on the body, red oxide on the axle. */
export function Obstacle({ name, onAxle, ends, radius, transform }: ObstacleProps) {
  const [a, b] = ends;
  if (!a || !b) return null;
  const colour = onAxle ? "var(--axle)" : "var(--frame)";
  // A rod seen from its end has no length: a hair of it keeps the round caps.
  const shape = { x1: a[0], y1: a[1], x2: b[0] + 0.01, y2: b[1], strokeLinecap: "round" as const };
  const r = Math.max(radius, 3);
  return (
    <g transform={transform} data-obstacle={name}>
      <line {...shape} stroke={colour} strokeWidth={2 * r} />
      <line {...shape} stroke={onAxle ? "var(--axle-soft)" : "var(--frame-soft)"} strokeWidth={2 * r - 3} />
    </g>
  );
}

/** An arm: square at the body, round at the axle, dashed where something of it is assumed. */
type ArmProps = { points: readonly Place[]; width: number; assumed?: boolean };

export function Arm({ points, width, assumed }: ArmProps) {
  const [from] = points;
  const to = points[points.length - 1];
  if (!from || !to) return null;
  const w = Math.max(width, 5);
  return (
    <g>
      <polyline
        points={path(points)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={w}
        strokeLinejoin="round"
      />
      <polyline
        points={path(points)}
        fill="none"
        stroke="var(--line)"
        strokeDasharray={assumed ? "6 5" : undefined}
        strokeWidth={w - 2.5}
        strokeLinejoin="round"
      />
      <rect
        x={from[0] - 5}
        y={from[1] - 5}
        width={10}
        height={10}
        fill="var(--frame)"
        stroke="var(--slate)"
      />
      <circle cx={to[0]} cy={to[1]} r={5.5} fill="var(--axle)" stroke="var(--slate)" />
    </g>
  );
}

export function BarLine({ points, width, eye }: { points: readonly Place[]; width: number; eye: number }) {
  const [from] = points;
  const to = points[points.length - 1];
  if (!from || !to) return null;
  const w = Math.max(width, 9);
  return (
    <g data-bar>
      <polyline
        points={path(points)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={w}
        strokeLinejoin="round"
      />
      <polyline
        points={path(points)}
        fill="none"
        stroke="var(--marker)"
        strokeWidth={w - 3.5}
        strokeLinejoin="round"
      />
      <rect
        x={from[0] - eye}
        y={from[1] - eye}
        width={2 * eye}
        height={2 * eye}
        fill="var(--frame)"
        stroke="var(--slate)"
        strokeWidth={1.75}
      />
      <circle cx={to[0]} cy={to[1]} r={eye} fill="var(--axle)" stroke="var(--slate)" strokeWidth={1.75} />
    </g>
  );
}

type DragLinkProps = { setup: SetupCycle; pose: DrawnPose; body: (p: readonly number[]) => Place };

function DragLink({ setup, pose, body }: DragLinkProps) {
  const from = setup.steering?.pitman_mm;
  const end = pose.points.slice(-3);
  if (!from) return null;
  return <Arm points={[body(from), body(end)]} width={5} />;
}
