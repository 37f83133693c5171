/** The travel in view. It belongs to this window, not to the job. */
import { create } from "zustand";

/** A figure of a pose that can be plotted over the travel. */
export type Plotted = "y_mm" | "pitch_deg" | "steer_deg" | "yaw_deg" | "roll_centre_mm" | "bind_mm";
/** What is gone through when it plays. */
export type Round = "heave" | "cross" | "around";

type Stance = {
  /** Travel from ride height in millimetres; null is the driven height. */
  travel: number | null;
  /** Wheel travels where they differ; null is both at `travel`. */
  crossed: { left: number; right: number } | null;
  /** What was picked to be looked at in this pose, by its name; moving on lets go of it. */
  picked: string | null;
  playing: boolean;
  round: Round;
  plotted: Plotted;
  /** Which bar is drawn. */
  shown: "found" | "planned";
  setTravel: (travel: number | null) => void;
  setWheels: (left: number, right: number, picked?: string) => void;
  setPlaying: (playing: boolean) => void;
  setRound: (round: Round) => void;
  setPlotted: (plotted: Plotted) => void;
  setShown: (shown: "found" | "planned") => void;
};

/** Wheels nearer to each other than this are alike. */
const ALIKE_MM = 0.5;

export const useStance = create<Stance>()((set) => ({
  travel: null,
  crossed: null,
  picked: null,
  playing: false,
  round: "heave",
  plotted: "y_mm",
  shown: "found",
  setTravel: (travel) => set({ travel, crossed: null, picked: null }),
  setWheels: (left, right, picked) =>
    set({
      picked: picked ?? null,
      travel: (left + right) / 2,
      crossed: Math.abs(left - right) < ALIKE_MM ? null : { left, right },
    }),
  setPlaying: (playing) => set({ playing }),
  setRound: (round) => set({ round }),
  setPlotted: (plotted) => set({ plotted }),
  setShown: (shown) => set({ shown }),
}));
