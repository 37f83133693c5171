import type { Schemas } from "../api/client";
import { TextField } from "../ui/TextField";
import { JUDGES } from "./judge";
import { useJob } from "./useJob";

type Kind = Schemas["FigureKind"];

const HINTS: Record<Kind, string> = {
  weight: "lb or kg",
  spring_rate: "lb/in or N/mm",
  roll_rate: "lb-ft/deg or Nm/deg",
  angle: "degrees, such as 10.8",
  torque: "Nm or lb-ft",
  number: "such as 700",
  thread: "such as 1/2-20 or M14x2",
};

const TAKES: Partial<Record<Kind, Schemas["InstrumentKind"]>> = {
  weight: "scales",
  torque: "wrench",
  angle: "finder",
};

type FigureFieldProps = {
  kind: Kind;
  pointer: string;
  label: string;
  value: string | undefined;
  onCommit: (text: string | undefined) => void;
};

/** A weight, a rate, a torque or a thread as it is typed, with its unit. */
export function FigureField({ kind, pointer, label, value, onCommit }: FigureFieldProps) {
  const { view } = useJob();
  return (
    <TextField
      job={view.id}
      pointer={pointer}
      label={label}
      value={value ?? ""}
      hint={HINTS[kind]}
      takes={TAKES[kind]}
      check={JUDGES[kind]}
      onCommit={(text) => onCommit(text.trim() || undefined)}
    />
  );
}
