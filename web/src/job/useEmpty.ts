import { say } from "../measure/format";
import { useSettings } from "../ui/settings";
import { useJob } from "./useJob";

/** What the core takes where a field is left empty, in the person's unit. */
export function useEmpty(): (pointer: string) => string {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  return (pointer) => {
    const known = results.empty_fields.find((field) => field.pointer === pointer);
    return known ? `Empty: ${say(known.says, units)}` : "";
  };
}
