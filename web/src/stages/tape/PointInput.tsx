import type { Schemas } from "../../api/client";
import { heightLabel, isSigned } from "../../job/heights";
import { useJob } from "../../job/useJob";
import { Choice } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

type PointForm = Schemas["PointForm"];

type PointInputProps = {
  label: string;
  pointer: string;
  /** Where drafts are kept, of a row that comes and goes. */
  kept?: string;
  point: PointForm | undefined;
  /** Fixed to the body: sideways may be taken from the rail. */
  onBody?: boolean;
  onPut: (point: PointForm) => void;
};

const FROM_BODY = [
  { value: "centreline", label: "the centerline" },
  { value: "rail_outer_face", label: "the rail's outer face" },
] as const;
const FROM_AXLE = [
  { value: "centreline", label: "the axle's center" },
  { value: "hub_face", label: "the hub face, inward" },
] as const;

const FIELDS = [
  { field: "height", label: "height", signed: false },
  { field: "sideways", label: "sideways, on its own side", signed: true },
  { field: "fore_aft", label: "forward of the axle", signed: true },
  { field: "good_to", label: "accuracy, ±", signed: false },
] as const;

/** A point as a tape can find it: height, sideways, fore and aft, and how good that is. */
export function PointInput({ label, pointer, kept, point = {}, onBody, onPut }: PointInputProps) {
  const { view, job } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    <fieldset className="mt-2 border-line border-l-[3px] pl-2.5">
      <legend className="float-left mb-1 w-full font-semibold">{label}</legend>
      <div className="clear-both grid gap-x-2 sm:grid-cols-2">
        {FIELDS.map(({ field, label: what, signed }) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`${pointer}/${field}`}
            kept={kept && `${kept}/${field}`}
            label={field === "height" ? heightLabel(job, onBody) : what}
            signed={signed || (field === "height" && isSigned(job))}
            unit={unit}
            value={point[field]}
            onCommit={(entry) => onPut({ ...point, [field]: entry })}
          />
        ))}
      </div>
      {point.sideways && (
        <Choice
          label="Sideways measured from"
          value={point.sideways_from ?? "centreline"}
          options={onBody ? FROM_BODY : FROM_AXLE}
          onPick={(sideways_from) => onPut({ ...point, sideways_from })}
        />
      )}
    </fieldset>
  );
}
