import { memo } from "react";
import type { Shape } from "./draw";
import type { Owner } from "./scene";
import type { Spot } from "./space";

const COLOURS = {
  frame: { fill: "var(--frame-soft)", edge: "var(--frame)" },
  axle: { fill: "var(--axle-soft)", edge: "var(--axle)" },
  set: { fill: "var(--marker)", edge: "var(--ink)" },
  arm: { fill: "var(--arm)", edge: "var(--ink)" },
  spring: { fill: "var(--line)", edge: "var(--muted)" },
  sway: { fill: "var(--frame)", edge: "var(--ink)" },
} satisfies Record<Owner, { fill: string; edge: string }>;

const path = (spots: readonly Spot[]) => spots.map((s) => `${s.x.toFixed(1)},${s.y.toFixed(1)}`).join(" ");

type ShapesProps = {
  shapes: readonly Shape[];
  k: number;
  /** As a small picture: outlines alone, no light. */
  small?: boolean;
};

/** The shapes of a look, farthest first, in the marks of the work screens. */
export const Shapes = memo(function Shapes({ shapes, k, small = false }: ShapesProps) {
  return (
    <g strokeLinejoin="round" strokeLinecap="round">
      {shapes.map((shape) => (
        <One key={shape.key} shape={shape} k={k} small={small} />
      ))}
    </g>
  );
});

type OneProps = { shape: Shape; k: number; small: boolean };

function One({ shape, k, small }: OneProps) {
  const { part, spots } = shape;
  const line = small ? 0.8 : 1.75;
  switch (part.kind) {
    case "rod":
      return (
        <Rod
          shape={shape}
          owner={part.owner}
          width={Math.max(2 * part.radius * k, small ? 1.6 : 5)}
          line={line}
          assumed={part.assumed}
          light={!small}
        />
      );
    case "coil":
      return small ? null : (
        <g fill="none">
          <polyline points={path(spots)} stroke="var(--muted)" strokeWidth={13 * k + 2} />
          <polyline points={path(spots)} stroke="var(--line)" strokeWidth={13 * k} />
        </g>
      );
    case "swept":
      return small ? null : <Swept spots={spots} width={2 * part.radius * k} />;
    case "ball":
      return <Ball at={spots[0]} radius={part.radius * k} owner={part.owner} line={line} light={!small} />;
    case "eye":
      return <Eye at={spots[0]} radius={part.radius * k} owner={part.owner} small={small} />;
    case "box":
      return <Box shape={shape} owner={part.owner} line={line} />;
    case "tyre":
      return <Tyre shape={shape} line={line} small={small} />;
  }
}

type RodProps = {
  shape: Shape;
  owner: Owner;
  width: number;
  line: number;
  assumed?: boolean | undefined;
  light: boolean;
};

/** A round bar: an outline and one light along it. */
function Rod({ shape, owner, width, line, assumed, light }: RodProps) {
  const { fill, edge } = COLOURS[owner];
  const points = path(shape.spots);
  return (
    <g fill="none">
      <polyline
        points={points}
        stroke={edge}
        strokeWidth={width + 2 * line}
        strokeDasharray={assumed ? "7 6" : undefined}
        strokeLinecap={assumed ? "butt" : "round"}
      />
      <polyline points={points} stroke={fill} strokeWidth={width} />
      {light && width > 6 && (
        <polyline
          points={points}
          transform={`translate(0 ${(-width * 0.24).toFixed(1)})`}
          stroke="#fff"
          strokeOpacity={0.38}
          strokeWidth={width * 0.2}
        />
      )}
    </g>
  );
}

/** What a tyre covers where it is steered: one shade, however it lies. */
function Swept({ spots, width }: { spots: readonly Spot[]; width: number }) {
  return (
    <g opacity={0.16} data-swept>
      <polygon points={path(spots)} fill="var(--ink)" stroke="var(--ink)" strokeWidth={width} />
    </g>
  );
}

type BallProps = { at: Spot | undefined; radius: number; owner: Owner; line: number; light: boolean };

function Ball({ at, radius, owner, line, light }: BallProps) {
  if (!at) return null;
  const { fill, edge } = COLOURS[owner];
  return (
    <g>
      <circle cx={at.x} cy={at.y} r={radius} fill={fill} stroke={edge} strokeWidth={line} />
      {light && (
        <ellipse
          cx={at.x - radius * 0.25}
          cy={at.y - radius * 0.45}
          rx={radius * 0.4}
          ry={radius * 0.18}
          fill="#fff"
          fillOpacity={0.35}
        />
      )}
    </g>
  );
}

type EyeProps = { at: Spot | undefined; radius: number; owner: "frame" | "axle"; small: boolean };

function Eye({ at, radius, owner, small }: EyeProps) {
  if (!at) return null;
  const r = Math.max(radius, small ? 1.4 : 5.5);
  const look = { fill: `var(--${owner})`, stroke: "var(--slate)", strokeWidth: small ? 0.5 : 1.5 };
  return owner === "frame" ? (
    <rect x={at.x - r} y={at.y - r} width={2 * r} height={2 * r} {...look} />
  ) : (
    <circle cx={at.x} cy={at.y} r={r} {...look} />
  );
}

function Box({ shape, owner, line }: { shape: Shape; owner: Owner; line: number }) {
  const { fill, edge } = COLOURS[owner];
  return (
    <g opacity={shape.ghost ? 0.5 : 1} fill={fill} stroke={edge} strokeWidth={line}>
      <polygon points={path(shape.spots)} />
      {shape.faces.map((face, index) => (
        <polygon key={index} points={path(face)} />
      ))}
    </g>
  );
}

function Tyre({ shape, line, small }: { shape: Shape; line: number; small: boolean }) {
  const [face, rim] = shape.faces;
  if (shape.ghost) {
    return (
      <g fill="var(--tyre)" fillOpacity={0.14} stroke="var(--ink)" strokeWidth={line}>
        <polygon points={path(shape.spots)} strokeDasharray="7 5" />
        {rim && <polygon points={path(rim)} fillOpacity={0} strokeDasharray="4 4" />}
      </g>
    );
  }
  return (
    <g stroke="var(--ink)" strokeWidth={line}>
      <polygon points={path(shape.spots)} fill="var(--tyre)" />
      {face && !small && <polygon points={path(face)} fill="#fff" fillOpacity={0.08} strokeWidth={0.8} />}
      {rim && <polygon points={path(rim)} fill="var(--slate)" fillOpacity={0.85} />}
    </g>
  );
}
