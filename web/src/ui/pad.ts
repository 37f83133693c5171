/** The field the fraction pad writes into. */
import { create } from "zustand";
import type { Unit } from "../api/client";

type Target = { label: string; unit: Unit; text: string; write: (text: string) => void; enter: () => void };

export const usePad = create<{ target: Target | null; aim: (target: Target | null) => void }>()((set) => ({
  target: null,
  aim: (target) => set({ target }),
}));
