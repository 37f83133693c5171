type Place = readonly [x: number, y: number];

type EyeBracketsProps = {
  frame: Place;
  axle: Place;
  /** Half an eye, in pixels. */
  eye: number;
  /** Level of the rails' underside and of the axle tube's top, in pixels. */
  rail: number;
  tube: number;
  line: number;
};

const points = (corners: readonly Place[]) => corners.map(([x, y]) => `${x},${y}`).join(" ");

/** What holds the bar's eyes: down from the rail, up from the tube; a plate about the eye where it is on either. */
export function EyeBrackets({ frame: [fx, fy], axle: [ax, ay], eye: e, rail, tube, line }: EyeBracketsProps) {
  const [under, over] = [Math.min(rail, fy - e * 1.3), Math.max(tube, ay + e * 1.3)];
  return (
    <g strokeWidth={line}>
      <polygon
        points={points([
          [fx - e * 1.9, under],
          [fx + e * 1.9, under],
          [fx + e * 1.3, fy + e * 1.3],
          [fx - e * 1.3, fy + e * 1.3],
        ])}
        fill="var(--frame-soft)"
        stroke="var(--frame)"
      />
      <polygon
        points={points([
          [ax - e * 1.4, ay - e * 1.4],
          [ax + e * 1.4, ay - e * 1.4],
          [ax + e * 1.9, over],
          [ax - e * 1.9, over],
        ])}
        fill="var(--axle-soft)"
        stroke="var(--axle)"
      />
    </g>
  );
}
