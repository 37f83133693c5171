/**
 * Typed text that is not in the job yet, kept on this device until it is: a reload or a
 * closed lid loses nothing. With it the value it was begun over, so that one that was changed
 * elsewhere meanwhile is not written over unasked.
 */
const key = (job: string, place: string) => `derecho.draft.${job}.${place}`;
const over = (job: string, place: string) => `derecho.over.${job}.${place}`;

/** A device that is full or keeps nothing must not keep anybody from typing. */
function tried<T>(run: () => T): T | undefined {
  try {
    return run();
  } catch {
    return undefined;
  }
}

export const drafts = {
  get: (job: string, place: string) => tried(() => localStorage.getItem(key(job, place))) ?? null,
  /** The value a draft was begun over. */
  begunOver: (job: string, place: string) => tried(() => localStorage.getItem(over(job, place))) ?? null,
  keep: (job: string, place: string, text: string, stored: string) =>
    tried(() => {
      if (localStorage.getItem(key(job, place)) === null) localStorage.setItem(over(job, place), stored);
      localStorage.setItem(key(job, place), text);
    }),
  drop: (job: string, place: string) =>
    tried(() => {
      localStorage.removeItem(key(job, place));
      localStorage.removeItem(over(job, place));
    }),
  /** Every place of a job with something typed. */
  places: (job: string): string[] => {
    const of = key(job, "");
    return (tried(() => Object.keys(localStorage)) ?? []).flatMap((name) =>
      name.startsWith(of) ? [name.slice(of.length)] : [],
    );
  },
  /** What was typed at a place stands at another one now. */
  move: (job: string, from: string, to: string) =>
    tried(() => {
      for (const name of [key, over]) {
        const text = localStorage.getItem(name(job, from));
        if (text !== null) localStorage.setItem(name(job, to), text);
        localStorage.removeItem(name(job, from));
      }
    }),
  /** Texts typed under a place whose numbering has changed belong nowhere any more. */
  dropUnder: (job: string, place: string) => {
    const under = [key(job, place), over(job, place)];
    for (const name of tried(() => Object.keys(localStorage)) ?? []) {
      if (under.some((prefix) => name.startsWith(prefix))) localStorage.removeItem(name);
    }
  },
};
