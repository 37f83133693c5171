import type { StageName } from "../api/client";
import { useJob } from "./useJob";

/** Whether this job's work needs one of these stages: what serves none of them is not asked. */
export function useNeeds(): (...stages: StageName[]) => boolean {
  const { results } = useJob();
  return (...stages) => results.stages.some((stage) => stage.needed && stages.includes(stage.stage));
}
