import { useRef } from "react";
import type { Elevation, SetupCycle } from "../api/client";
import { Arm, BarLine, Obstacle } from "./CycleParts";
import { type DrawnPose, linkPoints } from "./cyclePose";
import { useSize } from "./useSize";

type SideViewProps = { setup: SetupCycle; pose: DrawnPose; elevation: Elevation };

const PAD = 10;

/** From the vehicle's left: forward is to the left of the picture. */
export function SideView({ setup, pose, elevation: e }: SideViewProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const reach = setup.links.flatMap((link) => [link.body_mm[0] ?? 0, link.axle_mm[0] ?? 0]);
  const radius = e.tyre_diameter_mm / 2;
  const [front, rear] = [Math.max(radius, ...reach) + 80, Math.min(-radius, ...reach) - 80];
  const rail = e.frame_bottom_mm + e.driven_travel_mm;
  const top = Math.max(2 * e.axle_height_mm, rail + e.rail_height_mm + 5 - e.full_droop_mm) + 30;
  const k = Math.min((width - 2 * PAD) / (front - rear), (height - 2 * PAD) / top);
  const x = (mm: number) => width / 2 + ((front + rear) / 2 - mm) * k;
  const y = (mm: number) => height - PAD - mm * k;
  const body = (p: readonly number[]) => [x(p[0] ?? 0), y((p[2] ?? 0) - pose.z)] as const;
  const centre = [x(pose.x_mm), y(e.axle_height_mm)] as const;
  return (
    <div ref={box} className="min-h-0 overflow-hidden" data-side>
      {width > 0 && height > 0 && (
        <svg
          width={width}
          height={height}
          className="block"
          role="img"
          aria-label="The axle from the left side, to scale; forward is to the left"
        >
          <line x1={0} x2={width} y1={y(0)} y2={y(0)} stroke="var(--ink)" strokeWidth={1.5} />
          <circle
            cx={centre[0]}
            cy={centre[1]}
            r={radius * k}
            fill="none"
            stroke="var(--tyre)"
            strokeWidth={2}
            strokeDasharray="3 5"
          />
          <rect
            x={x(front)}
            y={y(rail + e.rail_height_mm - pose.z)}
            width={(front - rear) * k}
            height={e.rail_height_mm * k}
            fill="var(--frame-soft)"
            stroke="var(--frame)"
            strokeWidth={1.5}
          />
          {setup.obstacles.map((obstacle) => (
            <Obstacle
              key={obstacle.name}
              name=""
              onAxle={obstacle.on_axle}
              ends={obstacle.ends_mm.map((end) =>
                obstacle.on_axle ? ([x((end[0] ?? 0) + pose.x_mm), y(end[2] ?? 0)] as const) : body(end),
              )}
              radius={obstacle.radius_mm * k}
            />
          ))}
          <Tube at={centre} radius={Math.max(46 * k, 8)} pitch={pose.pitch_deg} />
          {linkPoints(setup, pose).map(({ link, points }) => {
            const part = setup.links[link];
            const placed = points.map(body);
            return part?.is_bar ? (
              <BarLine key={link} points={placed} width={8} eye={6} />
            ) : (
              <Arm
                key={link}
                points={placed}
                width={(part?.radius_mm ?? 20) * 2 * k}
                assumed={part?.assumed}
              />
            );
          })}
          <text x={6} y={15} fontSize={14} fill="var(--muted)">
            ◂ front, from the left side
          </text>
        </svg>
      )}
    </div>
  );
}

type TubeProps = { at: readonly [number, number]; radius: number; pitch: number };

/** The tube from its end, with a mark that turns with it. */
function Tube({ at: [cx, cy], radius, pitch }: TubeProps) {
  return (
    <g transform={`rotate(${-pitch} ${cx} ${cy})`}>
      <circle cx={cx} cy={cy} r={radius} fill="var(--axle-soft)" stroke="var(--axle)" strokeWidth={1.75} />
      <line x1={cx} x2={cx} y1={cy - radius - 26} y2={cy} stroke="var(--axle)" strokeWidth={2.5} />
    </g>
  );
}
