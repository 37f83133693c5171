import type { Unit } from "../../api/client";
import { distance, withMarks } from "../../measure/format";
import type { Named } from "./draw";
import type { Near } from "./near";
import type { Camera } from "./space";

/** The nearest gap, drawn across it. */
export function NearLine({ near, view }: { near: Near; view: Camera }) {
  const [a, b] = near.points.map(view.spot);
  if (!a || !b) return null;
  return (
    <g data-near>
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--axle)" strokeWidth={3.5} />
      {[a, b].map((end, index) => (
        <circle key={index} cx={end.x} cy={end.y} r={3.5} fill="var(--axle)" />
      ))}
    </g>
  );
}

/** Its name on a leader: the figure, and between what. */
export function nameOfNear(near: Near, view: Camera, units: Unit): Named[] {
  const [a, b] = near.points.map(view.spot);
  if (!a || !b) return [];
  const says = near.gap_mm < 0 ? "hits" : distance(near.gap_mm, units);
  const text = withMarks(`closest: ${says}, ${near.between}`);
  return [{ text, x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, owner: "gap" }];
}
