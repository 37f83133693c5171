/** From where the drawing is looked at. It belongs to this window, not to the job. */
import { create } from "zustand";
import { useSettings } from "../../ui/settings";
import type { Look } from "./space";
import { endOf } from "./views";

type Looking = {
  /** Null is straight at the end that is chosen in the bar above. */
  look: Look | null;
  walkTo: (look: Look) => void;
};

export const useLook = create<Looking>()((set) => ({
  look: null,
  walkTo: (look) => {
    const end = endOf(look);
    if (end) useSettings.setState({ face: end });
    set({ look: end ? null : look });
  },
}));

/** Straight at an end. */
export const lookAt = (face: "front" | "rear"): Look => ({ turn: face === "front" ? 0 : 180, tilt: 0 });

/** Where one stands now, whether at an end or anywhere else. */
export function standing(): Look {
  return useLook.getState().look ?? lookAt(useSettings.getState().face);
}

/** To the other end, straight. */
export function flipEnds() {
  useLook.setState({ look: null });
  useSettings.getState().flipFace();
}

const STRIDE_MS = 320;

/** Walks to a look, in a stride where motion is welcome. */
export function strideTo(to: Look) {
  const from = standing();
  const { walkTo } = useLook.getState();
  if (matchMedia("(prefers-reduced-motion: reduce)").matches) {
    walkTo(to);
    return;
  }
  const by = ((((to.turn - from.turn + 180) % 360) + 360) % 360) - 180;
  const began = performance.now();
  const step = (now: number) => {
    const share = Math.min(1, (now - began) / STRIDE_MS);
    const eased = share * share * (3 - 2 * share);
    walkTo(
      share >= 1 ? to : { turn: from.turn + by * eased, tilt: from.tilt + (to.tilt - from.tilt) * eased },
    );
    if (share < 1) requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
}
