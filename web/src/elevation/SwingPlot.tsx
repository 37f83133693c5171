import { scaleLinear } from "d3-scale";
import type { Sample } from "../api/client";
import { distance, sideways, withMarks } from "../measure/format";
import { Fold } from "../ui/Fold";
import { useSettings } from "../ui/settings";
import { lineWords, reachOf, SwingCurves } from "./SwingCurves";

type SwingPlotProps = { sweep: readonly Sample[]; hasPlan: boolean; driven: number; planName: string };

const SIZE = { width: 392, height: 250, left: 8, right: 8, top: 24, bottom: 26 };

/**
 * Sideways motion over travel, with its table. On a wide screen the plot itself stands
 * beside the stick, at its scale.
 */
export function SwingPlot({ sweep, hasPlan, driven, planName }: SwingPlotProps) {
  const { units, face } = useSettings();
  const first = sweep[0];
  const last = sweep[sweep.length - 1];
  if (!first || !last) return null;
  const most = reachOf(sweep);
  const x = scaleLinear([-most, most], [SIZE.left, SIZE.width - SIZE.right]);
  const y = scaleLinear([first.travel_mm, last.travel_mm], [SIZE.height - SIZE.bottom, SIZE.top]);
  const [leftName, rightName] = face === "front" ? ["right", "left"] : ["left", "right"];
  return (
    <figure className="grid gap-1">
      <figcaption className="text-[15px] text-muted xl:hidden">
        How the axle moves side to side over the travel, bump at the top. The vertical line is the vehicle's
        centerline.
      </figcaption>
      {hasPlan && (
        <p className="text-[15px] text-muted max-xl:hidden">
          Beside the travel slider: dashed is as found, yellow is{" "}
          {planName === "plan" ? "the plan" : "as it is set"}; the vertical line is the vehicle's centerline.
        </p>
      )}
      <svg
        viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
        className="w-full border-[1.5px] border-ink bg-paper xl:hidden"
        role="img"
        aria-label="Side-to-side movement of the axle over the travel; figures in the table below"
      >
        <SwingCurves
          sweep={sweep}
          hasPlan={hasPlan}
          driven={driven}
          x={x}
          y={y}
          sides={[SIZE.left, SIZE.width - SIZE.right]}
          ends={[SIZE.top, SIZE.height - SIZE.bottom]}
        />
        <text x={SIZE.left + 4} y={16} fontSize={14} fill="var(--ink)">{`◂ ${leftName}`}</text>
        <text
          x={SIZE.width - SIZE.right - 4}
          y={16}
          fontSize={14}
          textAnchor="end"
          fill="var(--ink)"
        >{`${rightName} ▸`}</text>
        <text x={SIZE.left + 4} y={SIZE.height - 8} fontSize={14} fill="var(--ink)">
          {withMarks(lineWords(units))}
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
      <Fold title="Side-to-side movement over the travel, as a table">
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
          <th scope="col" className="py-1 font-semibold">
            travel
          </th>
          <th scope="col" className="font-semibold">
            as found
          </th>
          {hasPlan && (
            <th scope="col" className="font-semibold">
              {planName}
            </th>
          )}
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
