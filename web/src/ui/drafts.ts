/**
 * Typed text that is not in the job yet, kept on this device until it is: a reload or a
 * closed lid loses nothing.
 */
const key = (job: string, pointer: string) => `derecho.draft.${job}.${pointer}`;

export const drafts = {
  get: (job: string, pointer: string) => localStorage.getItem(key(job, pointer)),
  keep: (job: string, pointer: string, text: string) => localStorage.setItem(key(job, pointer), text),
  drop: (job: string, pointer: string) => localStorage.removeItem(key(job, pointer)),
  /** Texts typed under a place whose numbering has changed belong nowhere any more. */
  dropUnder: (job: string, place: string) => {
    const under = key(job, place);
    for (const name of Object.keys(localStorage)) {
      if (name.startsWith(under)) localStorage.removeItem(name);
    }
  },
};
