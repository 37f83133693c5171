import { BadgeCheck, Undo2 } from "lucide-react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { say, sideways } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { addSheet } from "../job/edits";
import { ReadNext } from "../job/ReadNext";
import { useSession } from "../job/session";
import { useJob } from "../job/useJob";
import { SheetForm } from "../tape/SheetForm";
import { SheetAnswer } from "../tape/TapeStage";
import { LookedAt } from "./LookedAt";
import { RecordChange } from "./RecordChange";
import { Reminders } from "./Reminders";
import { RoadTest } from "./RoadTest";
import { SettleForm } from "./SettleForm";

type ProveResult = Schemas["ProveResult"];

const AFTER = [
  { value: "gone", label: "gone" },
  { value: "better", label: "better" },
  { value: "same", label: "the same" },
  { value: "worse", label: "worse" },
] as const;

/** Readings again, prediction against result, and settled or back to Bar. */
export function ProveStage() {
  const { view, job, results, change } = useJob();
  const navigate = useNavigate();
  const round = job.setups?.rounds?.length ?? 0;
  const sheets = job.sheets ?? [];
  // What was read as found proves nothing that was set, but for a Y-link or an axle left as it is.
  const reads = round > 0 || results.no_bar || results.prove !== undefined;
  const current = new Set(results.sheets.filter((r) => r.current).map((r) => r.id));
  const sheet = !reads
    ? undefined
    : sheets.findLast((s) => (s.kind ?? "centring") === "centring" && current.has(s.id ?? ""));
  const result = results.sheets.find((r) => r.id === sheet?.id);
  return (
    <>
      {results.prove ? (
        <Proof proof={results.prove} />
      ) : sheet ? (
        <SheetAnswer sheet={sheet} result={result} />
      ) : round > 0 || results.no_bar ? (
        <Answer says="Read both sides again">
          From the same features as before, on its weight, bounced to settle.
        </Answer>
      ) : (
        <Answer says="Nothing to prove yet">
          Set what stage Bar or Sway asks for and record it there, or record below what was done; then it is
          proved here.
        </Answer>
      )}
      {sheet && <ReadNext result={result} />}
      {results.prove && (
        <>
          <LookedAt />
          <RoadTest />
          <ComplaintsAgain />
          <SettleForm />
          <Settle />
          <Reminders />
        </>
      )}
      {round === 0 && !results.prove && results.bar && (
        <Button onClick={() => navigate(`/jobs/${view.id}/bar`)}>Go to Bar</Button>
      )}
      {sheet ? (
        <SheetForm key={sheet.id} sheet={sheet} result={result} index={sheets.indexOf(sheet)} />
      ) : (
        (round > 0 || results.no_bar) && (
          <Button look="strong" onClick={() => change(addSheet(job, "centring").edit)}>
            Start the after-readings
          </Button>
        )
      )}
      <RecordChange />
      {results.prove?.movement && <WorkingOut working={results.prove.movement.working} />}
      {result?.centring && <WorkingOut working={result.centring.working} />}
    </>
  );
}

function Proof({ proof }: { proof: ProveResult }) {
  const units = useSettings((s) => s.units);
  const { movement } = proof;
  return (
    <>
      <Answer says={say(proof.says, units)}>
        <Figure>{say(proof.advice, units)}</Figure>
      </Answer>
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

function ComplaintsAgain() {
  const { job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const complaints = job.complaints ?? [];
  if (complaints.length === 0) return null;
  return (
    <section className="grid gap-3">
      <h3 className="font-semibold">After the road test, ask again</h3>
      {complaints.map((complaint, index) => {
        const advice = results.complaints?.find((told) => told.complaint === index);
        return (
          <div key={index} className="grid gap-1">
            <Choice
              label={complaint.text}
              value={complaint.after}
              options={AFTER}
              onPick={(after) =>
                change((old) => ({
                  ...old,
                  complaints: (old.complaints ?? []).map((c, at) => (at === index ? { ...c, after } : c)),
                }))
              }
            />
            {advice?.again && (
              <ul className="list-disc pl-6" data-advice={index}>
                {advice.says.map((says) => (
                  <li key={says.in}>
                    <Figure>{say(says, units)}</Figure>
                  </li>
                ))}
              </ul>
            )}
          </div>
        );
      })}
    </section>
  );
}

function Settle() {
  const { view, job, results } = useJob();
  const step = useSession((s) => s.step);
  const state = useSession((s) => s.state);
  const navigate = useNavigate();
  if (job.settled && results.settled_stands) {
    return (
      <p className="flex items-center gap-2 border-2 border-frame bg-paper p-3 font-semibold" data-settled>
        <BadgeCheck size={24} aria-hidden />
        Settled on {new Date(job.settled.at).toLocaleString()}. The figures are kept as they were.
      </p>
    );
  }
  const verdict = results.prove?.verdict;
  return (
    <div className="grid gap-2">
      {job.settled && (
        <Notice kind="warning">
          {job.settled.core_version === results.core_version
            ? "Something changed since this job was settled."
            : `Something changed since this job was settled, or this version reckons otherwise than ${job.settled.core_version} did.`}{" "}
          Settle it again on the figures of now, or undo.
        </Notice>
      )}
      {verdict === "can_settle" && (
        <Button
          look="strong"
          disabled={state !== "idle" || !results.settling.may}
          onClick={() => void step("settle")}
        >
          <BadgeCheck size={20} aria-hidden />
          Settle this job
        </Button>
      )}
      {verdict === "back_to_sway" && (
        <Button look="strong" onClick={() => navigate(`/jobs/${view.id}/sway`)}>
          <Undo2 size={20} aria-hidden />
          Back to Sway
        </Button>
      )}
      {verdict === "back_to_bar" && !results.no_bar && (
        <Button look="strong" onClick={() => navigate(`/jobs/${view.id}/bar`)}>
          <Undo2 size={20} aria-hidden />
          Back to Bar
        </Button>
      )}
    </div>
  );
}
