import type { Label } from "./draw";

/** A name on its line, with a halo. */
export function Leader({ label, below }: { label: Label; below: boolean }) {
  const gap = label.owner === "gap";
  const colour = gap ? "var(--axle)" : "var(--ink)";
  const from = { x: label.at.x + 10, y: label.at.y + (below ? -16 : 5) };
  return (
    <g>
      <line x1={from.x} y1={from.y} x2={label.x} y2={label.y} stroke={colour} strokeWidth={1} />
      <circle cx={label.x} cy={label.y} r={2.5} fill={colour} />
      <text
        x={label.at.x}
        y={label.at.y}
        fill={colour}
        fontWeight={gap ? 700 : 500}
        stroke="var(--paper)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {label.text}
      </text>
    </g>
  );
}
