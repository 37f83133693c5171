import { useEffect, useRef } from "react";
import type { Wheels } from "./cyclePose";
import { useStance } from "./stance";

/** A round lasts six seconds. */
const ROUND_MS = 6000;

/**
 * Goes through a round at the display's rate while it plays. `at` tells where the wheels are at
 * a share of it; `begin` at which share to begin so that nothing jumps.
 */
export function usePlay(at: (share: number) => Wheels, begin: () => number) {
  const playing = useStance((s) => s.playing);
  const round = useStance((s) => s.round);
  const latest = useRef({ at, begin });
  latest.current = { at, begin };
  // biome-ignore lint/correctness/useExhaustiveDependencies: another round begins anew
  useEffect(() => {
    if (!playing) return;
    const from = latest.current.begin();
    let frame = 0;
    let begun = 0;
    const turn = (now: number) => {
      begun ||= now;
      const { left, right } = latest.current.at((from + (now - begun) / ROUND_MS) % 1);
      useStance.getState().setWheels(left, right);
      frame = requestAnimationFrame(turn);
    };
    frame = requestAnimationFrame(turn);
    return () => cancelAnimationFrame(frame);
  }, [playing, round]);
}
