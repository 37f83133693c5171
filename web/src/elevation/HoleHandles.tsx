import { useDrag } from "@use-gesture/react";
import { type RefObject, useState } from "react";
import type { HolePlace } from "../api/client";

type HoleHandlesProps = {
  /** The bracket's holes with their places in the picture. */
  holes: readonly (HolePlace & { place: readonly [number, number] })[];
  end: "frame" | "axle";
  canvas: RefObject<SVGSVGElement | null>;
  /** While it is moved, with the hole's id. */
  onTry: (id: string) => void;
  /** Once it is let go. */
  onPut: (id: string) => void;
};

const nameOf = ({ name }: HolePlace) => name || "current hole";

/** An eye that can be grasped and moved from hole to hole. */
export function HoleHandles({ holes: given, end, canvas, onTry, onPut }: HoleHandlesProps) {
  const [held, setHeld] = useState(false);
  // Lowest first: a key up goes to the next hole up, whatever order they were listed in.
  const holes = [...given].sort((a, b) => b.place[1] - a.place[1]);
  const chosen = Math.max(
    0,
    holes.findIndex((hole) => hole.chosen),
  );
  const bind = useDrag(
    ({ xy: [pageX, pageY], last, event }) => {
      event.preventDefault();
      const edge = canvas.current?.getBoundingClientRect();
      if (!edge) return;
      const far = (hole: (typeof holes)[number]) =>
        Math.hypot(hole.place[0] - (pageX - edge.left), hole.place[1] - (pageY - edge.top));
      const nearest = holes.reduce((best, hole) => (far(hole) < far(best) ? hole : best));
      setHeld(!last);
      if (last) onPut(nearest.id);
      else onTry(nearest.id);
    },
    { pointer: { keys: false } },
  );
  const here = holes[chosen];
  if (!here) return null;
  const colour = end === "axle" ? "var(--axle)" : "var(--frame)";
  const step = (by: number) => {
    const to = holes[Math.max(0, Math.min(holes.length - 1, chosen + by))];
    if (to) onPut(to.id);
  };
  return (
    <g>
      {holes.map((hole) => (
        <circle
          key={hole.id}
          cx={hole.place[0]}
          cy={hole.place[1]}
          r={hole.chosen ? 9 : 6}
          fill={hole.chosen ? "var(--marker)" : "var(--slate)"}
          stroke={colour}
          strokeWidth={2.2}
          data-hole={nameOf(hole)}
        />
      ))}
      <circle
        cx={here.place[0]}
        cy={here.place[1]}
        r={24}
        fill="transparent"
        stroke={held ? "var(--ink)" : "transparent"}
        strokeDasharray="4 3"
        className="cursor-grab touch-none"
        role="slider"
        tabIndex={0}
        aria-label={`${end} end of the bar`}
        aria-valuemin={1}
        aria-valuemax={holes.length}
        aria-valuenow={chosen + 1}
        aria-valuetext={nameOf(here)}
        data-eye={end}
        {...bind()}
        onKeyDown={(event) => {
          const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
          if (by === undefined) return;
          event.preventDefault();
          step(by);
        }}
      />
    </g>
  );
}
