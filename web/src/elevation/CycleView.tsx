import { useRef } from "react";
import type { CycleResult, Elevation, HolePlace, SetupCycle, Side } from "../api/client";
import { degrees, fine, sideways } from "../measure/format";
import { Choice } from "../ui/Choice";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { CycleParts } from "./CycleParts";
import { type DrawnPose, poseAt, type Wheels } from "./cyclePose";
import { SideName } from "./ElevationView";
import { EndView } from "./EndView";
import { HoleHandles } from "./HoleHandles";
import { fit, type Picture } from "./picture";
import { SideView } from "./SideView";
import { useStance } from "./stance";
import { useSize } from "./useSize";

export type Putting = { onTry: (hole: string) => void; onPut: (hole: string) => void };

type CycleViewProps = {
  cycle: CycleResult;
  setup: SetupCycle;
  elevation: Elevation;
  wheels: Wheels;
  steeringSide: Side | undefined;
  axleEye: Putting;
  frameEye: Putting;
};

/** Side view over end view, both of the pose in view. */
export function CycleView(props: CycleViewProps) {
  const { cycle, setup, elevation, wheels, steeringSide } = props;
  const { units, face } = useSettings();
  const { shown, setShown } = useStance();
  const pose = poseAt(setup, wheels);
  const [first, second]: [Side, Side] = face === "front" ? ["right", "left"] : ["left", "right"];
  const options = [
    { value: "found", label: "as found" },
    { value: "planned", label: cycle.plan_name || "plan" },
  ] as const;
  return (
    <div className="grid min-h-0 grid-rows-[auto_minmax(0,5fr)_minmax(0,6fr)]" data-elevation>
      <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] gap-x-2 gap-y-1">
        <SideName side={first} steeringSide={steeringSide} />
        <div className="text-center leading-tight" data-pose-caption>
          {pose ? (
            <>
              <b>
                <Figure>{sideways(pose.y_mm, units)}</Figure>
              </b>
              {pose.bar_angle_deg !== undefined && setup.bar_length_mm !== undefined && (
                <>
                  , bar{" "}
                  <b>
                    <Figure>{fine(setup.bar_length_mm, units)}</Figure>
                  </b>{" "}
                  at <b>{degrees(pose.bar_angle_deg)}</b>
                </>
              )}
            </>
          ) : (
            <b>Out of reach</b>
          )}
        </div>
        <SideName side={second} steeringSide={steeringSide} className="text-right" />
        {cycle.plan && (
          <div className="col-span-3 justify-self-center [&>div>div:first-child]:sr-only [&_div]:flex-nowrap">
            <Choice label="Drawn" value={shown} options={options} onPick={setShown} />
          </div>
        )}
      </div>
      {pose && <SideView setup={setup} pose={pose} elevation={elevation} />}
      {pose && <End {...props} pose={pose} />}
    </div>
  );
}

/** Fits the axle with room for its lowest wheel; above the rails stands the side view. */
function fitEnd(
  elevation: Elevation,
  setup: SetupCycle,
  width: number,
  height: number,
  face: "front" | "rear",
): Picture {
  const [high = 0, low = 0] = setup.ways.find((way) => way.way === "left_up")?.end_mm ?? [];
  const lowBody = { ...elevation, full_droop_mm: elevation.driven_travel_mm - 60 };
  return fit(lowBody, width, height, face, 8, (high - low) / 2);
}

function End({ cycle, setup, elevation, pose, axleEye, frameEye }: CycleViewProps & { pose: DrawnPose }) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<SVGSVGElement>(null);
  const { width, height } = useSize(box);
  const face = useSettings((s) => s.face);
  const picture = fitEnd(elevation, setup, width, height, face);
  const turned = (face === "front" ? -1 : 1) * pose.roll_deg;
  const other = setup === cycle.plan ? cycle.found : cycle.plan;
  const otherPose = other && poseAt(other, pose);
  const centre = [picture.x(pose.y_mm), picture.y(elevation.axle_height_mm)] as const;
  const onAxle = (hole: HolePlace) =>
    turnedAbout(centre, turned, [picture.x((hole.at_mm[1] ?? 0) + pose.y_mm), picture.y(hole.at_mm[2] ?? 0)]);
  const onBody = (hole: HolePlace) =>
    [picture.x(hole.at_mm[1] ?? 0), picture.y((hole.at_mm[2] ?? 0) - pose.z)] as const;
  const placed = (holes: readonly HolePlace[], place: (hole: HolePlace) => readonly [number, number]) =>
    holes.map((hole) => ({ ...hole, place: place(hole) }));
  return (
    <section
      ref={box}
      aria-label={`The axle from the ${face}, to scale`}
      className="min-h-0 overflow-hidden"
      data-end
    >
      {width > 0 && height > 0 && (
        <svg ref={canvas} width={width} height={height} className="block">
          <title>{`The axle from the ${face}, to scale`}</title>
          <EndView
            elevation={elevation}
            picture={picture}
            posed={{ travel: pose.z - elevation.driven_travel_mm, axle: pose.y_mm, turned }}
          >
            <CycleParts
              setup={setup}
              other={other}
              otherPose={otherPose}
              pose={pose}
              elevation={elevation}
              picture={picture}
              turned={turned}
            />
          </EndView>
          {cycle.axle_holes.length > 0 && (
            <HoleHandles end="axle" holes={placed(cycle.axle_holes, onAxle)} canvas={canvas} {...axleEye} />
          )}
          {cycle.frame_holes.length > 0 && (
            <HoleHandles
              end="frame"
              holes={placed(cycle.frame_holes, onBody)}
              canvas={canvas}
              {...frameEye}
            />
          )}
        </svg>
      )}
    </section>
  );
}

/** A place of the picture after the axle's part of it is turned, clockwise, in degrees. */
function turnedAbout(
  [cx, cy]: readonly [number, number],
  turn: number,
  [px, py]: readonly [number, number],
): readonly [number, number] {
  const turned = new DOMMatrix()
    .translate(cx, cy)
    .rotate(turn)
    .translate(-cx, -cy)
    .transformPoint({ x: px, y: py });
  return [turned.x, turned.y];
}
