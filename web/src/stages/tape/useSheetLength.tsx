import type { TapeEntry } from "../../api/client";
import { useJob } from "../../job/useJob";
import { TapeField } from "../../ui/TapeField";

/** How a length of this job is asked for: a tape field in the unit its sheets are written in. */
export function useSheetLength() {
  const { view, job } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    pointer: string,
    label: string,
    value: TapeEntry | undefined,
    put: (entry?: TapeEntry) => void,
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
}
