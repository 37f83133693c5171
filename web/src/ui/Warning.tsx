import { ShieldAlert } from "lucide-react";
import type { ReactNode } from "react";

/** A warning, wherever one stands: the same sign, the same word first, then what to do and why. */
export function Warning({ children }: { children: ReactNode }) {
  return (
    <p className="flex gap-2 border-axle border-l-[5px] bg-paper py-1 pr-2 pl-2 leading-snug" data-warning>
      <ShieldAlert size={20} aria-hidden className="mt-0.5 shrink-0 text-axle" />
      <span>
        <b className="text-axle">Warning.</b> {children}
      </span>
    </p>
  );
}
