import type { Job, Schemas } from "../../api/client";
import { setSway } from "../../job/edits";

/** Whether a splined bar runs in tubes welded through the frame; what was typed of them goes with a no. */
export const runsInTubes =
  (welded: boolean) =>
  (job: Job): Job => {
    const splined = job.sway?.splined ?? {};
    return setSway({ splined: { ...splined, tubes: welded ? (splined.tubes ?? {}) : undefined } })(job);
  };

/** Where the holes of those tubes go. */
export const setTubes =
  (part: Partial<Schemas["FrameTubes"]>) =>
  (job: Job): Job => {
    const splined = job.sway?.splined ?? {};
    return setSway({ splined: { ...splined, tubes: { ...splined.tubes, ...part } } })(job);
  };

/** One more build to come: the first is usually a lift. */
export function addBuild(job: Job): Job {
  const builds = job.sway?.build_stages ?? [];
  return setSway({ build_stages: [...builds, { name: builds.length === 0 ? "next lift" : "" }] })(job);
}
