/** How a part of a stage stands. */
export type Sign = {
  kind: "good" | "mind" | "bad" | "measure" | "plain";
  /** A word or a figure, never the colour alone. */
  word: string;
};

export const good = (word: string): Sign => ({ kind: "good", word });
export const mind = (word: string): Sign => ({ kind: "mind", word });
export const bad = (word: string): Sign => ({ kind: "bad", word });
export const measure = (word = "to measure"): Sign => ({ kind: "measure", word });
export const plain = (word: string): Sign => ({ kind: "plain", word });
