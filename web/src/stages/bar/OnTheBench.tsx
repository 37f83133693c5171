import type { Phrase, Schemas } from "../../api/client";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

type Correction = Schemas["Correction"];

/** What else would help where the bar does not reach. */
export function OtherWays({ ways }: { ways: Correction["other_ways"] }) {
  const units = useSettings((s) => s.units);
  if (ways.length === 0) return null;
  return (
    <section data-other-ways>
      <h3 className="font-semibold">What else would help</h3>
      <ul className="list-disc pl-5">
        {ways.map((way) => (
          <li key={way.says.in}>
            <Figure>{say(way.says, units)}</Figure>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A new bar set on the bench before it is hung. */
export function Bench({ steps }: { steps: Phrase[] }) {
  const units = useSettings((s) => s.units);
  return (
    <section data-bench>
      <h3 className="font-semibold">On the bench</h3>
      <ol className="list-decimal pl-6">
        {steps.map((step) => (
          <li key={step.in}>
            <Figure>{say(step, units)}</Figure>
          </li>
        ))}
      </ol>
    </section>
  );
}
