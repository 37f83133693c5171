import type { Schemas, TapeEntry } from "../../api/client";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { setArm, setHardpoints } from "../job/edits";
import { useJob } from "../job/useJob";
import { BendInput } from "./BendInput";
import { JointInput } from "./JointInput";
import { Obstacles } from "./Obstacles";
import { PointInput } from "./PointInput";
import { PointPicture } from "./PointPicture";
import { SteeringInput } from "./SteeringInput";

type Location = Schemas["AxleLocation"];
type ArmName = keyof Schemas["Arms"];

/** The arms each kind of axle location has, and what they are called. */
const ARMS = {
  leaf_springs: [],
  radius_arms: [
    ["lower_left", "Left radius arm"],
    ["lower_right", "Right radius arm"],
  ],
  three_arms: [
    ["lower_left", "Left lower arm"],
    ["lower_right", "Right lower arm"],
    ["upper_left", "Upper arm"],
  ],
  four_arms: [
    ["lower_left", "Left lower arm"],
    ["lower_right", "Right lower arm"],
    ["upper_left", "Left upper arm"],
    ["upper_right", "Right upper arm"],
  ],
  y_link: [
    ["lower_left", "Left lower arm"],
    ["lower_right", "Right lower arm"],
    ["upper_left", "Left leg of the Y-link"],
    ["upper_right", "Right leg of the Y-link"],
  ],
} satisfies Record<Location, readonly (readonly [ArmName, string])[]>;

const SIDES = [
  { value: "left", label: "left" },
  { value: "right", label: "right" },
] as const;

/** Points of links, bar, steering and obstacles, for stage Cycle: each as it can be measured. */
export function Points() {
  const { view, job, change } = useJob();
  const location = job.rig?.axle_location;
  const points = job.hardpoints ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  if (!location) {
    return <p className="text-muted">For stage Cycle, say in stage Rig what holds the axle fore and aft.</p>;
  }
  const upper = points.upper_arm_side ?? "left";
  const arms = ARMS[location].map(([name, title]) =>
    location === "three_arms" && name === "upper_left"
      ? ([`upper_${upper}`, title] as const)
      : ([name, title] as const),
  );
  const heights = job.rig?.heights ?? [];
  const length = (
    pointer: string,
    label: string,
    value: TapeEntry | undefined,
    put: (e?: TapeEntry) => void,
    signed = false,
  ) => (
    <TapeField
      job={view.id}
      pointer={pointer}
      label={label}
      signed={signed}
      unit={unit}
      value={value}
      onCommit={put}
    />
  );
  return (
    <Fold title="Points for stage Cycle: links, steering, obstacles">
      <PointPicture />
      <p className="text-[15px] text-muted">
        Heights above the floor, on its weight. Points of the body from the frame's centreline or the rail,
        points of the axle from its own middle. What is left empty is assumed and marked so; the right side
        takes the left one's figures.
      </p>
      {location === "three_arms" && (
        <Choice
          label="Upper arm is on the"
          value={upper}
          options={SIDES}
          onPick={(upper_arm_side) => change(setHardpoints({ upper_arm_side }))}
        />
      )}
      {heights.length > 0 && (
        <Choice
          label="Its bushings were tightened at"
          value={points.tightened_height || "-"}
          options={[
            { value: "-", label: "ride height" },
            ...heights.map((height) => ({ value: height.name, label: height.name })),
          ]}
          onPick={(name) =>
            change(setHardpoints({ tightened_height: name === undefined || name === "-" ? "" : name }))
          }
        />
      )}
      {location === "leaf_springs" &&
        length(
          "/hardpoints/spring_front_half",
          "Front half of the spring, eye to axle",
          points.spring_front_half,
          (spring_front_half) => change(setHardpoints({ spring_front_half })),
        )}
      {arms.map(([name, title]) => (
        <ArmInput
          key={name}
          name={name}
          title={title}
          radius={location === "radius_arms" && name === "lower_left"}
        />
      ))}
      {location !== "y_link" && (
        <Fold title="Track bar as a body">
          <div className="grid gap-2 sm:grid-cols-2">
            {length(
              "/hardpoints/bar/axle_eye_fore_aft",
              "Axle eye forward of the axle",
              points.bar?.axle_eye_fore_aft,
              (axle_eye_fore_aft) => change(setHardpoints({ bar: { ...points.bar, axle_eye_fore_aft } })),
              true,
            )}
            {length("/hardpoints/bar/diameter", "Diameter", points.bar?.diameter, (diameter) =>
              change(setHardpoints({ bar: { ...points.bar, diameter } })),
            )}
          </div>
          <BendInput />
          <JointInput
            label="Frame eye"
            joint={points.bar?.frame_joint}
            pointer="/hardpoints/bar/frame_joint"
            onPut={(frame_joint) => change(setHardpoints({ bar: { ...points.bar, frame_joint } }))}
          />
          <JointInput
            label="Axle eye"
            joint={points.bar?.axle_joint}
            pointer="/hardpoints/bar/axle_joint"
            onPut={(axle_joint) => change(setHardpoints({ bar: { ...points.bar, axle_joint } }))}
          />
        </Fold>
      )}
      {job.rig?.end === "front" && <SteeringInput />}
      <Obstacles />
    </Fold>
  );
}

function ArmInput({ name, title, radius }: { name: ArmName; title: string; radius: boolean }) {
  const { view, job, change } = useJob();
  const arm = job.hardpoints?.arms?.[name] ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const at = `/hardpoints/arms/${name}`;
  const length = (field: "length" | "diameter" | "bush_spacing", label: string) => (
    <TapeField
      job={view.id}
      pointer={`${at}/${field}`}
      label={label}
      unit={unit}
      value={arm[field]}
      onCommit={(entry) => change(setArm(name, { [field]: entry }))}
    />
  );
  return (
    <Fold title={title}>
      <div className="grid gap-x-2 sm:grid-cols-2">
        {length("length", "Length, eye to eye")}
        {length("diameter", "Diameter")}
        {radius && length("bush_spacing", "Between its axle bushes")}
      </div>
      <PointInput
        label="Body end"
        pointer={`${at}/body`}
        point={arm.body}
        onBody
        onPut={(body) => change(setArm(name, { body }))}
      />
      <PointInput
        label="Axle end"
        pointer={`${at}/axle`}
        point={arm.axle}
        onPut={(axle) => change(setArm(name, { axle }))}
      />
      <JointInput
        label="Body end"
        joint={arm.body_joint}
        pointer={`${at}/body_joint`}
        onPut={(body_joint) => change(setArm(name, { body_joint }))}
      />
      <JointInput
        label="Axle end"
        joint={arm.axle_joint}
        pointer={`${at}/axle_joint`}
        onPut={(axle_joint) => change(setArm(name, { axle_joint }))}
      />
    </Fold>
  );
}
