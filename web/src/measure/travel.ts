/** Picking from a fetched sweep. Pure, no React. */
import type { Sample } from "../api/client";

/** The sweep at a travel, straight between its samples, held at its ends. */
export function at(sweep: readonly Sample[], travel: number): Sample | undefined {
  const first = sweep[0];
  const last = sweep[sweep.length - 1];
  if (!first || !last) return undefined;
  if (travel <= first.travel_mm) return first;
  if (travel >= last.travel_mm) return last;
  const place = ((travel - first.travel_mm) / (last.travel_mm - first.travel_mm)) * (sweep.length - 1);
  const index = Math.min(Math.floor(place), sweep.length - 2);
  const a = sweep[index];
  const b = sweep[index + 1];
  if (!a || !b) return undefined;
  const between = (from: number, to: number) => from + (to - from) * (place - index);
  return {
    travel_mm: travel,
    found_mm: between(a.found_mm, b.found_mm),
    planned_mm: between(a.planned_mm, b.planned_mm),
    found_angle_deg: between(a.found_angle_deg, b.found_angle_deg),
    planned_angle_deg: between(a.planned_angle_deg, b.planned_angle_deg),
  };
}

/** Ticks of a rule between two places, in millimetres, with their weight. */
export function ticks(from: number, to: number, unit: "in" | "mm"): { mm: number; weight: 0 | 1 | 2 | 3 }[] {
  // A sixteenth of an inch, or a millimetre.
  const step = unit === "in" ? 25.4 / 16 : 1;
  const weigh =
    unit === "in"
      ? (count: number) => (count % 16 === 0 ? 3 : count % 8 === 0 ? 2 : count % 4 === 0 ? 1 : 0)
      : (count: number) => (count % 10 === 0 ? 3 : count % 5 === 0 ? 2 : 0);
  const found: { mm: number; weight: 0 | 1 | 2 | 3 }[] = [];
  for (let count = Math.ceil(from / step - 1e-9); count <= Math.floor(to / step + 1e-9); count++) {
    found.push({ mm: count * step, weight: weigh(Math.abs(count)) });
  }
  return found;
}
