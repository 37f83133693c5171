import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Sample } from "../api/client";
import { distance, sideways, withMarks } from "../measure/format";
import { at } from "../measure/travel";
import { Fold } from "../ui/Fold";
import { useSettings } from "../ui/settings";
import { useStance } from "./stance";

type SwingPlotProps = { sweep: readonly Sample[]; hasPlan: boolean; driven: number; planName: string };

const SIZE = { width: 392, height: 250, left: 8, right: 8, top: 24, bottom: 26 };

/** Sideways motion over travel: bump up, left on the left as viewed. */
export function SwingPlot({ sweep, hasPlan, driven, planName }: SwingPlotProps) {
  const { units, face } = useSettings();
  const held = useStance((s) => s.travel);
  const first = sweep[0];
  const last = sweep[sweep.length - 1];
  if (!first || !last) return null;
  const turn = face === "front" ? 1 : -1;
  const most =
    Math.max(6, ...sweep.map((s) => Math.max(Math.abs(s.found_mm), Math.abs(s.planned_mm)))) * 1.08;
  const x = scaleLinear([-most, most], [SIZE.left, SIZE.width - SIZE.right]);
  const y = scaleLinear([first.travel_mm, last.travel_mm], [SIZE.height - SIZE.bottom, SIZE.top]);
  const curve = (pick: (sample: Sample) => number) =>
    line<Sample>(
      (s) => x(turn * pick(s)),
      (s) => y(s.travel_mm),
    )([...sweep]) ?? "";
  const travel = Math.max(first.travel_mm, Math.min(last.travel_mm, held ?? driven));
  const here = at(sweep, travel);
  const unit = units === "in" ? 25.4 / 4 : 5;
  const grid = Array.from(
    { length: 2 * Math.floor(most / unit) + 1 },
    (_, index) => (index - Math.floor(most / unit)) * unit,
  );
  const [leftName, rightName] = face === "front" ? ["right", "left"] : ["left", "right"];
  return (
    <figure className="grid gap-1">
      <figcaption className="text-[15px] text-muted">
        Where the axle goes over the travel, bump upward. The upright line is the body's centre.
      </figcaption>
      <svg
        viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
        className="w-full border-[1.5px] border-ink bg-paper"
        role="img"
        aria-label="Sideways motion of the axle over the travel; the table below has the figures"
        data-swing
      >
        {grid.map((mm) => (
          <line
            key={mm}
            x1={x(mm)}
            x2={x(mm)}
            y1={SIZE.top}
            y2={SIZE.height - SIZE.bottom}
            stroke="var(--line)"
          />
        ))}
        <line
          x1={x(0)}
          x2={x(0)}
          y1={SIZE.top - 6}
          y2={SIZE.height - SIZE.bottom + 6}
          stroke="var(--frame)"
          strokeWidth={1.5}
          strokeDasharray="10 4 2 4"
        />
        <line
          x1={SIZE.left}
          x2={SIZE.width - SIZE.right}
          y1={y(driven)}
          y2={y(driven)}
          stroke="var(--muted)"
          strokeDasharray="2 4"
        />
        <path
          d={curve((s) => s.found_mm)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2.2}
          strokeDasharray={hasPlan ? "8 5" : undefined}
        />
        {hasPlan && (
          <>
            <path d={curve((s) => s.planned_mm)} fill="none" stroke="var(--ink)" strokeWidth={7} />
            <path d={curve((s) => s.planned_mm)} fill="none" stroke="var(--marker)" strokeWidth={4} />
          </>
        )}
        {here && (
          <circle
            cx={x(turn * here.found_mm)}
            cy={y(travel)}
            r={5}
            fill="var(--axle)"
            stroke="var(--slate)"
            strokeWidth={1.5}
          />
        )}
        {here && hasPlan && (
          <circle
            cx={x(turn * here.planned_mm)}
            cy={y(travel)}
            r={6}
            fill="var(--marker)"
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
        )}
        <text x={SIZE.left + 4} y={16} fontSize={14} fill="var(--ink)">{`◂ ${leftName}`}</text>
        <text
          x={SIZE.width - SIZE.right - 4}
          y={16}
          fontSize={14}
          textAnchor="end"
          fill="var(--ink)"
        >{`${rightName} ▸`}</text>
        <text x={SIZE.left + 4} y={SIZE.height - 8} fontSize={14} fill="var(--ink)">
          {withMarks(units === "in" ? 'one line is 1/4"' : "one line is 5 mm")}
        </text>
        {hasPlan && (
          <text
            x={SIZE.width - SIZE.right - 4}
            y={SIZE.height - 8}
            fontSize={14}
            textAnchor="end"
            fill="var(--ink)"
          >
            {`dashed: as found · yellow: ${planName}`}
          </text>
        )}
      </svg>
      <Fold title="The same as a table">
        <SwingTable sweep={sweep} hasPlan={hasPlan} planName={planName} />
      </Fold>
    </figure>
  );
}

function SwingTable({ sweep, hasPlan, planName }: Omit<SwingPlotProps, "driven">) {
  const units = useSettings((s) => s.units);
  const rows = 9;
  const picked = Array.from(
    { length: rows },
    (_, index) => sweep[Math.round(((rows - 1 - index) / (rows - 1)) * (sweep.length - 1))],
  ).filter((s) => s !== undefined);
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="border-ink border-b">
          <th className="py-1 font-semibold">travel</th>
          <th className="font-semibold">as found</th>
          {hasPlan && <th className="font-semibold">{planName}</th>}
        </tr>
      </thead>
      <tbody>
        {picked.map((s) => (
          <tr key={s.travel_mm} className="border-line border-b">
            <td className="py-1">
              {withMarks(
                `${distance(s.travel_mm, units)} ${s.travel_mm > 0 ? "bump" : s.travel_mm < 0 ? "droop" : ""}`,
              )}
            </td>
            <td>{withMarks(sideways(s.found_mm, units))}</td>
            {hasPlan && <td>{withMarks(sideways(s.planned_mm, units))}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
