import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";

type JointForm = Schemas["JointForm"];

const KINDS = optionsOf<Schemas["JointKind"]>({
  rubber: "rubber",
  polyurethane: "poly",
  spherical: "spherical",
  spherical_high_misalignment: "high misalignment",
});

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
        label={`${label}: joint type`}
        value={joint.kind ?? "rubber"}
        options={KINDS}
        onPick={(kind) => onPut({ ...joint, kind })}
      />
      <AngleField
        job={view.id}
        pointer={`${pointer}/limit`}
        label={`${label}: max angle each way (half the total), from the spec sheet`}
        value={joint.limit}
        hint="Empty: typical for its kind"
        onCommit={(limit) => onPut({ ...joint, limit })}
      />
    </div>
  );
}
