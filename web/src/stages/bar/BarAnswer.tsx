import { ArrowRight } from "lucide-react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useGoToField } from "../../job/Missing";
import { useJob } from "../../job/useJob";
import { inOwnWords } from "../../measure/english";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

type BarResult = Schemas["BarResult"];
type Correction = Schemas["Correction"];

/** The stage's one sentence: the correction, why there is none, or what comes first. */
export function BarAnswer({ bar }: { bar: BarResult | undefined }) {
  if (!bar) return <ToMeasure />;
  if (!bar.correction) return <Withheld bar={bar} />;
  if (bar.correction.decide_first) return <DecideFirst correction={bar.correction} />;
  return <CorrectionAnswer correction={bar.correction} />;
}

/** Before the bar is measured: what both sides alone say; or that there is none to measure. */
function ToMeasure() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  if (results.no_bar) {
    return (
      <Answer says="No track bar to set">
        {results.bar_missing.map(({ message }) => (
          <p key={message}>{inOwnWords(message)}</p>
        ))}
      </Answer>
    );
  }
  return (
    <Answer says="Measure the bar">
      {results.first_answer && (
        <p className="text-[20px]" data-first-answer>
          <Figure>{say(results.first_answer, units)}</Figure>
        </p>
      )}
    </Answer>
  );
}

function Withheld({ bar }: { bar: BarResult }) {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const go = useGoToField();
  return (
    <Answer says={say(bar.says, units)}>
      {bar.withheld && (
        <p>
          <Figure>{say(bar.withheld, units)}</Figure>
        </p>
      )}
      {bar.withheld && results.status.next?.stage !== "bar" && (
        <Button className="mt-2" onClick={() => go("/sheets")}>
          Go to the measurements
          <ArrowRight size={18} aria-hidden />
        </Button>
      )}
    </Answer>
  );
}

/** Length alone does not do: what does is chosen first, and no turns are said until then. */
function DecideFirst({ correction }: { correction: Correction }) {
  const units = useSettings((s) => s.units);
  const { id = "" } = useParams();
  return (
    <Answer says={say(correction.says, units)}>
      <Link className="mt-2 inline-flex min-h-11 items-center gap-2 underline" to={`/jobs/${id}/bracket`}>
        Go to Bracket
        <ArrowRight size={18} aria-hidden />
      </Link>
      <p className="mt-1 text-muted">
        <Figure>{say(correction.basis.says, units)}</Figure>
      </p>
    </Answer>
  );
}

function CorrectionAnswer({ correction }: { correction: Correction }) {
  const units = useSettings((s) => s.units);
  const { setting, basis, estimated } = correction;
  const turns = setting?.turns_say && say(setting.turns_say, units);
  // An estimate is no order: its turns stand below it, not in the headline.
  const headline = say(correction.says, units);
  return (
    <Answer says={turns && !estimated ? `${headline}, ${turns}` : headline}>
      {turns && estimated && (
        <p>
          <Figure>{turns}</Figure>
        </p>
      )}
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
      {!setting && !correction.bar && <p>Enter how the bar adjusts to get turns and flats.</p>}
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
