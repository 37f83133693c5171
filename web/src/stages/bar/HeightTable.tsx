import { useJob } from "../../job/useJob";
import { degrees, distance, sideways } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

/** The bar at every height the vehicle stands at; decisions are made at the driven one. */
export function HeightTable() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  if (results.heights.length < 2) return null;
  const hasPlan = results.bar?.correction !== undefined;
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="border-ink border-b text-[15px]">
          <th scope="col" className="py-1 font-semibold">
            height
          </th>
          <th scope="col" className="font-semibold">
            angle
          </th>
          <th scope="col" className="font-semibold">
            as found
          </th>
          {hasPlan && (
            <th scope="col" className="font-semibold">
              with the plan
            </th>
          )}
          <th scope="col" className="font-semibold">
            up-travel, down-travel left
          </th>
        </tr>
      </thead>
      <tbody>
        {results.heights.map((height) => (
          <tr
            key={height.name}
            className={`border-line border-b ${height.driven ? "bg-marker font-semibold text-on-marker" : ""}`}
          >
            <td className="py-1.5 pl-1">
              {height.name}
              {height.driven && ", driven"}
            </td>
            <td>{height.found ? degrees(height.found.angle_deg) : "out of reach"}</td>
            <td>{height.found && <Figure>{sideways(height.found.offset_mm, units)}</Figure>}</td>
            {hasPlan && (
              <td>{height.planned && <Figure>{sideways(height.planned.offset_mm, units)}</Figure>}</td>
            )}
            <td>
              <Figure>{`${distance(height.bump_left_mm, units)}, ${distance(height.droop_left_mm, units)}`}</Figure>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
