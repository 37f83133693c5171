import type { Schemas, TapeEntry } from "../../api/client";
import { setHardpoints } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { Choice } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

type BendForm = Schemas["BendForm"];

const TOWARDS = [
  { value: "straight", label: "straight" },
  { value: "up", label: "bent up" },
  { value: "down", label: "bent down" },
  { value: "forward", label: "forward" },
  { value: "back", label: "back" },
] as const;

/** Whether the bar is bent, which way, where and how far. */
export function BendInput() {
  const { view, job, change } = useJob();
  const bar = job.hardpoints?.bar ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const put = (bend: BendForm | undefined) => change(setHardpoints({ bar: { ...bar, bend } }));
  const usual: { from_frame_eye: TapeEntry; offset: TapeEntry } =
    unit === "in"
      ? { from_frame_eye: { text: "16", unit }, offset: { text: "1", unit } }
      : { from_frame_eye: { text: "400", unit }, offset: { text: "25", unit } };
  const { bend } = bar;
  return (
    <div className="mt-2 grid gap-2">
      <Choice
        label="Bar shape"
        value={bend?.towards ?? "straight"}
        options={TOWARDS}
        onPick={(towards) => put(towards === "straight" ? undefined : { ...usual, ...bend, towards })}
      />
      {bend && (
        <div className="grid gap-2 sm:grid-cols-2">
          {(["from_frame_eye", "offset"] as const).map((field) => (
            <TapeField
              key={field}
              job={view.id}
              pointer={`/hardpoints/bar/bend/${field}`}
              label={field === "offset" ? "Bend, offset from straight" : "Bend, distance from the frame end"}
              unit={unit}
              value={bend[field]}
              onCommit={(entry) => entry && put({ ...bend, [field]: entry })}
            />
          ))}
        </div>
      )}
    </div>
  );
}
