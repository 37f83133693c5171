import type { Elevation, Schemas, SwayPose } from "../../api/client";
import type { Face, Picture } from "../../elevation/picture";
import { shapes } from "../../elevation/walk/draw";
import { Names } from "../../elevation/walk/Leader";
import { NearLine, nameOfNear } from "../../elevation/walk/NearLine";
import type { Near } from "../../elevation/walk/near";
import { Shapes } from "../../elevation/walk/Shapes";
import { roomParts } from "../../elevation/walk/scene";
import { axlePlacer, camera, type Point } from "../../elevation/walk/space";
import { lookAt } from "../../elevation/walk/useLook";
import { useSettings } from "../../ui/settings";

type RoomDrawnProps = {
  room: Schemas["RoomResult"];
  pose: SwayPose;
  elevation: Elevation;
  picture: Picture;
  face: Face;
  /** The gap that was picked, in this pose. */
  near: Near | undefined;
  width: number;
  height: number;
};

/** Where a look of the walk-round and the plain end view are one: the same places at the same scale. */
function endCamera(picture: Picture, face: Face, heave: number) {
  return camera(lookAt(face), [0, 0, heave], picture.k, [picture.x(0), picture.y(0)]);
}

/** What arms and links are kept clear of, in the end view: shocks, tyres at their lock, panels, the gap picked. */
export function RoomDrawn(props: RoomDrawnProps) {
  const { room, pose, elevation, picture, face, near, width, height } = props;
  const units = useSettings((s) => s.units);
  const { y_mm, z_mm, roll_deg } = pose;
  const place = axlePlacer(
    { x_mm: 0, y_mm, z: z_mm, roll_deg, pitch_deg: 0, yaw_deg: 0 },
    elevation.axle_height_mm,
  );
  const view = endCamera(picture, face, z_mm);
  const centre: Point = [0, 0, elevation.axle_height_mm];
  // The floor is where the drawing stands: heights of the body go with the stick.
  const body = (above: number) => picture.y(above - (z_mm - elevation.driven_travel_mm));
  return (
    <g data-room-drawn>
      <Shapes shapes={shapes(roomParts(room.things, true, place), view, centre)} k={picture.k} />
      {room.cuts.map((cut) => (
        <PanelDrawn key={cut.panel} cut={cut} x={picture.x} y={body} />
      ))}
      {near && <NearLine near={near} view={view} />}
      {near && <Names named={nameOfNear(near, view, units)} width={width} height={height} />}
    </g>
  );
}

type PanelDrawnProps = {
  cut: Schemas["PanelCut"];
  x: (y: number) => number;
  y: (above: number) => number;
};

/** A panel: the hole it wants where one looks through it, else the line it is. */
function PanelDrawn({ cut, x, y }: PanelDrawnProps) {
  const [first, second] = cut.cut_mm ?? [];
  if (!first || !second) return null;
  const [sides, heights] = {
    forward: [first, second],
    outward: [[cut.at_mm, cut.at_mm], second],
    up: [second, [cut.at_mm, cut.at_mm]],
  }[cut.faces];
  return [1, -1].map((side) => {
    const [a, b] = (sides ?? []).map((out) => x(side * out));
    const [low, high] = (heights ?? []).map(y);
    if (a === undefined || b === undefined || low === undefined || high === undefined) return null;
    return (
      <path
        key={side}
        // A panel seen along is a line: what is drawn has no width then.
        d={`M${a} ${low}H${b}V${high}H${a}Z`}
        fill="none"
        stroke="var(--frame)"
        strokeWidth={2}
        strokeDasharray="3 4"
        data-panel={cut.panel}
      />
    );
  });
}
