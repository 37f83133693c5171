import type { Job, Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { say, withMarks } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { confirmCause, lookedAt, markFixed, setCauseNote, takeBackCause, takeBackCheck } from "./causeEdits";

type Found = Schemas["DiagnosisResult"];
type Check = Schemas["NextCheck"];

/** What is likeliest wrong, what to look at next, and what was found. */
export function CauseSearch({ found }: { found: Found }) {
  const { job } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <div className="grid gap-4" data-cause-search>
      <p className="font-semibold" data-cause-says>
        <Figure>{say(found.says, units)}</Figure>
      </p>
      {(job.diagnosis?.causes ?? []).map((cause, at) => (
        <Confirmed key={cause.what} at={at} cause={cause} found={found} />
      ))}
      {found.next.length > 0 && <LookNext next={found.next} />}
      {found.suspects.length > 0 && <Ranked found={found} />}
      <Seen job={job} found={found} />
      {found.figures.length > 0 && <Weighed found={found} />}
    </div>
  );
}

function LookNext({ next }: { next: readonly Check[] }) {
  const [best, ...others] = next;
  if (!best) return null;
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold">Look at this next</h3>
      <CheckCard check={best} />
      {others.length > 0 && (
        <Fold title={`Or at one of these (${others.length})`}>
          <div className="grid gap-2">
            {others.map((check) => (
              <CheckCard key={check.check} check={check} />
            ))}
          </div>
        </Fold>
      )}
    </section>
  );
}

/** A quick check: its question, what each answer would mean, and the two answers. */
function CheckCard({ check }: { check: Check }) {
  const { change, job } = useJob();
  const units = useSettings((s) => s.units);
  const answer = (seen: boolean) => change(lookedAt(check.check, seen, job.proof?.by));
  const mind = say(check.mind, units);
  return (
    <div className="grid gap-1.5 border-[1.5px] border-ink bg-paper p-2.5" data-check={check.check}>
      <p className="font-semibold">{say(check.asks, units)}</p>
      {mind && <p className="text-[15px]">Caution: {mind}</p>}
      <p className="text-[15px] text-muted">
        {say(check.if_seen, units)} {say(check.if_not, units)} About {check.minutes} min.
      </p>
      <div className="flex gap-2">
        <Button onClick={() => answer(true)}>Yes</Button>
        <Button onClick={() => answer(false)}>No</Button>
      </div>
    </div>
  );
}

function Ranked({ found }: { found: Found }) {
  const { change, job } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold">What it could be</h3>
      <ol className="grid gap-2">
        {found.suspects.map((suspect) => (
          <li
            key={suspect.suspect}
            className="grid gap-1 border-line border-t pt-2"
            data-suspect={suspect.suspect}
          >
            <div className="flex items-baseline justify-between gap-3">
              <span className="font-semibold">
                <Figure>{withMarks(say(suspect.says, units))}</Figure>
              </span>
              <span className="tabular-nums">{percent(suspect.share)}</span>
            </div>
            <Share of={suspect.share} />
            <p className="text-[15px] text-muted">{say(suspect.because, units)}</p>
            <div>
              <Button look="quiet" onClick={() => change(confirmCause(suspect.suspect, job.proof?.by))}>
                This is it
              </Button>
            </div>
          </li>
        ))}
      </ol>
      <p className="text-[15px] text-muted">Nothing wrong: {percent(found.nothing_share)}.</p>
    </section>
  );
}

const percent = (share: number) => (share >= 0.995 ? "over 99 %" : `${Math.round(share * 100)} %`);

/** A share as a bar. */
function Share({ of }: { of: number }) {
  return (
    <div className="h-1.5 bg-line" aria-hidden>
      <div className="h-full bg-ink" style={{ width: `${of * 100}%` }} />
    </div>
  );
}

type ConfirmedProps = { at: number; cause: Schemas["FoundCause"]; found: Found };

/** A cause that was confirmed: what to do about it, what was seen, and whether it is fixed. */
function Confirmed({ at, cause, found }: ConfirmedProps) {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  const said = found.confirmed.find(({ suspect }) => suspect === cause.what);
  return (
    <section className="grid gap-2 border-[1.5px] border-ink bg-paper p-2.5" data-confirmed={cause.what}>
      {said && <p className="font-semibold">{say(said.says, units)}</p>}
      {said && !said.mended && <p>{say(said.mend, units)}</p>}
      <TextField
        job={view.id}
        pointer={`/diagnosis/causes/${at}/note`}
        label="What you saw"
        value={cause.note ?? ""}
        onCommit={(note) => change(setCauseNote(at, { note }))}
      />
      <TextField
        job={view.id}
        pointer={`/diagnosis/causes/${at}/mended_note`}
        label="What you did about it"
        value={cause.mended_note ?? ""}
        onCommit={(mended_note) => change(setCauseNote(at, { mended_note }))}
      />
      <div className="flex flex-wrap gap-2">
        {!cause.mended && (
          <Button look="strong" onClick={() => change(markFixed(at, job.proof?.by))}>
            It is fixed
          </Button>
        )}
        <Button look="quiet" onClick={() => change(takeBackCause(at))}>
          That wasn't it
        </Button>
      </div>
    </section>
  );
}

/** What was looked at, each to be taken back. */
function Seen({ job, found }: { job: Job; found: Found }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  const checks = job.diagnosis?.checks ?? [];
  if (checks.length === 0) return null;
  return (
    <section className="grid gap-1">
      <h3 className="font-semibold">Looked at</h3>
      <ul className="grid gap-1">
        {checks.map((made, at) => (
          <li key={made.what} className="flex items-center justify-between gap-2" data-looked={made.what}>
            <span>{found.seen[at] && say(found.seen[at], units)}</span>
            <Button look="quiet" onClick={() => change(takeBackCheck(made.what))}>
              Take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Every figure it rests on, and what is left of it once the likeliest cause has explained its part. */
function Weighed({ found }: { found: Found }) {
  const units = useSettings((s) => s.units);
  return (
    <Fold title="The measurements it rests on">
      <table className="w-full text-[15px]">
        <thead className="text-left text-muted">
          <tr>
            <th className="font-normal">measurement</th>
            <th className="font-normal">off by</th>
            <th className="font-normal">left over</th>
          </tr>
        </thead>
        <tbody>
          {found.figures.map((figure, at) => (
            <tr key={at} className="border-line border-t">
              <td>{say(figure.says, units)}</td>
              <td>{say(figure.differs, units)}</td>
              <td>{say(figure.remains, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Fold>
  );
}
