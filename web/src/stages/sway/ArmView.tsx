import { arc } from "d3-shape";
import { useRef } from "react";
import type { Side, StowResult, SwayLinks, SwayPose } from "../../api/client";
import { useSize } from "../../elevation/useSize";
import { degrees } from "../../measure/format";

type ArmViewProps = {
  links: SwayLinks;
  pose: SwayPose;
  side: Side;
  /** Drawn stowed on its stud instead, the axle stud where the pose has it. */
  stowed?: StowResult | undefined;
};

const PAD = 30;
/** γ outside this is drawn as a fault; the core says so in words. */

function inWords(angle: number | undefined): string {
  if (angle === undefined) return "out of reach";
  return `${degrees(angle)}${Math.abs(angle) < 0.05 ? "" : angle > 0 ? " up" : " down"}`;
}

/** One arm and its link from the vehicle's left: forward is to the left of the picture. */
export function ArmView({ links, pose, side, stowed }: ArmViewProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const arm = pose[side];
  // Everything the far end does, so that the drawing keeps its scale.
  const [heave, roll] = [links.heave[side], links.roll[side]];
  const xs = [0, ...[heave, roll].flatMap((p) => [...p.far_ahead_mm, ...p.eye_ahead_mm])];
  const zs = [0, ...[heave, roll].flatMap((p) => [...p.far_above_mm, ...p.eye_above_mm])];
  if (stowed) {
    xs.push(stowed.eye_ahead_mm, stowed.stud_ahead_mm);
    zs.push(stowed.eye_above_mm, stowed.stud_above_mm);
  }
  const [left, right] = [Math.max(...xs), Math.min(...xs)];
  const [top, bottom] = [Math.max(...zs), Math.min(...zs)];
  const k = Math.min((width - 2 * PAD) / (left - right), (height - 2 * PAD) / (top - bottom));
  const x = (mm: number) => width / 2 + ((left + right) / 2 - mm) * k;
  const y = (mm: number) => height / 2 + ((top + bottom) / 2 - mm) * k;
  const axis = [x(0), y(0)] as const;
  const eye = stowed
    ? ([x(stowed.eye_ahead_mm), y(stowed.eye_above_mm)] as const)
    : ([x(arm.eye_ahead_mm), y(arm.eye_above_mm)] as const);
  const stud = [x(arm.far_ahead_mm), y(arm.far_above_mm)] as const;
  const far = stowed ? ([x(stowed.stud_ahead_mm), y(stowed.stud_above_mm)] as const) : stud;
  const gamma = stowed ? undefined : arm.eye_angle_deg;
  const open = gamma === undefined && !stowed;
  const [low = 0, high = 180] = links.fails_outside_deg;
  const bad = gamma === undefined || gamma < low || gamma > high;
  const trail = heave.far_ahead_mm
    .map((ahead, index) => `${x(ahead)},${y(heave.far_above_mm[index] ?? 0)}`)
    .join(" ");
  return (
    <div
      ref={box}
      className="relative min-h-0 min-w-0 overflow-hidden border-line border-t border-l first-of-type:border-l-0"
      data-arm={side}
    >
      <ArmName
        side={side}
        stowed={stowed !== undefined}
        angle={stowed ? stowed.arm_angle_deg : arm.arm_angle_deg}
      />
      {width > 0 && height > 0 && (
        <svg
          width={width}
          height={height}
          className="block"
          role="img"
          aria-label={`${side} arm and link from the left side, forward to the left; ${stowed ? "stowed" : gamma === undefined ? "out of reach" : `${degrees(gamma)} between them`}`}
        >
          <polyline points={trail} fill="none" stroke="var(--muted)" strokeDasharray="3 4" />
          <Rod
            from={axis}
            to={eye}
            width={13}
            fill={links.on_axle ? "var(--axle-soft)" : "var(--frame-soft)"}
          />
          <Rod from={eye} to={far} width={10} fill="var(--marker)" open={open} />
          {stowed ? (
            <circle
              cx={stud[0]}
              cy={stud[1]}
              r={7}
              fill="var(--paper)"
              stroke={links.on_axle ? "var(--frame)" : "var(--axle)"}
              strokeWidth={3}
              data-stud
            />
          ) : (
            <Gamma axis={axis} eye={eye} far={far} bad={bad} gamma={gamma} />
          )}
          <rect
            x={axis[0] - 9}
            y={axis[1] - 9}
            width={18}
            height={18}
            fill={links.on_axle ? "var(--axle)" : "var(--frame)"}
            stroke="var(--slate)"
          />
          <circle cx={eye[0]} cy={eye[1]} r={6} fill="var(--marker)" stroke="var(--ink)" strokeWidth={1.5} />
          <circle
            cx={far[0]}
            cy={far[1]}
            r={8}
            fill={links.on_axle === (stowed === undefined) ? "var(--frame)" : "var(--axle)"}
            stroke="var(--slate)"
          />
        </svg>
      )}
    </div>
  );
}

type ArmNameProps = { side: Side; stowed: boolean; angle: number | undefined };

function ArmName({ side, stowed, angle }: ArmNameProps) {
  return (
    <div className="absolute top-1 left-1 leading-tight">
      <b className="uppercase tracking-wide">{side}</b>
      <div className="text-[16px]">
        {stowed ? "stowed, arm " : "arm "}
        {inWords(angle)}
      </div>
    </div>
  );
}

type RodProps = {
  from: readonly [number, number];
  to: readonly [number, number];
  width: number;
  fill: string;
  /** It does not close here. */
  open?: boolean;
};

function Rod({ from, to, width, fill, open = false }: RodProps) {
  const line = {
    x1: from[0],
    y1: from[1],
    x2: to[0],
    y2: to[1],
    strokeDasharray: open ? "8 6" : undefined,
    strokeLinecap: open ? ("butt" as const) : ("round" as const),
  };
  return (
    <g>
      <line {...line} stroke="var(--ink)" strokeWidth={width} />
      <line {...line} stroke={fill} strokeWidth={width - 4} />
    </g>
  );
}

type GammaProps = {
  axis: readonly [number, number];
  eye: readonly [number, number];
  far: readonly [number, number];
  bad: boolean;
  gamma: number | undefined;
};

/** γ at the link's eye, drawn as it is in the picture. */
function Gamma({ axis, eye, far, bad, gamma }: GammaProps) {
  const towards = (p: readonly [number, number]) => Math.atan2(p[0] - eye[0], -(p[1] - eye[1]));
  const from = towards(axis);
  let turn = towards(far) - from;
  if (turn > Math.PI) turn -= 2 * Math.PI;
  if (turn < -Math.PI) turn += 2 * Math.PI;
  const path = arc()({ innerRadius: 24, outerRadius: 27, startAngle: from, endAngle: from + turn });
  const middle = from + turn / 2;
  return (
    <g transform={`translate(${eye[0]} ${eye[1]})`}>
      {path && <path d={path} fill={bad ? "var(--axle)" : "var(--ink)"} />}
      <text
        x={Math.sin(middle) * 46}
        y={-Math.cos(middle) * 46 + 5}
        textAnchor="middle"
        fontSize={17}
        fontWeight={700}
        fill={bad ? "var(--axle)" : "var(--ink)"}
        stroke="var(--paper)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {gamma === undefined ? "over" : `${Math.round(gamma)}°`}
      </text>
    </g>
  );
}
