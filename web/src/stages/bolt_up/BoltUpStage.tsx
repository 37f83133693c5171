import { Printer } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { bad, good, measure, plain, type Sign } from "../../ui/sign";
import { TextField } from "../../ui/TextField";
import { setWork } from "./edits";
import { Fasteners } from "./Fasteners";
import { Making } from "./Making";
import { Parts } from "./Parts";
import { PutBack } from "./PutBack";
import { Steps } from "./Steps";
import { Tools } from "./Tools";
import { openStep, useOpenStep, useWorked, type WorkResult } from "./useWorked";

const STANDS = optionsOf<Schemas["Stands"]>({
  supported: "on jack stands",
  on_its_weight: "on its wheels",
});

/** The work in order: steps, parts, fasteners, tools, what is made, what goes back. */
export function BoltUpStage() {
  const { view } = useJob();
  const units = useSettings((s) => s.units);
  const worked = useWorked();
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
        <Notice kind={worked.next ? "refused" : "question"}>
          <Figure>{say(worked.minds, units)}</Figure>
        </Notice>
      )}
      <PutBack />
      <Sections label="Parts of the work" of="bolt_up" sticky={false} sections={sectionsOf(worked)} />
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

function sectionsOf(worked: WorkResult): Section[] {
  const left = worked.steps.length - worked.done;
  const open = worked.fasteners.filter((line) => line.tightness === "open").length;
  const fetch = worked.tools.filter((tool) => !tool.there).length;
  return [
    {
      value: "steps",
      label: "Steps",
      sign: left > 0 ? plain(`${left} left`) : good("all done"),
      inputs: <Steps worked={worked} />,
    },
    { value: "parts", label: "Parts", sign: partsSign(worked), inputs: <Parts worked={worked} /> },
    {
      value: "fasteners",
      label: "Bolts",
      sign: open > 0 ? measure(`${open} open`) : plain("none open"),
      inputs: <Fasteners worked={worked} />,
    },
    {
      value: "tools",
      label: "Tools",
      sign: fetch > 0 ? measure(`${fetch} to get`) : good("have all"),
      inputs: <Tools worked={worked} />,
    },
    { value: "making", label: "Cut and drill", sign: makingSign(worked), inputs: <Making worked={worked} /> },
  ];
}

function partsSign(worked: WorkResult): Sign {
  const wrong = worked.parts.filter((part) => part.stops).length;
  const off = worked.fit.filter((check) => check.verdict === "bad").length;
  if (wrong + off > 0) return bad(`${wrong + off} wrong`);
  return plain(worked.parts.length > 0 ? `${worked.parts.length}` : "none new");
}

function makingSign(worked: WorkResult): Sign {
  const { length } = worked.drills;
  return plain(
    length > 0 ? `${length} hole${length > 1 ? "s" : ""}` : worked.mock_up ? "mock-up" : "nothing",
  );
}

/** Who works, and how the vehicle stands: kept with every tick. */
function HowItStands() {
  const { view, job, change } = useJob();
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)] items-end gap-3">
      <Choice
        label="The vehicle is now"
        value={job.bolt_up?.stands}
        options={STANDS}
        onPick={(stands) => change(setWork({ stands }))}
      />
      <TextField
        job={view.id}
        pointer="/bolt_up/by"
        label="Your name"
        value={job.bolt_up?.by ?? ""}
        onCommit={(by) => change(setWork({ by }))}
      />
    </div>
  );
}
