import { useEffect } from "react";
import { useNavigate } from "react-router";
import { stickStep } from "../elevation/Stick";
import { useStance } from "../elevation/stance";
import { flipEnds, standing, strideTo, useLook } from "../elevation/walk/useLook";
import { settled, turned, VIEWS } from "../elevation/walk/views";
import { useSession } from "../job/session";
import { focusNextEmpty, isTaken } from "../ui/focus";
import { useSettings } from "../ui/settings";
import { STAGES } from "./stages";

function stepStick(direction: 1 | -1) {
  const sweep = useSession.getState().view?.results.bar?.sweep;
  const elevation = useSession.getState().view?.results.elevation;
  if (!elevation) return;
  const { travel, setTravel } = useStance.getState();
  const low = sweep?.[0]?.travel_mm ?? elevation.full_droop_mm;
  const high = sweep?.[sweep.length - 1]?.travel_mm ?? elevation.full_bump_mm;
  const to = (travel ?? elevation.driven_travel_mm) + direction * stickStep[useSettings.getState().units];
  setTravel(Math.max(low, Math.min(high, to)));
}

/** Degrees one walks round at a key. */
const STRIDE = 15;
const BELOW = VIEWS[4].look;

/** The keys of the work screens. */
export function useKeys(jobId: string, showKeys: () => void) {
  const navigate = useNavigate();
  useEffect(() => {
    const actions: Record<string, () => void> = {
      "[": () => stepStick(-1),
      "]": () => stepStick(1),
      Home: () => useStance.getState().setTravel(null),
      " ": () => useStance.getState().setPlaying(!useStance.getState().playing),
      f: flipEnds,
      ",": () => useLook.getState().walkTo(settled(turned(standing(), { turn: -STRIDE, tilt: 0 }))),
      ".": () => useLook.getState().walkTo(settled(turned(standing(), { turn: STRIDE, tilt: 0 }))),
      b: () => strideTo(BELOW),
      u: () => useSettings.getState().flipUnits(),
      n: focusNextEmpty,
      "?": showKeys,
    };
    const press = (event: KeyboardEvent) => {
      if (isTaken(event) || event.altKey) return;
      if (event.ctrlKey || event.metaKey) {
        if (event.key.toLowerCase() !== "z") return;
        event.preventDefault();
        void useSession.getState().step(event.shiftKey ? "redo" : "undo");
        return;
      }
      const stage = STAGES[Number(event.key) - 1];
      const action = stage
        ? () => navigate(`/jobs/${jobId}/${stage}`)
        : (actions[event.key] ?? actions[event.key.toLowerCase()]);
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [jobId, navigate, showKeys]);
}
