import type { Schemas } from "../../api/client";
import { Detail, DetailNote, ScaleMark } from "../../elevation/Detail";
import { useStance } from "../../elevation/stance";
import { useJob } from "../../job/useJob";
import { distance, fine, withMarks } from "../../measure/format";
import { at } from "../../measure/travel";
import { useSettings } from "../../ui/settings";
import { LinksDetail } from "../../walk/LinksDetail";

type EndAfter = Schemas["EndAfter"];

/** Half of the sleeve that is drawn beside each end, mm. */
const BODY = 70;
const EYE = 20;

/** Both threaded ends of the bar with what stays in, leaning as the bar does at the stick. */
export function BarDetail() {
  const { results } = useJob();
  return results.bar ? <EndsDetail bar={results.bar} /> : <LinksDetail />;
}

function EndsDetail({ bar }: { bar: Schemas["BarResult"] }) {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const face = useSettings((s) => s.face);
  const { travel, shown } = useStance();
  const { elevation } = results;
  const sample = at(bar.sweep, travel ?? elevation.driven_travel_mm);
  // Nothing is drawn as set where it is not decided yet what is set.
  const correction = bar.correction?.decide_first ? undefined : bar.correction;
  const asFound = shown === "found" || !correction;
  const angle = (asFound ? sample?.found_angle_deg : sample?.planned_angle_deg) ?? 0;
  const ends = (correction?.setting?.ends ?? []).filter((end) => end.engagement_after_mm !== undefined);
  const length = correction?.length_mm ?? bar.found.length_mm;
  // The frame eye is on the right of the picture where the vehicle's left is and the eye with it.
  const flipped = (elevation.frame_eye_side === "left") === (face === "front");
  const says = `The bar's ends, close up: ${fine(length, units)} eye to eye`;
  return (
    <Detail says={says}>
      {({ width, height }) => {
        const stick = Math.max(...ends.map((end) => shankOf(end)), 40);
        const k = Math.min(1.6, (width / 2 - 70) / (BODY + stick + 2 * EYE));
        const turn = flipped ? -angle : angle;
        return (
          <>
            <g transform={`translate(${width / 2} ${height / 2 + 6})`}>
              <line
                x1={-width / 2 + 20}
                x2={width / 2 - 20}
                y1={0}
                y2={0}
                stroke="var(--muted)"
                strokeDasharray="3 5"
              />
              <g transform={`rotate(${turn})`}>
                <End end={ends[0]} k={k} way={flipped ? 1 : -1} frame reach={width / 2 - 60} />
                <End
                  end={ends[ends.length > 1 ? 1 : 0]}
                  k={k}
                  way={flipped ? -1 : 1}
                  frame={false}
                  reach={width / 2 - 60}
                  still={ends.length === 1}
                />
              </g>
            </g>
            {ends.length > 0 && <ScaleMark x={14} y={turn < 0 ? 12 : height - 10} k={k} units={units} />}
            <DetailNote x={width - 14} y={turn < 0 ? height - 5 : 16} end>
              {withMarks(ends.length > 0 ? inWords(ends, units) : `${fine(length, units)} eye to eye`)}
            </DetailNote>
          </>
        );
      }}
    </Detail>
  );
}

const shankOf = (end: EndAfter) => (end.full_depth_mm ?? (end.engagement_after_mm ?? 0) + 25) + 10;

function inWords(ends: EndAfter[], units: "in" | "mm"): string {
  const each = ends.map((end) => distance(Math.max(0, end.engagement_after_mm ?? 0), units));
  const alike = each.every((text) => text === each[0]);
  return alike
    ? `${each[0]} of thread stays engaged${each.length > 1 ? " at each end" : ""}`
    : `${each.join(", ")} of thread stay in`;
}

type EndProps = {
  end: EndAfter | undefined;
  k: number;
  /** −1 to the left of the picture, 1 to the right. */
  way: 1 | -1;
  frame: boolean;
  /** From the middle to the eye, px. */
  reach: number;
  /** This end does not turn. */
  still?: boolean;
};

/** One end from the sleeve outward: the body, the thread in it, what stands out, the eye. */
function End({ end, k, way, frame, reach, still = false }: EndProps) {
  const [body, rod] = [34 * Math.min(1, k), 20 * Math.min(1, k)];
  const eye = EYE * Math.max(0.7, Math.min(1, k));
  const inside = still ? undefined : end?.engagement_after_mm;
  const mouth = inside === undefined ? reach - eye : reach - eye - 46;
  return (
    <g transform={`scale(${way} 1)`} strokeLinejoin="round">
      <rect
        x={0}
        y={-body / 2}
        width={mouth}
        height={body}
        fill="var(--marker)"
        stroke="var(--ink)"
        strokeWidth={1.75}
      />
      {inside !== undefined && end && (
        <>
          <rect
            x={mouth - Math.max(0, inside) * k}
            y={-rod / 2}
            width={reach - mouth + Math.max(0, inside) * k - eye}
            height={rod}
            fill="var(--slate)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <Thread from={mouth - Math.max(0, inside) * k} to={reach - eye} half={rod / 2} />
          <line
            x1={mouth - end.least_engagement_mm * k}
            x2={mouth - end.least_engagement_mm * k}
            y1={-body / 2 - 7}
            y2={body / 2 + 7}
            stroke={end.enough === false ? "var(--axle)" : "var(--frame)"}
            strokeWidth={2.5}
          />
          <text
            transform={`translate(${mouth - end.least_engagement_mm * k} ${-body / 2 - 10}) scale(${way} 1)`}
            textAnchor="middle"
            fontSize={13}
            fill="var(--ink)"
          >
            least
          </text>
        </>
      )}
      {frame ? (
        <rect
          x={reach - eye}
          y={-eye}
          width={2 * eye}
          height={2 * eye}
          fill="var(--frame)"
          stroke="var(--slate)"
          strokeWidth={1.75}
        />
      ) : (
        <circle cx={reach} cy={0} r={eye} fill="var(--axle)" stroke="var(--slate)" strokeWidth={1.75} />
      )}
    </g>
  );
}

function Thread({ from, to, half }: { from: number; to: number; half: number }) {
  const pitch = 6;
  const turns = Math.max(0, Math.floor((to - from) / pitch));
  return (
    <g stroke="var(--ink)" strokeWidth={0.9}>
      {Array.from({ length: turns }, (_, index) => {
        const x = from + index * pitch + 2;
        return <line key={index} x1={x} x2={x + 2.5} y1={-half} y2={half} />;
      })}
    </g>
  );
}
