import type { ReactNode } from "react";
import type { Purpose } from "./purposes";

const TYRE = { width: 13, height: 42, rx: 4, fill: "var(--tyre)", stroke: "var(--ink)" };

/** An axle from its end, moved sideways by so much. */
function Axle({ by = 0 }: { by?: number }) {
  return (
    <g transform={`translate(${by} 0)`}>
      <rect x={22} y={50} width={76} height={9} fill="var(--axle-soft)" stroke="var(--axle)" />
      <circle cx={72} cy={54} r={11} fill="var(--axle-soft)" stroke="var(--axle)" />
      <rect x={10} y={34} {...TYRE} />
      <rect x={97} y={34} {...TYRE} />
    </g>
  );
}

const Rails = () => (
  <g fill="var(--frame-soft)" stroke="var(--frame)">
    <rect x={34} y={10} width={9} height={15} />
    <rect x={77} y={10} width={9} height={15} />
    <rect x={43} y={13} width={34} height={5} fill="none" />
  </g>
);

type BarProps = { from: [number, number]; to: [number, number]; ghost?: boolean };

function Bar({ from, to, ghost }: BarProps) {
  const line = { x1: from[0], y1: from[1], x2: to[0], y2: to[1], strokeLinecap: "round" as const };
  if (ghost) return <line {...line} stroke="var(--muted)" strokeWidth={2} strokeDasharray="5 4" />;
  return (
    <g>
      <line {...line} stroke="var(--ink)" strokeWidth={7} />
      <line {...line} stroke="var(--marker)" strokeWidth={4} />
      <rect x={from[0] - 4} y={from[1] - 4} width={8} height={8} fill="var(--frame)" />
      <circle cx={to[0]} cy={to[1]} r={4.5} fill="var(--axle)" />
    </g>
  );
}

const Arrow = ({ d }: { d: string }) => (
  <path d={d} fill="none" stroke="var(--ink)" strokeWidth={2} markerEnd="url(#purpose-arrow)" />
);

const DRAWN = {
  centre_axle: (
    <>
      <line x1={60} x2={60} y1={4} y2={78} stroke="var(--frame)" strokeDasharray="8 3 2 3" />
      <Rails />
      <Axle by={8} />
      <Arrow d="M 92 68 H 66" />
    </>
  ),
  level_bar: (
    <>
      <Rails />
      <Axle />
      <Bar from={[82, 24]} to={[36, 50]} ghost />
      <Bar from={[82, 27]} to={[36, 33]} />
      <Arrow d="M 30 50 V 37" />
    </>
  ),
  clear_something: (
    <>
      <Rails />
      <Axle />
      <rect x={50} y={22} width={22} height={14} rx={3} fill="var(--frame-soft)" stroke="var(--frame)" />
      <Bar from={[82, 26]} to={[36, 44]} />
      <circle
        cx={61}
        cy={35}
        r={10}
        fill="none"
        stroke="var(--axle)"
        strokeWidth={2.5}
        strokeDasharray="4 3"
      />
    </>
  ),
  fit_sway_links: (
    <>
      <g strokeLinecap="round">
        <line x1={96} y1={18} x2={40} y2={32} stroke="var(--ink)" strokeWidth={10} />
        <line x1={96} y1={18} x2={40} y2={32} stroke="var(--frame-soft)" strokeWidth={7} />
        <line x1={40} y1={32} x2={36} y2={68} stroke="var(--ink)" strokeWidth={8} />
        <line x1={40} y1={32} x2={36} y2={68} stroke="var(--marker)" strokeWidth={5} />
      </g>
      <rect x={90} y={12} width={12} height={12} fill="var(--frame)" />
      <circle cx={36} cy={68} r={5.5} fill="var(--axle)" />
      <path d="M 22 32 h -8 M 22 68 h -8 M 18 34 V 66" stroke="var(--ink)" strokeWidth={1.5} />
    </>
  ),
  choose_sway_bar: (
    <>
      <g strokeLinecap="round" fill="none">
        <path d="M 24 52 L 34 20 H 86 L 96 52" stroke="var(--ink)" strokeWidth={10} />
        <path d="M 24 52 L 34 20 H 86 L 96 52" stroke="var(--frame)" strokeWidth={7} />
        <line x1={24} y1={54} x2={24} y2={76} stroke="var(--marker)" strokeWidth={5} />
        <line x1={104} y1={62} x2={112} y2={40} stroke="var(--marker)" strokeWidth={5} />
      </g>
      <circle cx={96} cy={54} r={4} fill="none" stroke="var(--ink)" strokeWidth={2} />
    </>
  ),
  convert_to_y_link: (
    <>
      <rect x={14} y={62} width={92} height={9} fill="var(--axle-soft)" stroke="var(--axle)" />
      <g strokeLinecap="round">
        <line x1={32} y1={12} x2={60} y2={54} stroke="var(--ink)" strokeWidth={8} />
        <line x1={88} y1={12} x2={60} y2={54} stroke="var(--ink)" strokeWidth={8} />
        <line x1={32} y1={12} x2={60} y2={54} stroke="var(--marker)" strokeWidth={5} />
        <line x1={88} y1={12} x2={60} y2={54} stroke="var(--marker)" strokeWidth={5} />
      </g>
      <rect x={26} y={6} width={12} height={12} fill="var(--frame)" />
      <rect x={82} y={6} width={12} height={12} fill="var(--frame)" />
      <circle cx={60} cy={58} r={6} fill="var(--axle)" />
    </>
  ),
  swap_bar: (
    <>
      <Rails />
      <Axle />
      <Bar from={[82, 27]} to={[36, 40]} />
      <g strokeLinecap="round" strokeDasharray="5 4">
        <line x1={82} y1={50} x2={36} y2={63} stroke="var(--muted)" strokeWidth={5} />
      </g>
      <Arrow d="M 96 52 V 36" />
    </>
  ),
  check_work: (
    <>
      <Rails />
      <Axle />
      <Bar from={[82, 27]} to={[36, 40]} />
      <path d="M 46 66 l 10 10 l 22 -26" fill="none" stroke="var(--ink)" strokeWidth={6} />
      <path d="M 46 66 l 10 10 l 22 -26" fill="none" stroke="var(--gap)" strokeWidth={3} />
    </>
  ),
} satisfies Record<Purpose, ReactNode>;

/** What is to be done, as a picture in the marks of the work screens. */
export function PurposePicture({ purpose }: { purpose: Purpose }) {
  return (
    <svg viewBox="0 0 120 82" className="h-24 w-full sm:h-28" aria-hidden>
      <defs>
        <marker
          id="purpose-arrow"
          viewBox="0 0 8 8"
          refX={5}
          refY={4}
          markerWidth={5}
          markerHeight={5}
          orient="auto"
        >
          <path d="M 0 0 L 8 4 L 0 8 z" fill="var(--ink)" />
        </marker>
      </defs>
      {DRAWN[purpose]}
    </svg>
  );
}
