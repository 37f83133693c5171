import type { Schemas } from "../../api/client";
import { Detail, DetailNote, noteWidth } from "../../elevation/Detail";
import { useJob } from "../../job/useJob";
import { distance, withMarks } from "../../measure/format";
import { useSettings } from "../../ui/settings";

type Method = NonNullable<Schemas["Sheet"]["method"]>;

/** The two faces the tape lies between, for each way of reading. */
const FACES = {
  frame_to_hub: ["outer face of the rail", "face of the hub"],
  frame_to_sidewall: ["outer face of the rail", "straightedge on the sidewall"],
  body_to_sidewall: ["plumb line from the body", "sidewall"],
  own: ["the same reference point left and right", "the same on the axle"],
} satisfies Record<Method, readonly [string, string]>;

/** One wheel from the end, enlarged, with the tape between its two faces and what both sides read. */
export function TapeDetail() {
  const { job, results } = useJob();
  const units = useSettings((s) => s.units);
  const sheet = job.sheets?.findLast((s) => (s.kind ?? "centring") === "centring");
  const read = results.sheets.find((r) => r.id === sheet?.id)?.centring;
  const method: Method = sheet?.method ?? "frame_to_hub";
  const [from, to] = FACES[method];
  const means = read && [read.left_mean_mm, read.right_mean_mm].map((mm) => distance(mm, units));
  const reads = means && withMarks(`left measures ${means[0]}, right ${means[1]}`);
  return (
    <Detail says={`The tape goes from the ${from} to the ${to}`}>
      {({ width, height }) => {
        const k = height / 120;
        const x0 = Math.max(30, width / 2 - 190 * k);
        const at = (x: number, y: number) => [x0 + x * k, y * k] as const;
        // Beside the drawing, and never out of it.
        const beside = (words: string) => Math.min(x0 + 232 * k, width - 4 - noteWidth(words));
        const low = method === "frame_to_sidewall" ? 40 : 78;
        const plumb = method === "body_to_sidewall";
        const a = plumb ? at(40, 14) : at(150, low);
        const b = plumb ? at(40, 92) : method === "frame_to_sidewall" ? at(76, low) : at(96, low);
        return (
          <>
            <Wheel k={k} x={x0} plumb={plumb} hanger={!plumb && low > 50} />
            <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="var(--ink)" strokeWidth={plumb ? 3 : 11} />
            <line
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              stroke="var(--marker)"
              strokeWidth={plumb ? 1 : 7}
            />
            {[a, b].map((face, index) => (
              <line
                key={index}
                x1={face[0]}
                x2={face[0]}
                y1={face[1] - 14}
                y2={face[1] + 14}
                stroke={index === 0 ? "var(--frame)" : "var(--axle)"}
                strokeWidth={4}
              />
            ))}
            <Face at={a} says={from} to={[beside(from), 44]} />
            <Face at={b} says={to} to={[beside(to), 20]} />
            {reads && (
              <DetailNote x={beside(reads)} y={height - 12} strong>
                {reads}
              </DetailNote>
            )}
          </>
        );
      }}
    </Detail>
  );
}

function Wheel({ k, x, plumb, hanger }: { k: number; x: number; plumb: boolean; hanger: boolean }) {
  const r = (
    left: number,
    top: number,
    width: number,
    height: number,
    look: { fill: string; stroke: string },
  ) => (
    <rect x={x + left * k} y={top * k} width={width * k} height={height * k} strokeWidth={1.75} {...look} />
  );
  return (
    <g>
      {r(46, 30, 30, 90, { fill: "var(--tyre)", stroke: "var(--ink)" })}
      {r(86, 72, 120, 14, { fill: "var(--axle-soft)", stroke: "var(--axle)" })}
      {r(76, 66, 20, 26, { fill: "var(--axle)", stroke: "var(--axle)" })}
      {r(150, 16, 28, 36, { fill: "var(--frame-soft)", stroke: "var(--frame)" })}
      {hanger && (
        <line
          x1={x + 150 * k}
          x2={x + 150 * k}
          y1={52 * k}
          y2={84 * k}
          stroke="var(--frame)"
          strokeWidth={4}
        />
      )}
      {plumb && (
        <path d={`M ${x + 30 * k} ${14 * k} H ${x + 130 * k}`} stroke="var(--muted)" strokeWidth={4} />
      )}
    </g>
  );
}

type FaceProps = { at: readonly [number, number]; says: string; to: readonly [number, number] };

function Face({ at, says, to }: FaceProps) {
  return (
    <g>
      <line x1={at[0]} y1={at[1] - 14} x2={to[0] - 6} y2={to[1] - 5} stroke="var(--ink)" strokeWidth={1} />
      <DetailNote x={to[0]} y={to[1]}>
        {says}
      </DetailNote>
    </g>
  );
}
