import { Ruler } from "lucide-react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { addRound, mendRound } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { CountedTurns } from "./CountedTurns";
import { RecordCut } from "./RecordCut";

type Correction = Schemas["Correction"];
type Round = Schemas["Round"];

/** What was really fitted and set: typed, and the job goes on to Prove. */
export function SetIt({ correction }: { correction: Correction }) {
  if (correction.set) return <WasSet correction={correction} check={correction.set} />;
  // Too long right in: its ends come first, its length afterwards.
  if (correction.setting?.verdict === "cut_back") return <RecordCut correction={correction} />;
  return <LengthSet round={correction.fitting} turned={correction.setting?.per_turn_mm !== undefined} />;
}

/** A field that records a round once its length was typed. */
export function LengthSet({ round: fitting, turned = false }: { round: Round; turned?: boolean }) {
  const { view, job, change } = useJob();
  const round = job.setups?.rounds?.length ?? 0;
  return (
    <div className="grid gap-1 border-[1.5px] border-ink bg-paper p-3">
      <h3 className="flex items-center gap-2 font-semibold">
        <Ruler size={18} aria-hidden />
        Once it is set, measure it and enter the length
      </h3>
      <TapeField
        key={round}
        job={view.id}
        pointer={`/setups/rounds/${round}/length`}
        label="Length as set, eye to eye"
        unit={job.rig?.sheet_unit ?? "in"}
        value={undefined}
        hint="Enter saves it. Undo takes it back."
        onCommit={(length) => length && change(addRound({ ...fitting, length }))}
      />
      {turned && <CountedTurns fitting={fitting} />}
    </div>
  );
}

const ENGAGED = [
  { field: "first_engagement", label: "Thread engaged, frame end" },
  { field: "second_engagement", label: "Thread engaged, axle end" },
] as const;

type WasSetProps = { correction: Correction; check: Schemas["SetCheck"] };

function WasSet({ correction, check }: WasSetProps) {
  const { view, job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const navigate = useNavigate();
  const rounds = job.setups?.rounds ?? [];
  const last = rounds.at(-1);
  const unit = job.rig?.sheet_unit ?? "in";
  const at = `/setups/rounds/${rounds.length - 1}`;
  const unread = results.sheets.every((sheet) => !sheet.current);
  const threaded = (correction.setting?.ends.length ?? 0) > 1;
  const words = <Figure>{say(check.says, units)}</Figure>;
  return (
    <div className="grid gap-2 border-[1.5px] border-ink bg-paper p-3" data-set>
      {check.thread_broken ? (
        <Notice kind="refused">{words}</Notice>
      ) : (
        <p>
          <b>Set.</b> {words}
        </p>
      )}
      {unread && last?.length && (
        <TapeField
          job={view.id}
          pointer={`${at}/length`}
          label="Length it is set to"
          unit={unit}
          value={last.length}
          onCommit={(length) => change(mendRound({ length }))}
        />
      )}
      {unread && threaded && (check.thread_broken || last?.first_engagement) && (
        <div className="grid gap-x-3 sm:grid-cols-2">
          {ENGAGED.map(({ field, label }) => (
            <TapeField
              key={field}
              job={view.id}
              pointer={`${at}/${field}`}
              label={label}
              hint="measured after both ends were evened up"
              unit={unit}
              value={last?.[field]}
              onCommit={(entry) => change(mendRound({ [field]: entry }))}
            />
          ))}
        </div>
      )}
      {!check.thread_broken && (
        <Button look="strong" onClick={() => navigate(`/jobs/${view.id}/prove`)}>
          Measure both sides again (Prove)
        </Button>
      )}
    </div>
  );
}
