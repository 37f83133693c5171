import { Ruler } from "lucide-react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { SwingPlot } from "../../elevation/SwingPlot";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { WorkingOut } from "../../ui/WorkingOut";
import { addSetting, mendSetting } from "../job/edits";
import { useJob } from "../job/useJob";
import { BarComparisons } from "./BarComparisons";
import { AdjusterInputs, BarInputs } from "./BarInputs";
import { Builder } from "./Builder";
import { HeightTable } from "./HeightTable";
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
      {correction?.setting && <ThreadEnds setting={correction.setting} />}
      {correction && <SetIt correction={correction} />}
      {bar && <Stands bar={bar} />}
      {bar && <Workings bar={bar} />}
      <Fold title="The bar as found" open={!bar}>
        <BarInputs />
      </Fold>
      {bar && <BarComparisons />}
      <Builder />
      <Fold
        title="How its length is changed"
        open={bar !== undefined && correction !== undefined && !correction.setting}
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
      {setting && !setting.exactly && <p>{say(setting.says, units)}</p>}
      {!setting && <p>Say below how the bar is adjusted to get turns and flats.</p>}
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

/** The length really set: typed, and the job goes on to Prove. */
function SetIt({ correction }: { correction: Correction }) {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  const navigate = useNavigate();
  const round = job.setups?.as_built?.length ?? 0;
  if (correction.set) {
    return (
      <div className="grid gap-2 border-[1.5px] border-ink bg-paper p-3">
        <p>
          <b>Set.</b> <Figure>{say(correction.set.says, units)}</Figure>
        </p>
        {job.sheets?.every((sheet) => (sheet.after_setting ?? 0) < round) && (
          <TapeField
            job={view.id}
            pointer={`/setups/as_built/${round - 1}/length`}
            label="Length it is set to"
            unit={job.rig?.sheet_unit ?? "in"}
            value={job.setups?.as_built?.[round - 1]?.length}
            onCommit={(length) => change(mendSetting(length))}
          />
        )}
        <Button look="strong" onClick={() => navigate(`/jobs/${view.id}/prove`)}>
          Read both sides again in Prove
        </Button>
      </div>
    );
  }
  return (
    <div className="grid gap-1 border-[1.5px] border-ink bg-paper p-3">
      <h3 className="flex items-center gap-2 font-semibold">
        <Ruler size={18} aria-hidden />
        When it is set, measure it and type what it is
      </h3>
      <TapeField
        key={round}
        job={view.id}
        pointer={`/setups/as_built/${round}/length`}
        label="Length set, eye to eye"
        unit={job.rig?.sheet_unit ?? "in"}
        value={undefined}
        hint="Enter keeps it. Undo takes it back."
        onCommit={(length) =>
          length && change(addSetting(length, correction.recentring.length_mm, correction.moved))
        }
      />
    </div>
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
      {bar.lift && (
        <p>
          <Figure>{`${say(bar.lift.says, units)}.`}</Figure>
        </p>
      )}
      {bar.correction && (
        <p>
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
          <p className="py-1 text-muted">{say(correction.thumb_says, units)}</p>
        </>
      )}
      {correction?.setting && <WorkingOut working={correction.setting.working} />}
    </div>
  );
}
