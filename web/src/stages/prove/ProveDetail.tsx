import type { Results } from "../../api/client";
import { Detail, DetailNote, noteWidth, ScaleMark } from "../../elevation/Detail";
import { useJob } from "../../job/useJob";
import { sideways, withMarks } from "../../measure/format";
import { at } from "../../measure/travel";
import { useSettings } from "../../ui/settings";
import { LinksDetail } from "../../walk/LinksDetail";

/** Rows of the detail, from the top: their share of its height. */
const ROWS = { before: 0.3, predicted: 0.54, after: 0.78 } as const;

/** Before and after over each other about the frame's middle, sideways enlarged. */
export function ProveDetail() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const face = useSettings((s) => s.face);
  const { tolerance_mm: tolerance } = results;
  const rows = rowsOf(results);
  const last = rows[rows.length - 1];
  if (!last) return <LinksDetail />;
  return (
    <Detail says={`Before and after: ${last.name} ${sideways(last.mm, units)}`}>
      {({ width, height }) => {
        const most = Math.max(...rows.map(({ mm }) => Math.abs(mm)), 2 * tolerance);
        const words = rows.map(({ name, mm }) => withMarks(`${name} ${sideways(mm, units)}`));
        // Half of the width is enough for words, beside half an axle.
        const half = Math.max(30, Math.min(120, width / 2 - BESIDE - Math.max(...words.map(noteWidth))));
        // Outward of its axle where there is room, so that nothing is written over the middle.
        const inward = (at: number, said: string, toLeft: boolean) =>
          noteWidth(said) > (toLeft ? at : width - at) - half - BESIDE;
        const k = Math.min(8, (width / 2 - half - 20) / most);
        const flip = face === "front" ? 1 : -1;
        const x = (mm: number) => width / 2 + mm * flip * k;
        return (
          <>
            <rect
              x={width / 2 - tolerance * k}
              y={8}
              width={2 * tolerance * k}
              height={height - 26}
              fill="var(--gap)"
            />
            <line
              x1={width / 2}
              x2={width / 2}
              y1={4}
              y2={height - 14}
              stroke="var(--frame)"
              strokeWidth={1.5}
              strokeDasharray="12 4 2 4"
            />
            {rows.map(({ name, mm, row }, index) => (
              <Axle
                key={name}
                at={x(mm)}
                y={row * height - 8}
                now={name === "now" || name === "as found"}
                half={half}
                left={inward(x(mm), words[index] ?? "", mm * flip < 0) === mm * flip >= 0}
              >
                {words[index] ?? ""}
              </Axle>
            ))}
            <ScaleMark x={14} y={height - 8} k={k} units={units} />
          </>
        );
      }}
    </Detail>
  );
}

/** From an axle's end to its words. */
const BESIDE = 12;

type Row = { name: string; mm: number; row: number };

/** Where the axle was, should be and is; before anything was proved, as found and as planned. */
function rowsOf({ prove, bar, sheets, elevation }: Results): Row[] {
  const after = prove?.after?.offset_mm;
  const movement = prove?.movement;
  if (after !== undefined) {
    const moved = movement && [
      { name: "before", mm: movement.before_mm, row: ROWS.before },
      { name: "should be", mm: movement.before_mm + movement.predicted_mm, row: ROWS.predicted },
    ];
    return [...(moved ?? []), { name: "now", mm: after, row: ROWS.after }];
  }
  const read = sheets.findLast((sheet) => sheet.centring)?.centring;
  const planned = bar?.correction && at(bar.sweep, elevation.driven_travel_mm)?.planned_mm;
  return [
    ...(read ? [{ name: "as found", mm: read.offset_mm, row: ROWS.before }] : []),
    ...(planned === undefined ? [] : [{ name: "plan", mm: planned, row: ROWS.predicted }]),
  ];
}

type AxleProps = {
  at: number;
  y: number;
  half: number;
  now: boolean;
  /** Whether its words stand on its left. */
  left: boolean;
  children: string;
};

/** An axle's middle with a stretch of its tube: a ghost, or as it stands now. */
function Axle({ at, y, half, now, left, children }: AxleProps) {
  return (
    <g>
      <line
        x1={at - half}
        x2={at + half}
        y1={y}
        y2={y}
        stroke="var(--axle)"
        strokeWidth={now ? 9 : 2}
        strokeDasharray={now ? undefined : "8 5"}
        strokeLinecap="round"
      />
      <circle
        cx={at}
        cy={y}
        r={now ? 9 : 6}
        fill={now ? "var(--axle)" : "var(--slate)"}
        stroke="var(--axle)"
        strokeWidth={2}
      />
      <DetailNote x={left ? at - half - BESIDE : at + half + BESIDE} y={y + 5} end={left} strong={now}>
        {children}
      </DetailNote>
    </g>
  );
}
