/**
 * Typed text that is not in the job yet, kept on this device until it is: a reload or a
 * closed lid loses nothing.
 */
const key = (job: string, pointer: string) => `derecho.draft.${job}.${pointer}`;

/** A device that is full or keeps nothing must not keep anybody from typing. */
function tried<T>(run: () => T): T | undefined {
  try {
    return run();
  } catch {
    return undefined;
  }
}

export const drafts = {
  get: (job: string, pointer: string) => tried(() => localStorage.getItem(key(job, pointer))) ?? null,
  keep: (job: string, pointer: string, text: string) =>
    tried(() => localStorage.setItem(key(job, pointer), text)),
  drop: (job: string, pointer: string) => tried(() => localStorage.removeItem(key(job, pointer))),
  /** Texts typed under a place whose numbering has changed belong nowhere any more. */
  dropUnder: (job: string, place: string) => {
    const under = key(job, place);
    for (const name of tried(() => Object.keys(localStorage)) ?? []) {
      if (name.startsWith(under)) localStorage.removeItem(name);
    }
  },
};
