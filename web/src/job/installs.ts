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

/** Puts what was installed on record. */
export const recordParts = (parts: FittedPart[], by?: string) =>
  addRound({ parts, ...(by?.trim() && { by: by.trim() }) });
