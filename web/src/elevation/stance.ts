/** The travel in view. It belongs to this window, not to the job. */
import { create } from "zustand";

type Stance = {
  /** Travel from ride height in millimetres; null is the driven height. */
  travel: number | null;
  playing: boolean;
  /** Which bar is drawn. */
  shown: "found" | "planned";
  setTravel: (travel: number | null) => void;
  setPlaying: (playing: boolean) => void;
  setShown: (shown: "found" | "planned") => void;
};

export const useStance = create<Stance>()((set) => ({
  travel: null,
  playing: false,
  shown: "found",
  setTravel: (travel) => set({ travel }),
  setPlaying: (playing) => set({ playing }),
  setShown: (shown) => set({ shown }),
}));
