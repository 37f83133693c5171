import { type Label, labels, type Named } from "./draw";

/** A name on its line, with a halo. */
export function Leader({ label, below }: { label: Label; below: boolean }) {
  const gap = label.owner === "gap";
  const colour = gap ? "var(--axle)" : "var(--ink)";
  const from = { x: label.leaves, y: label.at.y + (below ? -16 : 5) };
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

/** Names over and under a picture, on leaders that do not cross. */
export function Names({ named, width, height }: { named: readonly Named[]; width: number; height: number }) {
  return (
    <g fontSize={15} data-names>
      {labels(named, width, 18, height - 10).map((label) => (
        <Leader key={label.text} label={label} below={label.at.y > height / 2} />
      ))}
    </g>
  );
}
