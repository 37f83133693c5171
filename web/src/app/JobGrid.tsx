import { useVirtualizer } from "@tanstack/react-virtual";
import { type RefObject, useEffect, useRef } from "react";
import type { JobLine } from "../api/client";
import { useSize } from "../elevation/useSize";
import { JobCard } from "./JobCard";

const LEAST_CARD = 290;
const GAP = 12;
/** Before it is measured. */
const ROW = 340;

type JobGridProps = {
  lines: readonly JobLine[];
  /** What scrolls. */
  scroller: RefObject<HTMLElement | null>;
  /** Called when the last of them come into view. */
  onEnd: () => void;
};

/** The cards of the bay: only those in view are drawn, however many there are. */
export function JobGrid({ lines, scroller, onEnd }: JobGridProps) {
  const box = useRef<HTMLUListElement>(null);
  const { width } = useSize(box);
  const columns = Math.max(1, Math.floor((width + GAP) / (LEAST_CARD + GAP)));
  const rows = Math.ceil(lines.length / columns);
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    gap: GAP,
    overscan: 4,
    scrollMargin: box.current?.offsetTop ?? 0,
    enabled: width > 0,
  });
  const shown = virtual.getVirtualItems();
  const last = shown[shown.length - 1]?.index ?? -1;
  useEffect(() => {
    if (rows > 0 && last >= rows - 3) onEnd();
  }, [last, rows, onEnd]);
  return (
    <ul ref={box} className="relative w-full" style={{ height: virtual.getTotalSize() }} data-grid={columns}>
      {shown.map((row) => (
        <li
          key={row.key}
          ref={virtual.measureElement}
          data-index={row.index}
          className="absolute top-0 left-0 w-full"
          style={{ transform: `translateY(${row.start - virtual.options.scrollMargin}px)` }}
        >
          <ul className="grid gap-3" style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
            {lines.slice(row.index * columns, (row.index + 1) * columns).map((line) => (
              <JobCard key={line.id} line={line} />
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}
