import type { Schemas } from "../../api/client";
import { useDrawn } from "../../job/useDrawn";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";

/** How sure the bar's figures are, every reading drawn within what it is good to once it is unfolded. */
export function Intervals() {
  return (
    <Fold title="Accuracy of the bar figures">
      <Drawn />
    </Fold>
  );
}

function Drawn() {
  const drawn = useDrawn();
  if (!drawn) return <p className="text-muted">Calculating…</p>;
  return drawn.uncertainty ? (
    <Reported uncertainty={drawn.uncertainty} />
  ) : (
    <p>The bar has not been measured.</p>
  );
}

function Reported({ uncertainty }: { uncertainty: Schemas["Uncertainty"] }) {
  const units = useSettings((s) => s.units);
  return (
    <>
      {uncertainty.intervals.length === 0 && (
        <p>
          Too many trials gave an impossible bar: {uncertainty.failed} of {uncertainty.draws}. Check the
          measurements.
        </p>
      )}
      <table className="w-full text-left" data-intervals>
        <tbody>
          {uncertainty.intervals.map((interval) => (
            <tr key={interval.name} className="border-line border-b">
              <th scope="row" className="py-1 pr-2 font-normal text-muted">
                {interval.meaning}
              </th>
              <td className="font-semibold">
                <Figure>{say(interval.says, units)}</Figure>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[15px] text-muted">
        95 % range: {uncertainty.draws.toLocaleString("en-GB")} trials with your measurements varied within
        their accuracy ({uncertainty.generator}, seed {uncertainty.seed}), {uncertainty.failed} without a bar.
      </p>
    </>
  );
}
