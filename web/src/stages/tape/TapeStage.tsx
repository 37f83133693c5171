import { Plus } from "lucide-react";
import { useState } from "react";
import type { Job, Sheet, SheetResult } from "../../api/client";
import { addSheet } from "../../job/edits";
import { ReadNext } from "../../job/ReadNext";
import { useJob } from "../../job/useJob";
import { useNeeds } from "../../job/useNeeds";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { type Section, Sections } from "../../ui/Sections";
import { bad, good, measure, mind, plain, type Sign } from "../../ui/sign";
import { WorkingOut } from "../../ui/WorkingOut";
import { BarBody } from "./BarBody";
import { NearbyParts } from "./NearbyParts";
import { Obstacles } from "./Obstacles";
import { Points } from "./Points";
import { SheetAnswer } from "./SheetAnswer";
import { SheetForm } from "./SheetForm";
import { SteeringInput } from "./SteeringInput";
import { TieRodInput } from "./TieRodInput";

const KINDS = { centring: "Centering", stick_out: "Sway-bar stick-out", squareness: "Squareness" } as const;

function nameOf(job: Job, sheet: Sheet, index: number): string {
  const round = (job.setups?.rounds ?? []).findIndex(({ id }) => id === sheet.after) + 1;
  const when = round === 0 ? "as found" : `after adjustment ${round}`;
  return `${index + 1}. ${KINDS[sheet.kind ?? "centring"]}, ${when}`;
}

/** Readings on both sides, and what they say. */
export function TapeStage() {
  const { job, results } = useJob();
  const needs = useNeeds();
  const [picked, setPicked] = useState<string | null>(null);
  const sheets = job.sheets ?? [];
  const current = sheets.findLast((sheet) => (sheet.kind ?? "centring") === "centring");
  const sheet = sheets.find((s) => s.id === picked) ?? current ?? sheets[sheets.length - 1];
  const result = results.sheets.find((r) => r.id === sheet?.id);
  const sections = [
    readingsSection(sheet, result, <Readings sheet={sheet} result={result} onPick={setPicked} />),
    ...(needs("cycle", "sway") ? pointsSections(job) : []),
  ];
  return (
    <>
      {sheet ? (
        <SheetAnswer sheet={sheet} result={result} />
      ) : (
        <Answer says="No measurements yet">Measure each side three or four times.</Answer>
      )}
      <ReadNext result={result} />
      <Sections label="Tape inputs" of="tape" sections={sections} />
    </>
  );
}

function signOf(sheet: Sheet | undefined, result: SheetResult | undefined): Sign {
  if (!sheet) return measure("to read");
  if (result && result.refusals.length > 0) return bad("can't use");
  if (result && result.second_thoughts.length > 0) return mind("check again");
  return result?.says ? good("measured") : measure("to measure");
}

function readingsSection(
  sheet: Sheet | undefined,
  result: SheetResult | undefined,
  inputs: React.ReactNode,
): Section {
  return { value: "readings", label: "Both sides", sign: signOf(sheet, result), inputs };
}

type ReadingsProps = {
  sheet: Sheet | undefined;
  result: SheetResult | undefined;
  onPick: (id: string) => void;
};

/** The sheet in view with its working, the other sheets, and new ones. */
function Readings({ sheet, result, onPick }: ReadingsProps) {
  const { job, change } = useJob();
  const sheets = job.sheets ?? [];
  const start = (kind: Sheet["kind"]) => {
    const { id, edit } = addSheet(job, kind);
    change(edit);
    onPick(id);
  };
  return (
    <>
      {sheets.length > 1 && sheet?.id !== undefined && (
        <Choice
          label="Measurements of this job"
          value={sheet.id}
          options={sheets.map((s, at) => ({ value: s.id ?? "", label: nameOf(job, s, at) }))}
          onPick={onPick}
        />
      )}
      {sheet && <SheetForm key={sheet.id} sheet={sheet} result={result} index={sheets.indexOf(sheet)} />}
      {result?.centring && <WorkingOut working={result.centring.working} />}
      {result?.squareness && <WorkingOut working={result.squareness.working} />}
      <div className="flex flex-wrap gap-2">
        {(["centring", "squareness", "stick_out"] as const).map((kind) => (
          <Button
            key={kind}
            look={sheets.length === 0 && kind === "centring" ? "strong" : "plain"}
            data-pointer={kind === "centring" && sheets.length === 0 ? "/sheets" : undefined}
            onClick={() => start(kind)}
          >
            <Plus size={18} aria-hidden />
            {kind === "centring"
              ? "New left-right measurement"
              : kind === "squareness"
                ? "Squareness"
                : "Stick-out"}
          </Button>
        ))}
      </div>
    </>
  );
}

/** What else is measured with a tape, each kind of part for itself. */
function pointsSections(job: Job): Section[] {
  const { arms, bar, steering, obstacles, spring_front_half } = job.hardpoints ?? {};
  const reported = (some: boolean) => plain(some ? "measured" : "assumed");
  const typed = (part: object | undefined) => Object.keys(part ?? {}).length > 0;
  return [
    {
      value: "links",
      label: "Mounts",
      sign: job.rig?.axle_location
        ? reported(typed(arms) || spring_front_half !== undefined)
        : measure("which?"),
      inputs: <Points />,
    },
    ...(job.rig?.axle_location === "y_link"
      ? []
      : [{ value: "bar", label: "Bar", sign: reported(typed(bar)), inputs: <BarBody /> }]),
    ...(job.rig?.end === "front"
      ? [
          {
            value: "steering",
            label: "Steering",
            sign: plain(steering ? "measured" : "not said"),
            inputs: (
              <>
                <SteeringInput />
                <TieRodInput />
              </>
            ),
          },
        ]
      : []),
    {
      value: "obstacles",
      label: "In the way",
      sign: plain(obstacles?.length ? `${obstacles.length} parts` : "nothing"),
      inputs: (
        <>
          <Obstacles />
          <NearbyParts />
        </>
      ),
    },
  ];
}
