import { type ReactNode, useRef } from "react";
import { useSize } from "./useSize";

type DetailProps = {
  /** What it shows, for whoever does not see it. */
  says: string;
  /** Draws it at the size there is. */
  children: (size: { width: number; height: number }) => ReactNode;
};

/** The enlarged drawing over the axle: what this stage sets, at its own marked scale. */
export function Detail({ says, children }: DetailProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  return (
    <div
      ref={box}
      className="h-[clamp(96px,19dvh,168px)] min-w-0 max-md:hidden [[data-short]_&]:hidden"
      data-detail
    >
      {size.width > 0 && size.height > 0 && (
        <svg width={size.width} height={size.height} className="block" role="img" aria-label={says}>
          {children(size)}
        </svg>
      )}
    </div>
  );
}

type ScaleProps = { x: number; y: number; k: number; units: "in" | "mm" };

/** A length to go by: an inch or twenty millimetres at the detail's own scale. */
export function ScaleMark({ x, y, k, units }: ScaleProps) {
  const long = (units === "in" ? 25.4 : 20) * k;
  return (
    <g stroke="var(--ink)" strokeWidth={1.5}>
      <path d={`M ${x} ${y - 5} v 10 M ${x} ${y} h ${long} M ${x + long} ${y - 5} v 10`} fill="none" />
      <text x={x + long + 6} y={y + 5} fontSize={14} fill="var(--ink)" stroke="none">
        {units === "in" ? "1 in" : "20 mm"}
      </text>
    </g>
  );
}

/** About how wide words of a detail are, in pixels: a little more than they take. */
export const noteWidth = (words: string) => words.length * 7.4;

type NoteProps = { x: number; y: number; end?: boolean; strong?: boolean; children: string };

/** Words in a detail, with a halo. */
export function DetailNote({ x, y, end = false, strong = false, children }: NoteProps) {
  return (
    <text
      x={x}
      y={y}
      fontSize={15}
      fontWeight={strong ? 700 : 500}
      textAnchor={end ? "end" : "start"}
      fill="var(--ink)"
      stroke="var(--paper)"
      strokeWidth={4}
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}
