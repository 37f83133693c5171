import type { TapeEntry } from "../api/client";
import { TapeField } from "../ui/TapeField";
import { useJob } from "./useJob";

type LengthFieldsProps<F extends string> = {
  /** Where the fields lie in the document. */
  at: string;
  form: { [key in F]?: TapeEntry | undefined };
  /** Name in the document and what it is called, in order. */
  fields: readonly (readonly [F, string])[];
  signed?: readonly F[];
  onPut: (part: { [key in F]?: TapeEntry | undefined }) => void;
};

/** Lengths of one part of the document, each in its own field. */
export function LengthFields<F extends string>({ at, form, fields, signed, onPut }: LengthFieldsProps<F>) {
  const { view, job } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  return fields.map(([field, label]) => (
    <TapeField
      key={field}
      job={view.id}
      pointer={`${at}/${field}`}
      label={label}
      signed={signed?.includes(field) ?? false}
      unit={unit}
      value={form[field]}
      onCommit={(entry) => onPut({ [field]: entry } as { [key in F]?: TapeEntry | undefined })}
    />
  ));
}
