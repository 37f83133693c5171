import { BadgeCheck, Printer, Undo2 } from "lucide-react";
import { useNavigate } from "react-router";
import type { Results, StageName } from "../../api/client";
import { useSession } from "../../job/session";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { whyReopened } from "./reopened";

type Verdict = NonNullable<Results["prove"]>["verdict"];

/** The stage a verdict sends back to. */
const BACK: Partial<Record<Verdict, { to: StageName; name: string }>> = {
  not_decided: { to: "bracket", name: "Bracket" },
  back_to_sway: { to: "sway", name: "Sway" },
  back_to_cycle: { to: "cycle", name: "Cycle" },
  back_to_bar: { to: "bar", name: "Bar" },
};

/** What its record says otherwise than it does now. */
function Reopened() {
  const { job, results } = useJob();
  const units = useSettings((s) => s.units);
  const differences = whyReopened(job, results);
  if (differences.length === 0) return null;
  return (
    <ul className="mt-1 list-disc pl-5" data-reopened>
      {differences.map(({ before, now }) => (
        <li key={now.in}>
          <Figure>
            {before ? `${say(before, units)}, now: ${say(now, units)}` : `New: ${say(now, units)}`}
          </Figure>
        </li>
      ))}
    </ul>
  );
}

/** Settling the job, or the stage to go back to. */
export function Settle() {
  const { view, job, results } = useJob();
  const step = useSession((s) => s.step);
  const state = useSession((s) => s.state);
  const navigate = useNavigate();
  if (job.settled && results.settled_stands) {
    return (
      <div className="grid gap-2">
        <p className="flex items-center gap-2 border-2 border-frame bg-paper p-3 font-semibold" data-settled>
          <BadgeCheck size={24} aria-hidden />
          Closed on {new Date(job.settled.at).toLocaleString()}. The figures are kept as they were.
        </p>
        <a
          className="inline-flex min-h-11 items-center gap-2 justify-self-start border-[1.5px] border-ink bg-slate px-3"
          href={`/api/v1/jobs/${view.id}/record.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          <Printer size={18} aria-hidden />
          Record for the customer
        </a>
      </div>
    );
  }
  const verdict = results.prove?.verdict;
  const back = verdict && BACK[verdict];
  return (
    <div className="grid gap-2">
      {job.settled && (
        <Notice kind="warning">
          {job.settled.core_version === results.core_version
            ? "Something changed since this job was closed."
            : `Something changed since this job was closed, or this version calculates differently from ${job.settled.core_version}.`}{" "}
          Close it again with the current figures, or undo.
          <Reopened />
        </Notice>
      )}
      {verdict === "can_settle" && (
        <Button
          look="strong"
          disabled={state !== "idle" || !results.settling.may}
          onClick={() => void step("settle")}
        >
          <BadgeCheck size={20} aria-hidden />
          Close this job
        </Button>
      )}
      {back && !(back.to === "bar" && results.no_bar) && (
        <Button
          look={results.status.next?.stage === back.to ? "strong" : "plain"}
          onClick={() => navigate(`/jobs/${view.id}/${back.to}`)}
        >
          <Undo2 size={20} aria-hidden />
          Back to {back.name}
        </Button>
      )}
    </div>
  );
}
