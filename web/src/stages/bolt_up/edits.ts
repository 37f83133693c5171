/** Edits of what was done of the work, each giving a new document. */
import type { Job, Schemas } from "../../api/client";

export type Work = Schemas["Work"];
export type StepRecord = Schemas["StepRecord"];
export type FastenerForm = Schemas["FastenerForm"];
export type PartRecord = Schemas["PartRecord"];

export const setWork =
  (part: Partial<Work> | ((work: Work) => Partial<Work>)) =>
  (job: Job): Job => {
    const work = job.bolt_up ?? {};
    return { ...job, bolt_up: { ...work, ...(typeof part === "function" ? part(work) : part) } };
  };

/** Puts something into the entry of a key; the entry is begun where there is none. */
function put<T extends { key?: string }>(list: readonly T[] | undefined, key: string, part: Partial<T>): T[] {
  const entries = list ?? [];
  return entries.some((entry) => entry.key === key)
    ? entries.map((entry) => (entry.key === key ? { ...entry, ...part } : entry))
    : [...entries, { key, ...part } as T];
}

export const setStep = (key: string, part: Partial<StepRecord>) =>
  setWork((work) => ({ steps: put(work.steps, key, part) }));

export const setFastener = (key: string, part: Partial<FastenerForm>) =>
  setWork((work) => ({ fasteners: put(work.fasteners, key, part) }));

export const setPart = (key: string, part: Partial<PartRecord>) =>
  setWork((work) => ({ parts: put(work.parts, key, part) }));

/** A key for a line of one's own that the list does not have. */
export function ownKey(list: readonly { key?: string }[] | undefined): string {
  const numbers = (list ?? []).map((entry) => Number(entry.key?.split("/")[1] ?? 0)).filter(Number.isFinite);
  return `own/${Math.max(0, ...numbers) + 1}`;
}

/** When something is done, and by whom. */
export const mark = (work: Work | undefined) => ({
  at: new Date().toISOString(),
  ...(work?.by && { by: work.by }),
});
