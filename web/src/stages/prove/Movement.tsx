import type { Schemas } from "../../api/client";
import { say, sideways } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { Checks } from "../bracket/Checks";

type ProveResult = Schemas["ProveResult"];

/** Before, predicted, measured and now, each ground of the proof, and the likely cause where they differ. */
export function Movement({ proof }: { proof: ProveResult }) {
  const units = useSettings((s) => s.units);
  const { movement } = proof;
  return (
    <>
      {proof.grounds.length > 1 && <Checks title="What it is compared with" checks={proof.grounds} />}
      {movement && (
        <table className="w-full text-left" data-movement>
          <tbody>
            {(
              [
                ["before", sideways(movement.before_mm, units)],
                ["should have moved", sideways(movement.predicted_mm, units)],
                ["has moved", sideways(movement.measured_mm, units)],
                ["now", sideways(movement.after_mm, units)],
              ] as const
            ).map(([name, text]) => (
              <tr key={name} className="border-line border-b">
                <th scope="row" className="py-1.5 font-normal text-muted">
                  {name}
                </th>
                <td className="font-semibold text-[20px]">
                  <Figure>{text}</Figure>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {movement?.readings_say && (
        <p data-readings>
          <Figure>{say(movement.readings_say, units)}</Figure>
        </p>
      )}
      {movement && (
        <p>
          <Figure>{say(movement.says, units)}</Figure>
        </p>
      )}
      {proof.cause_says && (
        <Notice kind="warning">
          <Figure>{say(proof.cause_says, units)}</Figure>
        </Notice>
      )}
    </>
  );
}
