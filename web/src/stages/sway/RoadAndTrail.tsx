import type { Schemas, SwayResult } from "../../api/client";
import { Missing } from "../../job/Missing";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { ChoiceChart } from "./ChoiceChart";
import { RestsOn } from "./RestsOn";

/** Roll on the road against twist on the trail for every choice, and the splined bar that suits. */
export function RoadAndTrail({ swayed }: { swayed: SwayResult }) {
  const units = useSettings((s) => s.units);
  const { vehicle, splined } = swayed;
  return (
    <>
      {vehicle && vehicle.choices.length > 0 && <ChoiceChart vehicle={vehicle} />}
      {vehicle?.suggests.in && (
        <p className="font-semibold" data-suggests>
          <Figure>{say(vehicle.suggests, units)}</Figure>
        </p>
      )}
      {vehicle && (
        <p data-weighs>
          <Figure>{say(vehicle.says, units)}</Figure>
        </p>
      )}
      {swayed.other_end && <FromOtherEnd from={swayed.other_end} />}
      {splined && <Splined splined={splined} />}
      {vehicle && <WorkingOut working={vehicle.working} />}
    </>
  );
}

function Splined({ splined }: { splined: Schemas["SplinedResult"] }) {
  const units = useSettings((s) => s.units);
  return (
    <section className="grid gap-1" data-splined>
      <h3 className="font-semibold text-[20px] leading-tight">A splined bar that would do</h3>
      <p className="font-semibold">
        <Figure>{say(splined.says, units)}</Figure>
      </p>
      <p>
        <Figure>{say(splined.because, units)}</Figure>
      </p>
      <RestsOn count={splined.assumed} />
      <Missing faults={splined.missing} />
      {splined.options.length > 0 && (
        <Fold title={`All bars and arms you can get (${splined.options.length})`}>
          <ul>
            {splined.options.map((option, index) => (
              <li
                key={index}
                className={`border-line border-b py-1.5 leading-tight ${option.suggested ? "font-semibold" : option.fits ? "" : "text-muted"}`}
              >
                <Figure>{`${option.suggested ? "Suggested: " : option.fits ? "" : "Does not fit: "}${say(option.says, units)}`}</Figure>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

function FromOtherEnd({ from }: { from: Schemas["FromOtherEnd"] }) {
  const units = useSettings((s) => s.units);
  return (
    <div data-other-end={from.figures.length}>
      <p>{say(from.says, units)}</p>
      <Fold title={`What it uses from there (${from.figures.length})`}>
        <ul className="grid list-disc gap-1 pl-5">
          {from.figures.map((figure) => (
            <li key={figure.pointer}>
              {figure.name}: <b>{figure.there}</b>
            </li>
          ))}
        </ul>
        <p className="mt-2 text-muted">To keep them in this job, copy them on the Rig screen.</p>
      </Fold>
    </div>
  );
}
