import type { WorkResult } from "./useWorked";

/** Where the bolts of a bracket are drawn, in a field of 200 by 150: seen from the side, not to scale. */
const PLACES = [
  { bolts: "main", x: 52, y: 52, radius: 17, name: "main bolt" },
  { bolts: "side", x: 126, y: 44, radius: 14, name: "side bolts" },
  { bolts: "small", x: 126, y: 86, radius: 11, name: "small bolts" },
] as const;
const EYE = { x: 52, y: 116, radius: 15, name: "the bar's own bolt" };

/** The bracket of the open step: each bolt with the number of the step that makes it tight. */
export function BracketOrder({ worked, open }: { worked: WorkResult; open: string }) {
  const end =
    open.split("/").find((word) => word === "frame" || word === "axle") ?? open.match(/frame|axle/)?.[0];
  const bolts = [
    ...PLACES.map((place) => ({ ...place, fastener: `${end}/${place.bolts}` })),
    { ...EYE, fastener: `bar/${end}-eye` },
  ].flatMap((place) => {
    const index = worked.steps.findIndex((step) => step.tightens.includes(place.fastener));
    const step = worked.steps[index];
    return step ? [{ ...place, step, number: index + 1 }] : [];
  });
  if (bolts.length < 2) return null;
  return (
    <figure className="grid grid-cols-[200px_minmax(0,1fr)] items-center gap-4" data-bracket-order={end}>
      <svg viewBox="0 0 200 150" className="block" role="img">
        <title>Bolt sequence on the bracket, not to scale</title>
        <path
          d="M22 20 H150 Q168 20 168 38 V96 Q168 110 152 110 H84 L72 138 H32 L22 118 Z"
          fill={end === "frame" ? "var(--frame-soft)" : "var(--axle-soft)"}
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        {bolts.map((bolt) => {
          const done = bolt.step.state === "done" || bolt.step.state === "changed";
          const here = bolt.step.key === open;
          return (
            <g key={bolt.fastener}>
              <circle
                cx={bolt.x}
                cy={bolt.y}
                r={bolt.radius}
                fill={here ? "var(--marker)" : done ? "var(--ink)" : "var(--slate)"}
                stroke="var(--ink)"
                strokeWidth={here ? 3 : 1.5}
              />
              <text
                x={bolt.x}
                y={bolt.y + 5}
                textAnchor="middle"
                fill={here ? "var(--on-marker)" : done ? "var(--slate)" : "var(--ink)"}
                className="font-bold text-[15px]"
              >
                {bolt.number}
              </text>
            </g>
          );
        })}
      </svg>
      <ol className="grid gap-0.5 text-[17px]">
        {[...bolts]
          .sort((a, b) => a.number - b.number)
          .map((bolt) => (
            <li key={bolt.fastener} className={bolt.step.key === open ? "font-bold" : ""}>
              {bolt.number}. {bolt.name}
            </li>
          ))}
      </ol>
    </figure>
  );
}
