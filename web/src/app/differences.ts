/** What differs between two documents, leaf by leaf. Pure, no React. */
import type { Job } from "../api/client";

export type Difference = { place: string; mine: string; theirs: string };

type Leaves = Map<string, string>;

/** Typed figures count as one leaf: their text. */
function leaves(value: unknown, place: string, found: Leaves): Leaves {
  if (typeof value !== "object" || value === null) {
    found.set(place, String(value));
  } else if ("text" in value && typeof value.text === "string" && !("after" in value)) {
    found.set(place, "unit" in value ? `${value.text} ${value.unit}` : value.text);
  } else {
    for (const [name, member] of Object.entries(value))
      leaves(member, place === "" ? name : `${place} › ${name}`, found);
  }
  return found;
}

const WORDS: [RegExp, string][] = [
  [/^sheets › (\d+)/, "measurements $1"],
  [/^setups › found › bar/, "bar"],
  [/^setups › rounds › (\d+)/, "adjustment $1"],
  [/^setups › found › adjuster/, "adjuster"],
  [/^setups › plans › chosen/, "chosen plan"],
];

/** Places are counted from 1 for people. */
function readable(place: string): string {
  const counted = place.replaceAll(/› (\d+)/g, (_, index: string) => `› ${Number(index) + 1}`);
  return WORDS.reduce((text, [from, to]) => text.replace(from, to), counted).replaceAll("_", " ");
}

/** Whether keeping one version takes a settling away that the other has. */
export const settlingLost = (mine: Job, theirs: Job): boolean =>
  theirs.settled !== undefined &&
  theirs.settled !== null &&
  JSON.stringify(mine.settled) !== JSON.stringify(theirs.settled);

export function differences(mine: unknown, theirs: unknown): Difference[] {
  const a = leaves(mine, "", new Map());
  const b = leaves(theirs, "", new Map());
  return [...new Set([...a.keys(), ...b.keys()])]
    .filter((place) => a.get(place) !== b.get(place) && !place.startsWith("settled"))
    .map((place) => ({
      place: readable(place),
      mine: a.get(place) ?? "nothing",
      theirs: b.get(place) ?? "nothing",
    }));
}
