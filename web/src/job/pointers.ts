/** Places in a document, as JSON Pointers. */
import type { Job } from "../api/client";

export type Pointed = { pointer: string; value: unknown };

const steps = (pointer: string) =>
  pointer
    .split("/")
    .slice(1)
    .map((step) => step.replaceAll("~1", "/").replaceAll("~0", "~"));

type Branch = { [step: string]: unknown };
const isBranch = (value: unknown): value is Branch => typeof value === "object" && value !== null;

/** The value at a place; undefined where there is none. */
export function valueAt(document: Job, pointer: string): unknown {
  let here: unknown = document;
  for (const step of steps(pointer)) here = isBranch(here) ? here[step] : undefined;
  return here;
}

/** The document with another value at a place, and the way to it; taken out where it is undefined. */
export function withValueAt(document: Job, pointer: string, value: unknown): Job {
  const put = (there: unknown, [step, ...rest]: string[]): unknown => {
    if (step === undefined || (!isBranch(there) && value === undefined)) return there;
    const here: Branch | unknown[] = isBranch(there) ? there : /^\d+$/.test(step) ? [] : {};
    const next = rest.length > 0 ? put((here as Branch)[step], rest) : value;
    if (Array.isArray(here)) {
      // A place in a row stays, so that the others keep theirs.
      const row = [...here];
      while (next !== undefined && row.length <= Number(step)) row.push(null);
      return row.map((other, index) => (String(index) === step ? (next ?? null) : other));
    }
    const { [step]: _, ...others } = here as Branch;
    return next === undefined ? others : { ...here, [step]: next };
  };
  return put(document, steps(pointer)) as Job;
}
