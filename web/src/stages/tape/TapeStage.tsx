import { Plus } from "lucide-react";
import { useState } from "react";
import type { Sheet, SheetResult } from "../../api/client";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { addSheet } from "../job/edits";
import { ReadNext } from "../job/ReadNext";
import { useJob } from "../job/useJob";
import { Points } from "./Points";
import { SheetForm } from "./SheetForm";

const KINDS = { centring: "Centring", stick_out: "Sway-bar stick-out", squareness: "Squareness" } as const;

function nameOf(sheet: Sheet, index: number): string {
  const round = sheet.round ?? 0;
  const when = round === 0 ? "as found" : `after setting ${round}`;
  return `${index + 1}. ${KINDS[sheet.kind ?? "centring"]}, ${when}`;
}

/** Readings on both sides, and what they say. */
export function TapeStage() {
  const { job, results, change } = useJob();
  const [picked, setPicked] = useState<string | null>(null);
  const sheets = job.sheets ?? [];
  const current = sheets.findLast((sheet) => (sheet.kind ?? "centring") === "centring");
  const sheet = sheets.find((s) => s.id === picked) ?? current ?? sheets[sheets.length - 1];
  const index = sheet ? sheets.indexOf(sheet) : -1;
  const result = results.sheets.find((r) => r.id === sheet?.id);
  const start = (kind: Sheet["kind"]) => {
    const { id, edit } = addSheet(job, kind);
    change(edit);
    setPicked(id);
  };
  return (
    <>
      {sheet ? (
        <SheetAnswer sheet={sheet} result={result} />
      ) : (
        <Answer says="No readings yet">Start a sheet, then read each side three or four times.</Answer>
      )}
      <ReadNext result={result} />
      {sheets.length > 1 && sheet?.id !== undefined && (
        <Choice
          label="Sheets of this job"
          value={sheet.id}
          options={sheets.map((s, at) => ({ value: s.id ?? "", label: nameOf(s, at) }))}
          onPick={setPicked}
        />
      )}
      {sheet && <SheetForm key={sheet.id} sheet={sheet} result={result} index={index} />}
      {result?.centring && <WorkingOut working={result.centring.working} />}
      {result?.squareness && <WorkingOut working={result.squareness.working} />}
      <div className="flex flex-wrap gap-2">
        {(["centring", "squareness", "stick_out"] as const).map((kind) => (
          <Button
            key={kind}
            look={sheets.length === 0 && kind === "centring" ? "strong" : "plain"}
            onClick={() => start(kind)}
          >
            <Plus size={18} aria-hidden />
            {kind === "centring" ? "New centring sheet" : kind === "squareness" ? "Squareness" : "Stick-out"}
          </Button>
        ))}
      </div>
      <Points />
    </>
  );
}

/** What a sheet answers, with its refusals and second thoughts. */
export function SheetAnswer({ sheet, result }: { sheet: Sheet; result: SheetResult | undefined }) {
  const units = useSettings((s) => s.units);
  const one = (sheet.left?.length ?? 0) + (sheet.right?.length ?? 0) > 0;
  return (
    <>
      <Answer says={result?.says ? say(result.says, units) : one ? "Now the other side" : "Read both sides"}>
        {result?.advice ? (
          <span data-advice>
            <Figure>{say(result.advice, units)}</Figure>
          </span>
        ) : (
          "Each side three or four times, walking round. Enter goes to the next reading."
        )}
      </Answer>
      {result?.refusals.map((refusal) => (
        <Notice key={refusal.in} kind="refused">
          {say(refusal, units)}
        </Notice>
      ))}
      {result?.second_thoughts.map((thought) => (
        <Notice key={thought.in} kind="warning">
          <Figure>{say(thought, units)}</Figure>
        </Notice>
      ))}
    </>
  );
}
