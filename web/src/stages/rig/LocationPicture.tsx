import type { Schemas } from "../../api/client";

type Location = Schemas["AxleLocation"];

/** Links of each kind from above, axle across the middle: [x, y] from the axle's middle. */
const PLANS = {
  leaf_springs: [],
  radius_arms: [
    [
      [-26, 0],
      [-20, 46],
    ],
    [
      [26, 0],
      [20, 46],
    ],
  ],
  three_arms: [
    [
      [-28, 0],
      [-22, 46],
    ],
    [
      [28, 0],
      [22, 46],
    ],
    [
      [-14, -2],
      [-16, 34],
    ],
  ],
  four_arms: [
    [
      [-28, 0],
      [-22, 46],
    ],
    [
      [28, 0],
      [22, 46],
    ],
    [
      [-9, -2],
      [-18, 34],
    ],
    [
      [9, -2],
      [18, 34],
    ],
  ],
  y_link: [
    [
      [-28, 0],
      [-22, 46],
    ],
    [
      [28, 0],
      [22, 46],
    ],
    [
      [0, -2],
      [-18, 34],
    ],
    [
      [0, -2],
      [18, 34],
    ],
  ],
} satisfies Record<Location, readonly (readonly [readonly [number, number], readonly [number, number]])[]>;

/** What holds the axle fore and aft, seen from above. */
export function LocationPicture({ location }: { location: Location }) {
  const links: readonly (readonly (readonly number[])[])[] = PLANS[location];
  return (
    <svg viewBox="-50 -22 100 80" className="h-16 w-20" aria-hidden>
      <rect x={-48} y={-14} width={12} height={28} rx={3} fill="var(--tyre)" />
      <rect x={36} y={-14} width={12} height={28} rx={3} fill="var(--tyre)" />
      <rect x={-36} y={-4} width={72} height={8} fill="var(--axle-soft)" stroke="var(--axle)" />
      {location === "leaf_springs" &&
        [-24, 24].map((x) => (
          <g key={x}>
            {[0, 1, 2].map((leaf) => (
              <rect
                key={leaf}
                x={x - 3}
                y={-20 + leaf * 5}
                width={6}
                height={66 - leaf * 14}
                fill="none"
                stroke="var(--ink)"
              />
            ))}
          </g>
        ))}
      {links.map(([from, to]) => (
        <g key={`${from}${to}`}>
          <line
            x1={from?.[0]}
            y1={from?.[1]}
            x2={to?.[0]}
            y2={to?.[1]}
            stroke="var(--ink)"
            strokeWidth={3.5}
          />
          <circle cx={from?.[0]} cy={from?.[1]} r={3} fill="var(--axle)" />
          <rect x={(to?.[0] ?? 0) - 3} y={(to?.[1] ?? 0) - 3} width={6} height={6} fill="var(--frame)" />
        </g>
      ))}
      {location !== "y_link" && (
        <line x1={-30} y1={-10} x2={30} y2={-10} stroke="var(--marker)" strokeWidth={3.5} />
      )}
    </svg>
  );
}
