/** What a person prefers on this device. Never part of a job. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Unit } from "../api/client";

type Settings = {
  units: Unit;
  theme: "paper" | "night";
  face: "front" | "rear";
  pad: boolean;
  flipUnits: () => void;
  flipFace: () => void;
  flipTheme: () => void;
  flipPad: () => void;
};

const coarse = typeof matchMedia === "function" && matchMedia("(pointer: coarse)").matches;

export const useSettings = create<Settings>()(
  persist(
    (set) => ({
      units: "in",
      theme: "paper",
      face: "front",
      pad: coarse,
      flipUnits: () => set((s) => ({ units: s.units === "in" ? "mm" : "in" })),
      flipFace: () => set((s) => ({ face: s.face === "front" ? "rear" : "front" })),
      flipTheme: () => set((s) => ({ theme: s.theme === "paper" ? "night" : "paper" })),
      flipPad: () => set((s) => ({ pad: !s.pad })),
    }),
    { name: "derecho.settings" },
  ),
);
