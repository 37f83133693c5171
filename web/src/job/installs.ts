import type { Job, Schemas } from "../api/client";
import { addRound } from "./edits";

export type FittedPart = Schemas["FittedPart"];

/** What each is called. */
export const PARTS = {
  sway_bar: "the sway bar",
  disconnect: "the sway bar disconnect",
  brace: "the brace",
  second_shim: "the shim under the other sway bar clamp",
  y_link: "the Y-link",
} satisfies Record<FittedPart, string>;

/** Says whether something besides bar, brackets and drag link is installed in this job. */
export const planPart =
  (part: FittedPart, installed: boolean | undefined) =>
  (job: Job): Job => {
    const others = (job.setups?.plans?.parts ?? []).filter((other) => other !== part);
    const parts = installed ? [...others, part] : others;
    const plans = { ...job.setups?.plans, parts: parts.length > 0 ? parts : undefined };
    return { ...job, setups: { ...job.setups, plans } };
  };

/** What was answered: nothing said is not asked again as a no. */
export const isPlanned = (job: Job, part: FittedPart) =>
  job.setups?.plans?.parts?.includes(part) ? true : undefined;

/** Puts what was installed on record: with the adjustment that was recorded last, where nobody measured since. */
export const recordParts =
  (parts: FittedPart[], by?: string) =>
  (job: Job): Job => {
    const rounds = job.setups?.rounds ?? [];
    const last = rounds.at(-1);
    if (!last || job.sheets?.some((sheet) => sheet.after === last.id)) {
      return addRound({ parts, ...(by?.trim() && { by: by.trim() }) })(job);
    }
    const together = { ...last, parts: [...(last.parts ?? []), ...parts] };
    return { ...job, setups: { ...job.setups, rounds: [...rounds.slice(0, -1), together] } };
  };
