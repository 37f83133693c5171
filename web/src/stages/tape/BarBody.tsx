import type { TapeEntry } from "../../api/client";
import { TapeField } from "../../ui/TapeField";
import { setHardpoints } from "../job/edits";
import { useJob } from "../job/useJob";
import { BendInput } from "./BendInput";
import { JointInput } from "./JointInput";

/** The track bar as a body: where its axle eye is, how thick, how bent, and its joints. */
export function BarBody() {
  const { view, job, change } = useJob();
  const points = job.hardpoints ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
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
    <>
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
    </>
  );
}
