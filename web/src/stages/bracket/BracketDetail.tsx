import type { PlanOption, PlanResult } from "../../api/client";
import { Detail, DetailNote, ScaleMark } from "../../elevation/Detail";
import { useStance } from "../../elevation/stance";
import { useJob } from "../../job/useJob";
import { distance, withMarks } from "../../measure/format";
import { useSettings } from "../../ui/settings";
import { LinksDetail } from "../../walk/LinksDetail";
import { keyOf, lookedAt, useLookedAt, usePlanned } from "./usePlanned";

type End = "frame" | "axle";
const eyeOf = (option: PlanOption, end: End) => (end === "frame" ? option.frame_eye_mm : option.axle_eye_mm);
const far = (end: End): End => (end === "frame" ? "axle" : "frame");

/** What holds the axle sideways: the bracket at the bar's eye, or a Y-link. */
export function BracketDetail() {
  const { job } = useJob();
  return job.rig?.axle_location === "y_link" ? <LinksDetail /> : <HoleDetail />;
}

/** The bracket with its holes, the eye in its own, and how far it is from the old hole. */
function HoleDetail() {
  const { job, results } = useJob();
  const units = useSettings((s) => s.units);
  const face = useSettings((s) => s.face);
  const plan = usePlanned();
  const key = useLookedAt((s) => s.key);
  const travel = useStance((s) => s.travel) ?? results.elevation.driven_travel_mm;
  const here = lookedAt(plan, key, job.setups?.plans?.chosen);
  const none = plan?.options.find((o) => o.end === undefined && o.plan.bar === here?.plan.bar);
  if (!plan || !here || !none) return null;
  const end: End = here.end ?? "axle";
  const holes = holesOf(plan, here, end, none);
  const [y0 = 0, z0 = 0] = eyeOf(none, end);
  const [, z1 = 0] = eyeOf(here, end);
  const moved = z1 - z0;
  const says = `${here.name}: the eye ${moved === 0 ? "in the old hole" : `${distance(Math.abs(moved), units)} ${moved > 0 ? "over" : "under"} the old hole`}`;
  const down = travel - results.elevation.driven_travel_mm;
  return (
    <Detail says={says}>
      {({ width, height }) => {
        const zs = holes.map((hole) => eyeOf(hole, end)[1] ?? 0);
        const [low, high] = [Math.min(...zs), Math.max(...zs)];
        const k = Math.min(1.5, (height - 50) / (high - low + 40));
        const flip = face === "front" ? 1 : -1;
        // The bar leaves to one side, and what is said stands on the other.
        const [fy = 0, fz = 0] = eyeOf(here, far(end));
        const away = (fy - y0) * flip < 0 ? 1 : -1;
        const x = (y: number) => width * (0.5 - 0.08 * away) + (y - y0) * flip * k;
        const note = away > 0 ? width - 14 : 14;
        const y = (z: number) => height / 2 + ((low + high) / 2 - z) * k;
        const place = (option: PlanOption) => {
          const [py = 0, pz = 0] = eyeOf(option, end);
          return [x(py), y(pz)] as const;
        };
        const [ex, ey] = place(here);
        // The body goes down with bump.
        const towards = [x(fy), y(fz + (end === "axle" ? -down : down))] as const;
        const reach = Math.hypot(towards[0] - ex, towards[1] - ey) || 1;
        const out = [ex + ((towards[0] - ex) / reach) * 190, ey + ((towards[1] - ey) / reach) * 190] as const;
        return (
          <>
            <Plate holes={holes.map(place)} end={end} k={k} height={height} />
            <line x1={ex} y1={ey} x2={out[0]} y2={out[1]} stroke="var(--ink)" strokeWidth={26} />
            <line x1={ex} y1={ey} x2={out[0]} y2={out[1]} stroke="var(--marker)" strokeWidth={21} />
            {holes.map((hole) => (
              <Hole key={keyOf(hole)} at={place(hole)} k={k} used={hole === here} end={end} />
            ))}
            {moved !== 0 && <Rise x={x(y0) + away * 60} from={y(z0)} to={ey} />}
            <DetailNote x={note} y={20} end={away > 0} strong>
              {withMarks(here.name)}
            </DetailNote>
            {moved !== 0 && (
              <DetailNote x={note} y={40} end={away > 0}>
                {withMarks(
                  `${distance(Math.abs(moved), units)} ${moved > 0 ? "up" : "down"} from the old hole`,
                )}
              </DetailNote>
            )}
            <ScaleMark x={away > 0 ? width - 100 : 14} y={height - 10} k={k} units={units} />
          </>
        );
      }}
    </Detail>
  );
}

/** The old hole and the others on the same bracket, one each. */
function holesOf(plan: PlanResult, here: PlanOption, end: End, none: PlanOption): PlanOption[] {
  const same = plan.options.filter(
    (o) => o.end === end && o.plan.bar === here.plan.bar && o.plan[end]?.bracket === here.plan[end]?.bracket,
  );
  return here.end === undefined ? [none] : [none, ...same.filter((o) => o !== none)];
}

type PlateProps = { holes: (readonly [number, number])[]; end: End; k: number; height: number };

/** The plate the holes are in, standing on the axle or hanging from the frame. */
function Plate({ holes, end, k, height }: PlateProps) {
  const xs = holes.map(([x]) => x);
  const ys = holes.map(([, y]) => y);
  const half = 24 * k;
  const [left, right] = [Math.min(...xs) - half, Math.max(...xs) + half];
  const [top, bottom] = end === "axle" ? [Math.min(...ys) - half, height] : [0, Math.max(...ys) + half];
  return (
    <rect
      x={left}
      y={top}
      width={right - left}
      height={bottom - top}
      rx={8}
      fill={`var(--${end}-soft)`}
      stroke={`var(--${end})`}
      strokeWidth={1.75}
    />
  );
}

type HoleProps = { at: readonly [number, number]; k: number; used: boolean; end: End };

function Hole({ at: [cx, cy], k, used, end }: HoleProps) {
  const r = Math.max(6, 10 * k);
  if (!used)
    return (
      <circle cx={cx} cy={cy} r={r * 0.8} fill="var(--slate)" stroke={`var(--${end})`} strokeWidth={2} />
    );
  return end === "frame" ? (
    <rect
      x={cx - r}
      y={cy - r}
      width={2 * r}
      height={2 * r}
      fill="var(--frame)"
      stroke="var(--slate)"
      strokeWidth={2}
    />
  ) : (
    <circle cx={cx} cy={cy} r={r} fill="var(--axle)" stroke="var(--slate)" strokeWidth={2} />
  );
}

/** The dimension from the old hole to the eye. */
function Rise({ x, from, to }: { x: number; from: number; to: number }) {
  const tip = to < from ? 7 : -7;
  return (
    <g stroke="var(--ink)" strokeWidth={1.5} fill="none">
      <path d={`M ${x - 9} ${from} h 18 M ${x - 9} ${to} h 18 M ${x} ${from} V ${to}`} />
      <path d={`M ${x - 5} ${to + tip} L ${x} ${to} L ${x + 5} ${to + tip}`} />
    </g>
  );
}
