/** Edits of the search for a cause: what was looked at, what was found, and what was done about it. */
import type { Job, Schemas } from "../../api/client";

type Diagnosis = Schemas["Diagnosis"];
type FoundCause = Schemas["FoundCause"];

/** Now, and by whom where that is known. */
const mark = (by: string | undefined): Schemas["Mark"] => ({
  at: new Date().toISOString(),
  ...(by && { by }),
});

const changed =
  (part: (diagnosis: Diagnosis) => Partial<Diagnosis>) =>
  (job: Job): Job => {
    const diagnosis = job.diagnosis ?? {};
    return { ...job, diagnosis: { ...diagnosis, ...part(diagnosis) } };
  };

const without = (diagnosis: Diagnosis, what: Schemas["QuickCheck"]) =>
  (diagnosis.checks ?? []).filter((made) => made.what !== what);

/** What was seen at a check; an answer given again takes the place of the one before. */
export const lookedAt = (what: Schemas["QuickCheck"], seen: boolean, by?: string) =>
  changed((diagnosis) => ({ checks: [...without(diagnosis, what), { what, seen, done: mark(by) }] }));

export const takeBackCheck = (what: Schemas["QuickCheck"]) =>
  changed((diagnosis) => ({ checks: without(diagnosis, what) }));

/** A cause that somebody is sure of. */
export const confirmCause = (what: Schemas["Suspect"], by?: string) =>
  changed((diagnosis) => ({ causes: [...(diagnosis.causes ?? []), { what, done: mark(by) }] }));

const causeAt = (place: number, part: (cause: FoundCause) => Partial<FoundCause>) =>
  changed((diagnosis) => ({
    causes: (diagnosis.causes ?? []).map((cause, at) =>
      at === place ? { ...cause, ...part(cause) } : cause,
    ),
  }));

export const setCauseNote = (place: number, notes: Pick<FoundCause, "note" | "mended_note">) =>
  causeAt(place, () => notes);

export const markFixed = (place: number, by?: string) => causeAt(place, () => ({ mended: mark(by) }));

export const takeBackCause = (place: number) =>
  changed((diagnosis) => ({ causes: (diagnosis.causes ?? []).filter((_, at) => at !== place) }));
