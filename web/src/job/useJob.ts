import { useCallback } from "react";
import type { Job, JobView } from "../api/client";
import { useSession } from "./session";

/** The open job, inside a screen that is only shown while there is one. */
export function useJob(): {
  view: JobView;
  job: Job;
  results: JobView["results"];
  change: (edit: (job: Job) => Job) => void;
} {
  const view = useSession((s) => s.view);
  const job = useSession((s) => s.document);
  const changeJob = useSession((s) => s.changeJob);
  const id = view?.id ?? "";
  // Of this job, though a figure be read only after the screen was left.
  const change = useCallback((edit: (job: Job) => Job) => changeJob(id, edit), [changeJob, id]);
  if (!view || !job) throw new Error("no job is open");
  return { view, job, results: view.results, change };
}
