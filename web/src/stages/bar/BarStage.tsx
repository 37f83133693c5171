import type { Phrase, Schemas } from "../../api/client";
import { SwingPlot } from "../../elevation/SwingPlot";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { ReadNext } from "../job/ReadNext";
import { useJob } from "../job/useJob";
import { BarComparisons } from "./BarComparisons";
import { AdjusterInputs, BarInputs } from "./BarInputs";
import { Builder } from "./Builder";
import { HeightTable } from "./HeightTable";
import { LengthSet, SetIt } from "./SetIt";
import { ThreadEnds } from "./ThreadEnds";

type BarResult = Schemas["BarResult"];
type Correction = Schemas["Correction"];

/** Angle, arc, length, turns and flats. */
export function BarStage() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const bar = results.bar;
  const correction = bar?.correction;
  return (
    <>
      {bar ? (
        correction ? (
          <CorrectionAnswer correction={correction} />
        ) : (
          <Withheld bar={bar} />
        )
      ) : (
        <Answer says="Measure the bar" />
      )}
      {results.bar_missing.map((fault) => (
        <Notice key={fault.pointer} kind={fault.code === "missing" ? "question" : "refused"}>
          {fault.message}
        </Notice>
      ))}
      {bar?.warnings.map((warning) => (
        <Notice key={warning.in} kind="warning">
          <Figure>{say(warning, units)}</Figure>
        </Notice>
      ))}
      {bar?.eye_check?.too_much && (
        <Notice kind="warning">
          <Figure>{say(bar.eye_check.says, units)}</Figure>
        </Notice>
      )}
      <ReadNext result={results.sheets.findLast((sheet) => sheet.current && sheet.kind === "centring")} />
      {correction?.setting?.bench && <Bench steps={correction.setting.bench.says} />}
      {correction && <OtherWays ways={correction.other_ways} />}
      {correction?.setting && <ThreadEnds setting={correction.setting} />}
      {correction && <SetIt correction={correction} />}
      {bar?.built && <LengthSet round={bar.built} />}
      {bar && <Stands bar={bar} />}
      {bar && <Workings bar={bar} />}
      <Fold title="The bar as found" open={!bar}>
        <BarInputs />
      </Fold>
      {bar && <BarComparisons />}
      <Builder />
      <Fold
        title="How its length is changed"
        open={bar !== undefined && correction !== undefined && !correction.setting && !correction.bar}
      >
        <AdjusterInputs />
      </Fold>
    </>
  );
}

function Withheld({ bar }: { bar: BarResult }) {
  const units = useSettings((s) => s.units);
  return <Answer says={say(bar.says, units)}>{bar.withheld && <p>{say(bar.withheld, units)}</p>}</Answer>;
}

function CorrectionAnswer({ correction }: { correction: Correction }) {
  const units = useSettings((s) => s.units);
  const { setting, basis } = correction;
  const turns = setting?.turns_say && `, ${say(setting.turns_say, units)}`;
  return (
    <Answer says={`${say(correction.says, units)}${turns ?? ""}`}>
      {setting?.exactly && (
        <p>
          Exactly {say(setting.exactly, units)}. <Figure>{say(setting.says, units)}</Figure>
        </p>
      )}
      {setting && !setting.exactly && (
        <p>
          <Figure>{say(setting.says, units)}</Figure>
        </p>
      )}
      {!setting && !correction.bar && <p>Say below how the bar is adjusted to get turns and flats.</p>}
      {correction.plan_says && (
        <p className="mt-1" data-plan>
          <Figure>{say(correction.plan_says, units)}</Figure>
        </p>
      )}
      {correction.readings_say && (
        <p className="mt-1" data-should-read>
          <Figure>{say(correction.readings_say, units)}</Figure>
        </p>
      )}
      <p className="mt-1 text-muted">
        <Figure>{say(basis.says, units)}</Figure>
      </p>
    </Answer>
  );
}

/** What else would help where the bar does not reach. */
function OtherWays({ ways }: { ways: Correction["other_ways"] }) {
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
function Bench({ steps }: { steps: Phrase[] }) {
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

function Stands({ bar }: { bar: BarResult }) {
  const { view, results } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold text-[20px] leading-tight">{say(bar.says, units)}</h3>
      <p>
        <Figure>{say(bar.rate_says, units)}</Figure>
      </p>
      {!bar.correction && (
        <p data-need>
          <Figure>{say(bar.need.says, units)}</Figure>
        </p>
      )}
      {bar.lift && (
        <p>
          <Figure>{`${say(bar.lift.says, units)}.`}</Figure>
        </p>
      )}
      {bar.correction && (
        <p data-need>
          <Figure>{say(bar.correction.leaves_says, units)}</Figure>
        </p>
      )}
      {bar.correction?.longer_says && (
        <p className="text-muted">
          <Figure>{say(bar.correction.longer_says, units)}</Figure>
        </p>
      )}
      <SwingPlot
        key={view.id}
        sweep={bar.sweep}
        hasPlan={bar.correction !== undefined}
        planName={bar.correction?.set ? "as set" : "plan"}
        driven={results.elevation.driven_travel_mm}
      />
      <HeightTable />
    </section>
  );
}

function Workings({ bar }: { bar: BarResult }) {
  const units = useSettings((s) => s.units);
  const { correction } = bar;
  return (
    <div>
      <WorkingOut working={bar.working} />
      {bar.lift && <WorkingOut working={bar.lift.working} />}
      {correction && (
        <>
          <WorkingOut working={correction.working} />
          {correction.thumb_says && <p className="py-1 text-muted">{say(correction.thumb_says, units)}</p>}
        </>
      )}
      {correction?.setting && <WorkingOut working={correction.setting.working} />}
    </div>
  );
}
