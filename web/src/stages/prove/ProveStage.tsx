import { useNavigate } from "react-router";
import type { Job, Results, Sheet, SheetResult } from "../../api/client";
import { addSheet } from "../../job/edits";
import { ReadNext } from "../../job/ReadNext";
import { StatusLine } from "../../job/StatusLine";
import { countsOf } from "../../job/standing";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { bad, good, measure, mind, plain, type Sign } from "../../ui/sign";
import { WorkingOut } from "../../ui/WorkingOut";
import { SheetAnswer } from "../tape/SheetAnswer";
import { SheetForm } from "../tape/SheetForm";
import { CauseSearch } from "./CauseSearch";
import { ComplaintsAgain } from "./ComplaintsAgain";
import { LookedAt, openOf } from "./LookedAt";
import { Movement } from "./Movement";
import { RecordChange } from "./RecordChange";
import { Reminders } from "./Reminders";
import { RoadTest } from "./RoadTest";
import { Settle } from "./Settle";
import { SettleForm } from "./SettleForm";
import { CauseOf, Misplaced } from "./Suspects";

/** The sheet that proves: none where nothing was set, but for a Y-link or an axle left as it is. */
function sheetOf(job: Job, results: Results): Sheet | undefined {
  const round = job.setups?.rounds?.length ?? 0;
  if (round === 0 && !results.no_bar && results.prove === undefined) return undefined;
  const current = new Set(results.sheets.filter((r) => r.current).map((r) => r.id));
  return job.sheets?.findLast((s) => (s.kind ?? "centring") === "centring" && current.has(s.id ?? ""));
}

/** Readings again, prediction against result, and settled or back to Bar. */
export function ProveStage() {
  const { job, results } = useJob();
  const sheet = sheetOf(job, results);
  const result = results.sheets.find((r) => r.id === sheet?.id);
  const { prove } = results;
  const sections: Section[] = [
    readSection(results, sheet, result),
    ...causeSection(results),
    ...(prove ? [roadSection(job, results), settleSection(job, results), dueSection(results)] : []),
    recordSection(job),
  ];
  return (
    <>
      <ProveAnswer sheet={sheet} result={result} />
      <StatusLine />
      {prove && <Misplaced proof={prove} />}
      {sheet && <ReadNext result={result} />}
      {prove && <Settle />}
      <Sections label="Prove results" of="prove" sections={sections} />
    </>
  );
}

function ProveAnswer({ sheet, result }: { sheet: Sheet | undefined; result: SheetResult | undefined }) {
  const { job, results } = useJob();
  const units = useSettings((s) => s.units);
  const { prove } = results;
  if (prove) {
    return (
      <Answer says={say(prove.says, units)}>
        <Figure>{say(prove.advice, units)}</Figure>
      </Answer>
    );
  }
  if (sheet) return <SheetAnswer sheet={sheet} result={result} />;
  if ((job.setups?.rounds?.length ?? 0) > 0 || results.no_bar) {
    return (
      <Answer says="Measure both sides again">
        From the same points as before, on its wheels, bounced to settle.
      </Answer>
    );
  }
  return (
    <Answer says="Nothing to prove yet">
      Set what the Bar or Sway screen asks for and record it there, or record below what was done. Then prove
      it here.
    </Answer>
  );
}

const VERDICTS = {
  can_settle: good("proved"),
  back_to_bar: bad("off center"),
  back_to_sway: bad("links"),
  back_to_cycle: bad("still stops early"),
  not_decided: mind("decide first"),
  plan_not_fitted: mind("not installed"),
  read_again: mind("measure again"),
} satisfies Record<NonNullable<Results["prove"]>["verdict"], Sign>;

function readSection(results: Results, sheet: Sheet | undefined, result: SheetResult | undefined): Section {
  const { prove } = results;
  return {
    value: "read",
    label: "Measured",
    sign: prove ? VERDICTS[prove.verdict] : measure(),
    results: prove && (
      <>
        <Movement proof={prove} />
        <CauseOf proof={prove} />
        {prove.movement && <WorkingOut working={prove.movement.working} />}
        {result?.centring && <WorkingOut working={result.centring.working} />}
      </>
    ),
    inputs: <AfterReadings sheet={sheet} result={result} />,
  };
}

/** Why it is as it is, where there is something to search for. */
function causeSection({ diagnosis }: Results): Section[] {
  if (!diagnosis) return [];
  const open = diagnosis.confirmed.some((cause) => !cause.mended);
  return [
    {
      value: "cause",
      label: "Cause",
      sign: open ? bad("to fix") : diagnosis.told ? mind("likely found") : measure("to look at"),
      inputs: <CauseSearch found={diagnosis} />,
    },
  ];
}

/** The after-readings, or the way to where there is something to read. */
function AfterReadings({ sheet, result }: { sheet: Sheet | undefined; result: SheetResult | undefined }) {
  const { view, job, results, change } = useJob();
  const navigate = useNavigate();
  const round = job.setups?.rounds?.length ?? 0;
  if (sheet) {
    return (
      <SheetForm key={sheet.id} sheet={sheet} result={result} index={(job.sheets ?? []).indexOf(sheet)} />
    );
  }
  if (round > 0 || results.no_bar) {
    return (
      <Button look="strong" onClick={() => change(addSheet(job, "centring").edit)}>
        Start the after measurements
      </Button>
    );
  }
  if (results.bar && !results.prove) {
    return <Button onClick={() => navigate(`/jobs/${view.id}/bar`)}>Go to Bar</Button>;
  }
  return <p className="text-muted">There is nothing to measure again.</p>;
}

function roadSection(job: Job, results: Results): Section {
  const complaints = job.complaints ?? [];
  const left = openOf(job, results) + complaints.filter((complaint) => complaint.after === undefined).length;
  const { compared } = results.settling;
  const off = compared.filter((check) => check.verdict === "bad").length;
  return {
    value: "road",
    label: "Checks",
    sign: off > 0 ? bad(`${off} off`) : left > 0 ? measure(`${left} to answer`) : good("all answered"),
    inputs: (
      <>
        <LookedAt />
        <RoadTest />
        {complaints.length > 0 && <ComplaintsAgain />}
      </>
    ),
  };
}

function settleSection(job: Job, results: Results): Section {
  const { open } = results.status;
  const accepted = countsOf(results.findings).length - open;
  const settled = job.settled !== undefined && results.settled_stands === true;
  return {
    value: "settle",
    label: "Close job",
    sign: settled
      ? good("closed")
      : open > 0
        ? mind(`${open} still open`)
        : good(accepted > 0 ? `${accepted} accepted` : "clear"),
    inputs: <SettleForm />,
  };
}

function dueSection(results: Results): Section {
  const open = results.settling.reminders.filter((reminder) => !reminder.done).length;
  return {
    value: "due",
    label: "Due",
    sign: open > 0 ? plain(`${open} open`) : good("none open"),
    inputs: <Reminders />,
  };
}

function recordSection(job: Job): Section {
  const rounds = job.setups?.rounds?.length ?? 0;
  return {
    value: "record",
    label: "Record",
    sign: plain(rounds > 0 ? `${rounds} done` : "nothing yet"),
    inputs: <RecordChange />,
  };
}
