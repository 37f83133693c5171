import { useRef } from "react";
import type { Elevation, Schemas, Side, StowResult, SwayLinks, SwayPose } from "../../api/client";
import { SideName } from "../../elevation/ElevationView";
import { EndView } from "../../elevation/EndView";
import { fit } from "../../elevation/picture";
import { useSize } from "../../elevation/useSize";
import type { Near } from "../../elevation/walk/near";
import { useJob } from "../../job/useJob";
import { useSettings } from "../../ui/settings";
import { RoomDrawn } from "./RoomDrawn";

type SwayEndProps = {
  links: SwayLinks;
  pose: SwayPose;
  elevation: Elevation;
  stowed?: StowResult | undefined;
  /** What they are kept clear of, where that is looked at. */
  room?: { room: Schemas["RoomResult"]; near: Near | undefined } | undefined;
};

const WIDTHS = [13, 13, 13, 10, 10];
/** Room of a side's letters in a corner. */
const LETTERS = { width: 84, height: 42 };

/** The axle from its end in the pose of the stick, with the sway bar, its arms and links. */
export function SwayEnd({ links, pose, elevation, stowed, room }: SwayEndProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const { job } = useJob();
  const face = useSettings((s) => s.face);
  const last = links.crossed[0];
  const under = last ? Math.abs(last.left_wheel_mm - last.right_wheel_mm) / 2 : 0;
  const lowBody = { ...elevation, full_droop_mm: elevation.driven_travel_mm - 60 };
  const shocks = room?.room.things.filter(({ kind }) => kind === "shock") ?? [];
  const over = Math.max(0, ...shocks.flatMap((shock) => shock.points_mm.map(([, , up]) => up ?? 0)));
  const fitted = (tall: number) =>
    fit(lowBody, width, tall, face, 8, under, over - elevation.driven_travel_mm);
  const whole = fitted(height);
  // Where a tyre would stand under the letters of its side, the drawing keeps below them.
  const outside = (elevation.track_mm + elevation.tyre_width_mm) / 2;
  const below = Math.min(whole.x(outside), whole.x(-outside)) < LETTERS.width ? LETTERS.height : 0;
  const picture = below > 0 ? fitted(height - below) : whole;
  const turned = (face === "front" ? -1 : 1) * pose.roll_deg;
  const [first, second]: [Side, Side] = face === "front" ? ["right", "left"] : ["left", "right"];
  // Stowed on the axle they go with it, and the drawing stays the connected one.
  const rods = stowed && !links.on_axle ? stowed.end_mm : pose.end_mm;
  const place = (at: readonly number[] | undefined) =>
    [picture.x(at?.[0] ?? 0), picture.y((at?.[1] ?? 0) - pose.z_mm)] as const;
  return (
    <section
      ref={box}
      aria-label={`The sway bar from the ${face}, to scale`}
      className="relative col-span-2 min-h-0 overflow-hidden"
      data-sway-end
    >
      {width > 0 && height > 0 && (
        <svg width={width} height={height} className="block">
          <title>{`The sway bar from the ${face}, to scale`}</title>
          <g transform={`translate(0 ${below})`}>
            <EndView
              elevation={elevation}
              picture={picture}
              posed={{ travel: pose.z_mm - elevation.driven_travel_mm, axle: pose.y_mm, turned }}
            >
              {room && (
                <RoomDrawn
                  {...room}
                  pose={pose}
                  elevation={elevation}
                  picture={picture}
                  face={face}
                  width={width}
                  height={height - below}
                />
              )}
              {(rods ?? []).map((rod, index) => {
                const [from, to] = [place(rod[0]), place(rod[1])];
                const link = index > 2;
                const colour = link ? "var(--marker)" : links.on_axle ? "var(--axle)" : "var(--frame)";
                const wide = WIDTHS[index] ?? 10;
                return (
                  <g key={index} data-rod-drawn={index}>
                    {[wide, wide - 4].map((stroke) => (
                      <line
                        key={stroke}
                        x1={from[0]}
                        y1={from[1]}
                        x2={to[0]}
                        y2={to[1]}
                        stroke={stroke === wide ? "var(--ink)" : colour}
                        strokeWidth={stroke}
                        strokeLinecap="round"
                      />
                    ))}
                  </g>
                );
              })}
            </EndView>
          </g>
        </svg>
      )}
      <div className="absolute left-1 top-0">
        <SideName side={first} steeringSide={job.rig?.steering_side} />
      </div>
      <div className="absolute top-0 right-1">
        <SideName side={second} steeringSide={job.rig?.steering_side} className="text-right" />
      </div>
    </section>
  );
}
