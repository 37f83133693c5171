import { CircleHelp, OctagonAlert, TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";

const KINDS = {
  refused: { word: "Can't use", icon: OctagonAlert, look: "border-axle" },
  warning: { word: "Check again", icon: TriangleAlert, look: "border-marker" },
  question: { word: "Still needed", icon: CircleHelp, look: "border-frame" },
} satisfies Record<string, { word: string; icon: typeof OctagonAlert; look: string }>;

/** A word, a sign, and what to do. */
export function Notice({ kind, children }: { kind: keyof typeof KINDS; children: ReactNode }) {
  const { word, icon: Icon, look } = KINDS[kind];
  return (
    <div className={`flex gap-2 border-l-[5px] bg-paper py-1.5 pr-2 pl-2.5 leading-snug ${look}`}>
      <Icon size={20} aria-hidden className="mt-0.5 shrink-0" />
      <p>
        <b>{word}.</b> {children}
      </p>
    </div>
  );
}
