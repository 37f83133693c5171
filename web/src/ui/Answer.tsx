import type { ReactNode } from "react";
import { Figure } from "./Figure";

/** Longer than this it would push what follows off the screen. */
const LONG = 52;

/** The answer of a stage: one sentence, big enough to read from two metres. */
export function Answer({ says, children }: { says: string; children?: ReactNode }) {
  return (
    <div aria-live="polite">
      <h2
        className={`text-balance font-bold leading-[1.08] tracking-[-0.01em] ${says.length > LONG ? "text-[28px] sm:text-[32px]" : "text-[34px] sm:text-[40px]"}`}
        data-answer
      >
        <Figure>{says}</Figure>
      </h2>
      {children && <div className="mt-2 text-[18px] leading-snug">{children}</div>}
    </div>
  );
}
