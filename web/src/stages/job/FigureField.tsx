import { answer, client, type Schemas } from "../../api/client";
import { TextField } from "../../ui/TextField";
import { useJob } from "./useJob";

type Kind = Schemas["FigureKind"];

const HINTS: Record<Kind, string> = {
  weight: "lb or kg",
  spring_rate: "lb/in or N/mm",
  roll_rate: "lb-ft/deg or Nm/deg",
  thread: "such as 1/2-20 or M14x2",
};

/** Asks the server what is wrong with a figure. */
const judge = (kind: Kind) => async (text: string) => {
  const result = await answer(client.GET("/api/v1/figure", { params: { query: { text, kind } } }));
  if ("data" in result) return undefined;
  if ("silent" in result) return "The program does not answer. What you typed is kept on this device.";
  return result.problem.detail;
};
const JUDGES: Record<Kind, (text: string) => Promise<string | undefined>> = {
  weight: judge("weight"),
  spring_rate: judge("spring_rate"),
  roll_rate: judge("roll_rate"),
  thread: judge("thread"),
};

type FigureFieldProps = {
  kind: Kind;
  pointer: string;
  label: string;
  value: string | undefined;
  onCommit: (text: string | undefined) => void;
};

/** A weight, a rate or a thread as it is typed, with its unit. */
export function FigureField({ kind, pointer, label, value, onCommit }: FigureFieldProps) {
  const { view } = useJob();
  return (
    <TextField
      job={view.id}
      pointer={pointer}
      label={label}
      value={value ?? ""}
      hint={HINTS[kind]}
      check={JUDGES[kind]}
      onCommit={(text) => onCommit(text.trim() || undefined)}
    />
  );
}
