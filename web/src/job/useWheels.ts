import type { Results } from "../api/client";
import type { Wheels } from "../elevation/cyclePose";
import { useStance } from "../elevation/stance";

/** Where both wheels are: crossed, or alike at the stick's travel. */
export function useWheels(results: Results): Wheels {
  const { crossed, travel } = useStance();
  const both = travel ?? results.elevation.driven_travel_mm;
  return crossed ?? { left: both, right: both };
}
