import { Detail, DetailNote, ScaleMark } from "../../elevation/Detail";
import { sideways, withMarks } from "../../measure/format";
import { useSettings } from "../../ui/settings";
import { useJob } from "../job/useJob";

/** Rows of the detail, from the top: their share of its height. */
const ROWS = { before: 0.3, predicted: 0.54, after: 0.78 } as const;

/** Before and after over each other about the frame's middle, sideways enlarged. */
export function ProveDetail() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const face = useSettings((s) => s.face);
  const { prove, tolerance_mm: tolerance } = results;
  const after = prove?.after?.offset_mm;
  if (!prove || after === undefined) return null;
  const { movement } = prove;
  const rows = [
    ...(movement ? [{ name: "before", mm: movement.before_mm, row: ROWS.before }] : []),
    ...(movement
      ? [{ name: "should be", mm: movement.before_mm + movement.predicted_mm, row: ROWS.predicted }]
      : []),
    { name: "now", mm: after, row: ROWS.after },
  ];
  return (
    <Detail says={`Before and after: now ${sideways(after, units)}`}>
      {({ width, height }) => {
        const most = Math.max(...rows.map(({ mm }) => Math.abs(mm)), 2 * tolerance);
        const k = Math.min(8, (width / 2 - 190) / most);
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
            {rows.map(({ name, mm, row }) => (
              <Axle
                key={name}
                at={x(mm)}
                y={row * height - 8}
                now={name === "now"}
                half={Math.min(120, width / 5)}
                width={width}
              >
                {withMarks(`${name} ${sideways(mm, units)}`)}
              </Axle>
            ))}
            <ScaleMark x={14} y={height - 8} k={k} units={units} />
          </>
        );
      }}
    </Detail>
  );
}

type AxleProps = { at: number; y: number; half: number; width: number; now: boolean; children: string };

/** Room its words take beside it. */
const WORDS = 170;

/** An axle's middle with a stretch of its tube: a ghost, or as it stands now. */
function Axle({ at, y, half, width, now, children }: AxleProps) {
  const left = at + half + WORDS > width;
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
      <DetailNote x={left ? at - half - 12 : at + half + 12} y={y + 5} end={left} strong={now}>
        {children}
      </DetailNote>
    </g>
  );
}
