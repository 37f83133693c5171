import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Choice";
import { AngleField } from "../job/AngleField";
import { useJob } from "../job/useJob";

type JointForm = Schemas["JointForm"];

const KINDS = [
  { value: "rubber", label: "rubber" },
  { value: "polyurethane", label: "poly" },
  { value: "spherical", label: "spherical" },
  { value: "spherical_high_misalignment", label: "high misalignment" },
] as const;

type JointInputProps = {
  label: string;
  pointer: string;
  joint: JointForm | undefined;
  onPut: (joint: JointForm) => void;
};

/** What sits in an eye, and how far it may tilt. */
export function JointInput({ label, pointer, joint = {}, onPut }: JointInputProps) {
  const { view } = useJob();
  return (
    <div className="mt-2">
      <Choice
        label={`${label}: what sits in it`}
        value={joint.kind ?? "rubber"}
        options={KINDS}
        onPick={(kind) => onPut({ ...joint, kind })}
      />
      <AngleField
        job={view.id}
        pointer={`${pointer}/limit`}
        label={`${label}: the part's own limit, half of the total`}
        value={joint.limit}
        hint="Empty: what is usual for its kind"
        onCommit={(limit) => onPut({ ...joint, limit })}
      />
    </div>
  );
}
