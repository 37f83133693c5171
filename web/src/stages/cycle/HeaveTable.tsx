import { scaleLinear } from "d3-scale";
import type { PoseResult, SetupCycle } from "../../api/client";
import { HeavePlot, PLOTS } from "../../elevation/HeavePlot";
import { type Plotted, useStance } from "../../elevation/stance";
import { degrees, distance, sideways, withMarks } from "../../measure/format";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";

type HeaveTableProps = { found?: SetupCycle; plan?: SetupCycle; planName: string; travel: number };

const INLINE = { width: 360, height: 260, edge: 24 };

const ROWS = 9;

/** What is plotted beside the stick, and its table. */
export function HeaveTable({ found, plan, planName, travel }: HeaveTableProps) {
  const units = useSettings((s) => s.units);
  const { plotted, setPlotted } = useStance();
  if (!found) return null;
  const has = (name: Plotted) =>
    (name !== "steer_deg" || found.steering !== undefined) &&
    (name !== "bind_mm" || found.limits.some((limit) => limit.kind === "bind"));
  const options = (Object.keys(PLOTS) as Plotted[])
    .filter(has)
    .map((value) => ({ value, label: PLOTS[value].name }));
  const words = (pose: PoseResult | undefined): string => {
    const value = pose?.[plotted];
    if (value === undefined) return "out of reach";
    if (plotted === "y_mm") return sideways(value, units);
    if (plotted.endsWith("_mm")) return distance(value, units);
    const [more, less] = plotted === "pitch_deg" ? ["top forward", "top back"] : ["left", "right"];
    return Math.abs(value) < 0.05 ? degrees(0) : `${degrees(value)} ${value > 0 ? more : less}`;
  };
  const nearest = (setup: SetupCycle, travel: number) =>
    setup.heave.find((pose) => Math.abs(pose.left_mm - travel) < 1e-6);
  // Where there is no room beside the stick the plot stands here, at a scale of its own.
  const y = scaleLinear(
    [found.heave[0]?.left_mm ?? 0, found.heave[found.heave.length - 1]?.left_mm ?? 1],
    [INLINE.height - INLINE.edge, INLINE.edge],
  );
  const picked = Array.from(
    { length: ROWS },
    (_, row) => found.heave[Math.round(((ROWS - 1 - row) / (ROWS - 1)) * (found.heave.length - 1))],
  ).filter((pose) => pose !== undefined);
  return (
    <section className="grid gap-1">
      <Choice
        label={
          plan
            ? `Shown beside the travel slider: dashed as found, yellow ${planName}`
            : "Shown beside the travel slider"
        }
        value={plotted}
        options={options}
        onPick={setPlotted}
      />
      <HeavePlot
        found={found}
        plan={plan}
        travel={travel}
        scale={{
          width: INLINE.width,
          height: INLINE.height,
          y,
          ends: [INLINE.edge, INLINE.height - INLINE.edge],
        }}
        className="border-[1.5px] border-ink bg-paper xl:hidden"
      />
      <Fold title={`${PLOTS[plotted].name} over the travel, as a table`}>
        <table className="w-full text-left">
          <thead>
            <tr className="border-ink border-b">
              <th scope="col" className="py-1 font-semibold">
                travel
              </th>
              <th scope="col" className="font-semibold">
                as found
              </th>
              {plan && (
                <th scope="col" className="font-semibold">
                  {planName}
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {picked.map((pose) => (
              <tr key={pose.left_mm} className="border-line border-b">
                <td className="py-1">
                  {withMarks(
                    `${distance(pose.left_mm, units)} ${pose.left_mm > 0 ? "bump" : pose.left_mm < 0 ? "droop" : ""}`,
                  )}
                </td>
                <td>{withMarks(words(pose))}</td>
                {plan && <td>{withMarks(words(nearest(plan, pose.left_mm)))}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </Fold>
    </section>
  );
}
