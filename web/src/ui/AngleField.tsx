import { useCallback } from "react";
import type { AngleEntry } from "../api/client";
import { TextField } from "./TextField";

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
  return <TextField {...rest} value={value?.text ?? ""} hint={hint} check={checkAngle} onCommit={commit} />;
}

// The form only; the core reads the value and has the last word.
function checkAngle(text: string): string | undefined {
  return /^\s*[-+−]?\d{0,3}([.,]\d*)?\s*(°|deg|degrees)?\s*$/.test(text) && /\d/.test(text)
    ? undefined
    : "This is not an angle. Type degrees, such as 10.8.";
}
