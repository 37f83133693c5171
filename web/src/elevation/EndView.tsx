import type { ReactNode } from "react";
import type { Elevation } from "../api/client";
import { EyeBrackets } from "./EyeBrackets";
import type { Picture } from "./picture";

export type Posed = {
  /** Travel from the driven height; bump takes the body down. */
  travel: number;
  /** Where the axle centre is, + left. */
  axle: number;
  /** The other bar's axle place, for a ghost line. */
  ghost?: number;
  /** Whether the eyes are where the plan puts them. */
  planned?: boolean;
  /** Turn of the axle in the picture, clockwise, in degrees. */
  turned?: number;
};

type EndViewProps = {
  elevation: Elevation;
  picture: Picture;
  posed: Posed;
  mini?: boolean;
  /** Drawn in place of the bar. */
  children?: ReactNode;
};

/**
 * The end of the vehicle to scale. Frame-side parts are ink blue with a square eye,
 * axle-side parts red oxide with a round one, what is set is marker yellow.
 */
export function EndView({ elevation: e, picture, posed, mini = false, children }: EndViewProps) {
  const { k, x, y } = picture;
  const eyes = (posed.planned && e.planned_eyes) || e.eyes;
  const line = mini ? 1 : 1.75;
  const mid = x(0);
  const at = (place: number) => x(posed.axle + place);
  const body = (z: number) => y(z - posed.travel);
  const axleZ = e.axle_height_mm;
  const tube = 46;
  const inner = e.track_mm / 2 - e.tyre_width_mm / 2;
  const turned = posed.turned ? `rotate(${posed.turned} ${at(0)} ${y(axleZ)})` : undefined;
  const diff = at((e.differential_side === "left" ? 1 : -1) * e.track_mm * 0.14);
  return (
    <g>
      {!posed.turned && (
        <line x1={0} x2={2 * mid} y1={y(0)} y2={y(0)} stroke="var(--ink)" strokeWidth={line} />
      )}
      <g transform={turned}>
        {SIDES.map((side) => (
          <Tyre key={side} elevation={e} centre={at((side * e.track_mm) / 2)} picture={picture} mini={mini} />
        ))}
      </g>
      {/* Rails and crossmember go with the body. */}
      <rect
        x={Math.min(x(e.frame_width_mm / 2), x(-e.frame_width_mm / 2))}
        y={body(e.frame_bottom_mm + 0.8 * e.rail_height_mm)}
        width={e.frame_width_mm * k}
        height={0.45 * e.rail_height_mm * k}
        fill="var(--slate)"
        stroke="var(--frame)"
        strokeWidth={line}
      />
      {SIDES.map((side) => (
        <Rail key={side} side={side} elevation={e} picture={picture} travel={posed.travel} line={line} />
      ))}
      <g transform={turned}>
        <rect
          x={Math.min(at(inner), at(-inner))}
          y={y(axleZ + tube)}
          width={2 * inner * k}
          height={2 * tube * k}
          fill="var(--axle-soft)"
          stroke="var(--axle)"
          strokeWidth={line}
        />
        <circle
          cx={diff}
          cy={y(axleZ)}
          r={145 * k}
          fill="var(--axle-soft)"
          stroke="var(--axle)"
          strokeWidth={line}
        />
      </g>
      {/* The two centrelines: the body's, dashed and blue; the axle's, solid and red. */}
      <line
        x1={mid}
        x2={mid}
        y1={mini ? 0 : 8}
        y2={y(0)}
        stroke="var(--frame)"
        strokeWidth={line * 0.85}
        strokeDasharray="12 4 2 4"
      />
      <line
        transform={turned}
        x1={at(0)}
        x2={at(0)}
        y1={y(axleZ - 190)}
        y2={y(0) + (mini ? 3 : 9)}
        stroke="var(--axle)"
        strokeWidth={line * 1.3}
      />
      {children ?? (eyes && <Bar elevation={e} eyes={eyes} picture={picture} posed={posed} mini={mini} />)}
    </g>
  );
}

const SIDES = [1, -1] as const;

type TyreProps = { elevation: Elevation; centre: number; picture: Picture; mini: boolean };

function Tyre({ elevation: e, centre, picture: { k, y }, mini }: TyreProps) {
  const line = mini ? 1 : 1.75;
  const w = e.tyre_width_mm * k;
  const h = e.tyre_diameter_mm * k;
  const top = y(e.tyre_diameter_mm);
  const treads = mini ? 7 : 15;
  return (
    <g>
      <rect
        x={centre - w / 2}
        y={top}
        width={w}
        height={h}
        rx={w * 0.17}
        fill="var(--tyre)"
        stroke="var(--ink)"
        strokeWidth={line}
      />
      {Array.from({ length: treads }, (_, index) => {
        const level = top + (h * (index + 1)) / (treads + 1);
        return (
          <line
            key={level}
            x1={centre - w / 2 + 2}
            x2={centre + w / 2 - 2}
            y1={level}
            y2={level}
            stroke="var(--muted)"
            strokeWidth={line * 0.7}
          />
        );
      })}
    </g>
  );
}

type RailProps = { side: 1 | -1; elevation: Elevation; picture: Picture; travel: number; line: number };

function Rail({ side, elevation: e, picture: { k, x, y }, travel, line }: RailProps) {
  const outer = (side * e.frame_width_mm) / 2;
  const left = Math.min(x(outer), x(outer - side * e.rail_width_mm));
  return (
    <rect
      x={left}
      y={y(e.frame_bottom_mm - travel + e.rail_height_mm)}
      width={e.rail_width_mm * k}
      height={e.rail_height_mm * k}
      fill="var(--frame-soft)"
      stroke="var(--frame)"
      strokeWidth={line}
    />
  );
}

type BarProps = Omit<EndViewProps, "children"> & { eyes: NonNullable<Elevation["eyes"]> };

function Bar({ elevation: e, eyes, picture, posed, mini }: BarProps) {
  const { k, x, y } = picture;
  const line = mini ? 1 : 1.75;
  const frame = { x: x(eyes.frame.y_mm), y: y(eyes.frame.z_mm - posed.travel) };
  const axle = { x: x(eyes.axle.y_mm + posed.axle), y: y(eyes.axle.z_mm) };
  const eye = Math.max(24 * k, mini ? 2.5 : 7);
  return (
    <g>
      <EyeBrackets
        frame={[frame.x, frame.y]}
        axle={[axle.x, axle.y]}
        eye={eye}
        rail={y(e.frame_bottom_mm - posed.travel)}
        tube={y(e.axle_height_mm + 46)}
        line={line}
      />
      {posed.ghost !== undefined && Math.abs(posed.ghost - posed.axle) * k > 0.4 && (
        <line
          x1={frame.x}
          y1={frame.y}
          x2={x(eyes.axle.y_mm + posed.ghost)}
          y2={axle.y}
          stroke="var(--muted)"
          strokeWidth={line * 1.6}
          strokeDasharray="9 6"
        />
      )}
      <line
        x1={frame.x}
        y1={frame.y}
        x2={axle.x}
        y2={axle.y}
        stroke="var(--ink)"
        strokeWidth={Math.max(38 * k, mini ? 4 : 9)}
      />
      <line
        x1={frame.x}
        y1={frame.y}
        x2={axle.x}
        y2={axle.y}
        stroke="var(--marker)"
        strokeWidth={Math.max(38 * k, mini ? 4 : 9) - line * 2}
      />
      <rect
        x={frame.x - eye}
        y={frame.y - eye}
        width={2 * eye}
        height={2 * eye}
        fill="var(--frame)"
        stroke="var(--slate)"
        strokeWidth={line}
      />
      <circle cx={axle.x} cy={axle.y} r={eye} fill="var(--axle)" stroke="var(--slate)" strokeWidth={line} />
    </g>
  );
}
