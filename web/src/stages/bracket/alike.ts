/** Options that differ only in a part without influence on what is told of them. Pure, no React. */
import type { PlanOption, Unit } from "../../api/client";
import { degrees, distance } from "../../measure/format";

/** Options that come to the same figures in the same hole, whatever the bar, as one. */
export function alike(options: readonly PlanOption[], units: Unit): PlanOption[][] {
  const reported = (option: PlanOption) =>
    [
      option.name,
      degrees(option.angle_deg),
      distance(option.peak_to_peak_mm, units),
      distance(option.roll_centre_mm, units),
      option.fails.map((fails) => fails.in).join(),
    ].join("|");
  const groups = new Map<string, PlanOption[]>();
  for (const option of options)
    groups.set(reported(option), [...(groups.get(reported(option)) ?? []), option]);
  return [...groups.values()];
}
