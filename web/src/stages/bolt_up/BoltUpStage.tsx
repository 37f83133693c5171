import { Printer } from "lucide-react";
import { useState } from "react";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { useJob } from "../job/useJob";
import { setWork } from "./edits";
import { Fasteners } from "./Fasteners";
import { Making } from "./Making";
import { Parts } from "./Parts";
import { PutBack } from "./PutBack";
import { Steps } from "./Steps";
import { Tools } from "./Tools";
import { openStep, useOpenStep, useWorked, type WorkResult } from "./useWorked";

const STANDS = [
  { value: "supported", label: "on stands" },
  { value: "on_its_weight", label: "on its weight" },
] as const;

/** The work in order: steps, parts, fasteners, tools, what is made, what goes back. */
export function BoltUpStage() {
  const { view } = useJob();
  const units = useSettings((s) => s.units);
  const worked = useWorked();
  const [section, pick] = useState("steps");
  const key = useOpenStep((s) => s.key);
  if (!worked) return <Answer says="Planning the work…" />;
  const open = openStep(worked, key);
  const of = worked.steps.length;
  return (
    <>
      {open && worked.done < of ? (
        <Answer says={`Step ${open.number} of ${of}`}>
          {/* At a bench it stands on the wall, big enough to read from under the vehicle. */}
          <p className="font-semibold md:sr-only">
            <Figure>{say(open.step.does, units)}</Figure>
          </p>
        </Answer>
      ) : (
        <Answer says={say(worked.says, units)} />
      )}
      {worked.minds && (
        <Notice kind={worked.steps.length > 0 ? "refused" : "question"}>
          <Figure>{say(worked.minds, units)}</Figure>
        </Notice>
      )}
      <PutBack />
      <Sections
        label="Parts of the work"
        value={section}
        onPick={pick}
        sections={[
          {
            value: "steps",
            label: "Steps",
            sign: `${worked.steps.length - worked.done} left`,
            content: <Steps worked={worked} />,
          },
          { value: "parts", label: "Parts", sign: partsSign(worked), content: <Parts worked={worked} /> },
          {
            value: "fasteners",
            label: "Fasteners",
            sign: `${worked.fasteners.filter((line) => line.tightness === "open").length} open`,
            content: <Fasteners worked={worked} />,
          },
          {
            value: "tools",
            label: "Tools",
            sign: `${worked.tools.filter((tool) => !tool.there).length} to fetch`,
            content: <Tools worked={worked} />,
          },
          { value: "making", label: "Making", sign: makingSign(worked), content: <Making worked={worked} /> },
        ]}
      />
      <HowItStands />
      <a
        className="settle inline-flex min-h-11 w-fit items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3"
        href={`/api/v1/jobs/${view.id}/card.pdf`}
        target="_blank"
        rel="noreferrer"
      >
        <Printer size={18} aria-hidden />
        Print the job card
      </a>
    </>
  );
}

function partsSign(worked: WorkResult) {
  const wrong = worked.parts.filter((part) => part.stops).length;
  const bad = worked.fit.filter((check) => check.verdict === "bad").length;
  if (wrong + bad > 0) return `${wrong + bad} wrong`;
  return worked.parts.length > 0 ? `${worked.parts.length}` : "none new";
}

function makingSign(worked: WorkResult) {
  const { length } = worked.drills;
  return length > 0 ? `${length} hole${length > 1 ? "s" : ""}` : worked.mock_up ? "mock-up" : "nothing";
}

/** Who works, and how the vehicle stands: kept with every tick. */
function HowItStands() {
  const { view, job, change } = useJob();
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)] items-end gap-3">
      <Choice
        label="It stands now"
        value={job.bolt_up?.stands}
        options={STANDS}
        onPick={(stands) => change(setWork({ stands }))}
      />
      <TextField
        job={view.id}
        pointer="/bolt_up/by"
        label="Who works"
        value={job.bolt_up?.by ?? ""}
        onCommit={(by) => change(setWork({ by }))}
      />
    </div>
  );
}
