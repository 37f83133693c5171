/** Where the tape goes for a point: up from the floor, out from the middle, forward of the axle. */
export function PointPicture() {
  return (
    <svg
      viewBox="0 0 392 130"
      className="mb-2 w-full bg-paper"
      role="img"
      aria-label="Three measurements to a point: up from the floor, sideways from the centerline, forward of the axle center"
    >
      <g fontSize={14} fill="var(--ink)">
        <line x1={8} y1={116} x2={384} y2={116} stroke="var(--ink)" strokeWidth={1.5} />
        <line
          x1={60}
          y1={10}
          x2={60}
          y2={116}
          stroke="var(--frame)"
          strokeWidth={1.3}
          strokeDasharray="10 4 2 4"
        />
        <text x={60} y={128} textAnchor="middle">
          middle
        </text>
        <rect x={150} y={44} width={13} height={13} fill="var(--frame)" />
        <line x1={156} y1={58} x2={156} y2={115} stroke="var(--axle)" strokeWidth={3} />
        <text x={164} y={92}>
          height
        </text>
        <line x1={61} y1={50} x2={149} y2={50} stroke="var(--axle)" strokeWidth={3} />
        <text x={105} y={42} textAnchor="middle">
          sideways
        </text>
        <circle
          cx={262}
          cy={84}
          r={32}
          fill="none"
          stroke="var(--tyre)"
          strokeWidth={2}
          strokeDasharray="3 4"
        />
        <circle cx={262} cy={84} r={6} fill="var(--axle)" />
        <rect x={346} y={44} width={13} height={13} fill="var(--frame)" />
        <line x1={262} y1={84} x2={262} y2={22} stroke="var(--line)" strokeWidth={1.5} />
        <line x1={352} y1={44} x2={352} y2={22} stroke="var(--line)" strokeWidth={1.5} />
        <line x1={263} y1={26} x2={351} y2={26} stroke="var(--axle)" strokeWidth={3} />
        <text x={307} y={18} textAnchor="middle">
          fore and aft
        </text>
      </g>
    </svg>
  );
}
