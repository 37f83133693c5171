/** Ids of rows that others point at: names are for people and may change. Pure, no React. */

/** An id that no other row has, in this window or another. */
export const newId = (kind: string): string =>
  `${kind}-${crypto.randomUUID?.().slice(0, 8) ?? `${Date.now().toString(36)}${Math.random().toString(36).slice(2, 6)}`}`;
