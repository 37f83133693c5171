import { ArrowRight } from "lucide-react";
import type { Schemas } from "../../api/client";
import { setArm, setHardpoints } from "../../job/edits";
import { useGoToField } from "../../job/Missing";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { JointInput } from "./JointInput";
import { PointInput } from "./PointInput";
import { PointPicture } from "./PointPicture";
import { useSheetLength } from "./useSheetLength";

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
    ["lower_left", "Left lower control arm"],
    ["lower_right", "Right lower control arm"],
    ["upper_left", "Upper control arm"],
  ],
  four_arms: [
    ["lower_left", "Left lower control arm"],
    ["lower_right", "Right lower control arm"],
    ["upper_left", "Left upper control arm"],
    ["upper_right", "Right upper control arm"],
  ],
  y_link: [
    ["lower_left", "Left lower control arm"],
    ["lower_right", "Right lower control arm"],
    ["upper_left", "Left leg of the Y-link"],
    ["upper_right", "Right leg of the Y-link"],
  ],
} satisfies Record<Location, readonly (readonly [ArmName, string])[]>;

const SIDES = optionsOf<Schemas["Side"]>({
  left: "left",
  right: "right",
});

/** Points of the links, for stage Cycle: each as it can be measured. */
export function Points() {
  const { job, change } = useJob();
  const go = useGoToField();
  const location = job.rig?.axle_location;
  const points = job.hardpoints ?? {};
  const length = useSheetLength();
  if (!location) {
    return (
      <Button className="justify-self-start" onClick={() => go("/rig/axle_location")}>
        Choose what locates the axle fore and aft
        <ArrowRight size={18} aria-hidden />
      </Button>
    );
  }
  const upper = points.upper_arm_side ?? "left";
  const arms = ARMS[location].map(([name, title]) =>
    location === "three_arms" && name === "upper_left"
      ? ([`upper_${upper}`, title] as const)
      : ([name, title] as const),
  );
  const heights = job.rig?.heights ?? [];
  return (
    <>
      <PointPicture />
      <p className="text-[15px] text-muted">
        {job.rig?.heights_from === "rail_and_axle"
          ? "Heights from the frame rail and the axle center, as picked on Rig. "
          : "Heights above the floor, on its wheels; on a hoist pick the frame rail on Rig, under Sizes. "}
        Measure body points from the frame centerline or the rail, axle points from the axle's own center.
        Empty fields are assumed and marked. The right side uses the left side's figures.
      </p>
      {location === "three_arms" && (
        <Choice
          label="The upper control arm is on the"
          pointer="/hardpoints/upper_arm_side"
          value={upper}
          options={SIDES}
          onPick={(upper_arm_side) => change(setHardpoints({ upper_arm_side }))}
        />
      )}
      {heights.length > 0 && (
        <Choice
          label="Bushings were tightened at"
          value={points.tightened_height || "-"}
          options={[
            { value: "-", label: "ride height" },
            ...heights.map((height) => ({ value: height.id ?? "", label: height.name })),
          ]}
          onPick={(id) =>
            change(setHardpoints({ tightened_height: id === undefined || id === "-" ? "" : id }))
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
    </>
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
    <Fold keep title={title}>
      <div className="grid gap-x-2 sm:grid-cols-2">
        {length("length", "Length, eye to eye (center to center)")}
        {length("diameter", "Diameter")}
        {radius && length("bush_spacing", "Between its axle bushings")}
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
