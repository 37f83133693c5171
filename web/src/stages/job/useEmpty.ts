import { say } from "../../measure/format";
import { useJob } from "./useJob";

/** What the core takes where a field is left empty, in the unit of the job's sheets. */
export function useEmpty(): (pointer: string) => string {
  const { results } = useJob();
  return (pointer) => {
    const known = results.empty_fields.find((field) => field.pointer === pointer);
    return known ? `Empty: ${say(known.says, results.sheet_unit)}` : "";
  };
}
