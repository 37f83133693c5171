/** Which section of each stage is open, and which of its two faces. It belongs to this window, not to the job. */
import { create } from "zustand";

export type Face = "results" | "inputs";

type Opened = {
  sections: Record<string, string>;
  faces: Record<string, Face>;
  openSection: (of: string, section: string) => void;
  showFace: (of: string, section: string, face: Face) => void;
  shutAll: () => void;
};

export const useOpened = create<Opened>()((set) => ({
  sections: {},
  faces: {},
  openSection: (of, section) => set((s) => ({ sections: { ...s.sections, [of]: section } })),
  showFace: (of, section, face) => set((s) => ({ faces: { ...s.faces, [`${of}/${section}`]: face } })),
  shutAll: () => set({ sections: {}, faces: {} }),
}));
