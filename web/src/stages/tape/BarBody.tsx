import { setHardpoints } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { BendInput } from "./BendInput";
import { JointInput } from "./JointInput";
import { useSheetLength } from "./useSheetLength";

/** The track bar as a body: where its axle eye is, how thick, how bent, and its joints. */
export function BarBody() {
  const { job, change } = useJob();
  const points = job.hardpoints ?? {};
  const length = useSheetLength();
  return (
    <>
      <div className="grid gap-2 sm:grid-cols-2">
        {length(
          "/hardpoints/bar/axle_eye_fore_aft",
          "Axle end forward of the axle centerline",
          points.bar?.axle_eye_fore_aft,
          (axle_eye_fore_aft) => change(setHardpoints({ bar: { ...points.bar, axle_eye_fore_aft } })),
          true,
        )}
        {length("/hardpoints/bar/diameter", "Diameter", points.bar?.diameter, (diameter) =>
          change(setHardpoints({ bar: { ...points.bar, diameter } })),
        )}
      </div>
      <p className="text-[15px] text-muted">
        The brackets with the eye in them are checked against everything near them once both sizes are in.
      </p>
      <div className="grid gap-2 sm:grid-cols-2">
        {(["frame_bracket", "axle_bracket"] as const).flatMap((bracket) =>
          (["across", "along"] as const).map((way) =>
            length(
              `/hardpoints/bar/${bracket}/${way}`,
              `${bracket === "frame_bracket" ? "Frame" : "Axle"} bracket ${way} the bolt`,
              points.bar?.[bracket]?.[way],
              (size) =>
                change(
                  setHardpoints({
                    bar: { ...points.bar, [bracket]: { ...points.bar?.[bracket], [way]: size } },
                  }),
                ),
            ),
          ),
        )}
      </div>
      <BendInput />
      <JointInput
        label="Frame end"
        joint={points.bar?.frame_joint}
        pointer="/hardpoints/bar/frame_joint"
        onPut={(frame_joint) => change(setHardpoints({ bar: { ...points.bar, frame_joint } }))}
      />
      <JointInput
        label="Axle end"
        joint={points.bar?.axle_joint}
        pointer="/hardpoints/bar/axle_joint"
        onPut={(axle_joint) => change(setHardpoints({ bar: { ...points.bar, axle_joint } }))}
      />
    </>
  );
}
