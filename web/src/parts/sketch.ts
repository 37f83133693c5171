/** What of a part is drawn, in millimetres. Pure, no React. */
import type { Part } from "../api/client";

export type HoleSketch = { name: string; up: number; outward: number };

export type Sketch = {
  kind: Part["kind"];
  /** Lengths by the names of their columns. */
  mm: Readonly<Record<string, number>>;
  holes: readonly HoleSketch[];
  end: "axle" | "frame";
  adjuster: string;
};

/** Pixels of a millimetre on the rack: every part to one scale. */
export const RACK_SCALE = 0.29;

const lengthOf = (value: unknown): number | undefined =>
  typeof value === "object" && value !== null && "mm" in value && typeof value.mm === "number"
    ? value.mm
    : undefined;

/** A kept part as it is drawn. */
export function sketchOf(part: Part): Sketch {
  const lengths = Object.entries(part).flatMap(([name, value]) => {
    const mm = lengthOf(value);
    return mm === undefined ? [] : [[name, mm] as const];
  });
  const holes = "holes" in part ? (part.holes ?? []) : [];
  return {
    kind: part.kind,
    mm: Object.fromEntries(lengths),
    holes: holes.map((hole) => ({
      name: hole.name,
      up: lengthOf(hole.up) ?? 0,
      outward: lengthOf(hole.outward) ?? 0,
    })),
    end: "end" in part && part.end === "frame" ? "frame" : "axle",
    adjuster: ("adjuster" in part && part.adjuster) || "",
  };
}
