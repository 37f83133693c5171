import { useCallback } from "react";
import type { AngleEntry } from "../api/client";
import { TextField } from "../ui/TextField";
import { JUDGES } from "./judge";

type AngleFieldProps = {
  job: string;
  pointer: string;
  label: string;
  value: AngleEntry | undefined;
  hint?: string;
  onCommit: (entry: AngleEntry | undefined) => void;
};

/** A field for degrees, in the manners of the tape field. */
export function AngleField({ value, onCommit, hint = "degrees, such as 10.8", ...rest }: AngleFieldProps) {
  const commit = useCallback((text: string) => onCommit(text === "" ? undefined : { text }), [onCommit]);
  return (
    <TextField
      {...rest}
      takes="finder"
      value={value?.text ?? ""}
      hint={hint}
      check={JUDGES.angle}
      onCommit={commit}
    />
  );
}
