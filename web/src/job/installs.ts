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
  straps: "the limit straps",
  tie_rod: "the tie rod in its new place",
} satisfies Record<FittedPart, string>;

/** Says whether something besides bar, brackets and drag link is installed in this job; nothing said forgets the answer. */
export const planPart =
  (part: FittedPart, installed: boolean | undefined) =>
  (job: Job): Job => {
    const { parts, not_here, ...rest } = job.setups?.plans ?? {};
    const without = (list: FittedPart[] | undefined) => (list ?? []).filter((other) => other !== part);
    const here = [...without(parts), ...(installed === true ? [part] : [])];
    const elsewhere = [...without(not_here), ...(installed === false ? [part] : [])];
    const plans = {
      ...rest,
      ...(here.length > 0 && { parts: here }),
      ...(elsewhere.length > 0 && { not_here: elsewhere }),
    };
    return { ...job, setups: { ...job.setups, plans } };
  };

/** What was answered. */
export function isPlanned(job: Job, part: FittedPart): boolean | undefined {
  const plans = job.setups?.plans;
  if (plans?.parts?.includes(part)) return true;
  return plans?.not_here?.includes(part) ? false : undefined;
}

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
