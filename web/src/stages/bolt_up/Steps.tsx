import { Check, ChevronDown, ChevronUp, CircleSlash, Plus } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { isTaken } from "../../ui/focus";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { Tick } from "../../ui/Tick";
import { Warning } from "../../ui/Warning";
import { mark, ownKey, setStep, setWork } from "./edits";
import { Reason } from "./Reason";
import { TightenField } from "./TightenField";
import { openStep, type StepLine, timeOf, useOpenStep, useStepTimes, type WorkResult } from "./useWorked";

/** Every step in its order, the open one with all it says. */
export function Steps({ worked }: { worked: WorkResult }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const { key, look } = useOpenStep();
  const open = openStep(worked, key)?.step.key;
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== "t" || event.ctrlKey || event.metaKey || event.altKey || isTaken(event))
        return;
      list.current?.querySelector<HTMLButtonElement>("[data-open] > button[aria-pressed]")?.click();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  return (
    <>
      {worked.broken.map((fault) => (
        <Notice key={`${fault.first} ${fault.then}`} kind="warning">
          <Figure>{say(fault.says, units)}</Figure>
        </Notice>
      ))}
      <TimeLeft worked={worked} />
      <ol ref={list} className="grid" data-steps>
        {worked.steps.map((step, index) => (
          <Step
            key={step.key}
            step={step}
            number={index + 1}
            worked={worked}
            open={step.key === open}
            onOpen={() => look(step.key)}
          />
        ))}
      </ol>
      {worked.gone.map((gone) => (
        <p key={gone.in} className="text-muted">
          <Figure>{say(gone, units)}</Figure>
        </p>
      ))}
      <OwnStep steps={worked.steps} />
      {(job.bolt_up?.order ?? []).length > 0 && (
        <div className="grid gap-1">
          <Tick
            label="This is the manufacturer's sequence"
            value={job.bolt_up?.makers_order}
            onPick={(makers_order) => change(setWork({ makers_order }))}
          />
          <div>
            <Button onClick={() => change(setWork({ order: [] }))}>Back to the standard sequence</Button>
          </div>
        </div>
      )}
    </>
  );
}

/** How long the steps that are left take, as far as the shop has them on record. */
function TimeLeft({ worked }: { worked: WorkResult }) {
  const times = useStepTimes();
  if (!times || times.size === 0) return null;
  const left = worked.steps.filter((step) => !["done", "changed", "struck"].includes(step.state));
  const known = left.flatMap((step) => timeOf(times, step.key) ?? []);
  if (known.length === 0) return null;
  const minutes = Math.round(known.reduce((sum, time) => sum + time, 0));
  const reported = minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
  return (
    <p className="text-[16px] text-muted" data-time-left>
      About {reported} for {known.length} of the {left.length} steps left, from this shop's own times.
    </p>
  );
}

type StepProps = { step: StepLine; number: number; worked: WorkResult; open: boolean; onOpen: () => void };

function Step({ step, number, worked, open, onOpen }: StepProps) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  const [asking, ask] = useState<Asking>(null);
  const look = useOpenStep((s) => s.look);
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (open) line.current?.scrollIntoView({ block: "nearest" });
  }, [open]);
  const ticked = step.state === "done" || step.state === "changed";
  const struck = step.state === "struck";
  const tick = (against: string) => {
    change((old) =>
      setStep(step.key, {
        done: mark(old.bolt_up),
        read: say(step.does, units),
        by_ids: step.by_ids && say(step.by_ids, units),
        stood: step.key === "on-its-weight" ? "on_its_weight" : old.bolt_up?.stands,
        against,
      })(step.key === "on-its-weight" ? setWork({ stands: "on_its_weight" })(old) : old),
    );
    ask(null);
    look(null);
  };
  const press = () => {
    if (ticked || struck) return onOpen();
    onOpen();
    if (step.waits.length > 0 || step.minds.length > 0) return ask("against");
    tick("");
  };
  return (
    <li
      ref={line}
      className={`grid scroll-mt-16 scroll-mb-2 grid-cols-[minmax(0,1fr)_auto] gap-x-2 border-line border-b py-1.5 ${open ? "-mx-2 bg-tape px-2" : ""}`}
      data-step={step.key}
      data-state={step.state}
      data-open={open || undefined}
    >
      <button
        type="button"
        onClick={onOpen}
        className="min-h-11 scroll-mt-16 text-left leading-tight"
        aria-expanded={open}
      >
        <span
          className={`grid grid-cols-[1.6rem_minmax(0,1fr)] ${struck ? "line-through opacity-60" : ticked ? "opacity-70" : "font-semibold"}`}
        >
          <span className="font-bold">{number}</span>
          <span>
            <Figure>{say(step.does, units)}</Figure>
          </span>
        </span>
        {step.stands && <span className="block pl-[1.6rem] text-[15px] text-muted">{step.stands_says}</span>}
      </button>
      <button
        type="button"
        aria-pressed={ticked}
        aria-label={`tick ${say(step.does, units)}`}
        onClick={press}
        className={`settle relative grid size-14 shrink-0 scroll-mt-16 place-content-center rounded-[3px] border-2 ${
          ticked ? "border-ink bg-marker text-on-marker" : "border-ink bg-slate"
        }`}
      >
        {ticked ? <Check size={34} aria-hidden /> : struck ? <CircleSlash size={26} aria-hidden /> : null}
        <span className="sr-only">{step.state}</span>
      </button>
      {step.reported.length > 0 && (
        <div className="col-span-2 mt-1 grid gap-1" data-reported>
          {step.reported.map((reported) => (
            <Notice key={reported.in} kind="warning">
              <Figure>{say(reported, units)}</Figure>
            </Notice>
          ))}
        </div>
      )}
      {open && <OpenStep step={step} worked={worked} asking={asking} onAsk={ask} onTick={tick} />}
    </li>
  );
}

type Asking = "against" | "struck" | null;

type OpenStepProps = {
  step: StepLine;
  worked: WorkResult;
  asking: Asking;
  onAsk: (asking: Asking) => void;
  onTick: (against: string) => void;
};

/** What an open step says: how, why, what to mind, what is tightened, and what can be done with it. */
function OpenStep({ step, worked, asking, onAsk, onTick }: OpenStepProps) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const record = job.bolt_up?.steps?.find((known) => known.key === step.key);
  return (
    <div className="col-span-2 grid gap-2 py-2">
      {step.how && (
        <p className="leading-snug">
          <Figure>{say(step.how, units)}</Figure>
        </p>
      )}
      <p className="text-[16px] text-muted leading-snug">Why: {step.because}</p>
      {step.caution && <Warning>{step.caution}</Warning>}
      {[...step.minds, ...step.waits.map((wait) => wait.says)].map((says) => (
        <Notice key={says.in} kind={step.state === "stopped" ? "refused" : "question"}>
          <Figure>{say(says, units)}</Figure>
        </Notice>
      ))}
      {step.tightens.map((key) => {
        const line = worked.fasteners.find((known) => known.key === key);
        return line && <TightenField key={key} line={line} />;
      })}
      {asking === "against" && (
        <Reason
          ask="Do it out of order, because"
          go="Mark it done anyway"
          onGo={onTick}
          onLeave={() => onAsk(null)}
        />
      )}
      {asking === "struck" && (
        <Reason
          ask="Skip this step, because"
          go="Skip this step"
          onGo={(reason) => {
            change(setStep(step.key, { struck: reason }));
            onAsk(null);
          }}
          onLeave={() => onAsk(null)}
        />
      )}
      {record?.struck && <p>Skipped: {record.struck}</p>}
      {record?.done && (
        <p className="text-[16px] text-muted">
          Done {new Date(record.done.at).toLocaleString()}
          {record.done.by && ` by ${record.done.by}`}
        </p>
      )}
      <StepButtons step={step} worked={worked} onStrike={() => onAsk("struck")} />
    </div>
  );
}

type StepButtonsProps = { step: StepLine; worked: WorkResult; onStrike: () => void };

function StepButtons({ step, worked, onStrike }: StepButtonsProps) {
  const { change } = useJob();
  const ticked = step.state === "done" || step.state === "changed";
  const struck = step.state === "struck";
  return (
    <div className="flex flex-wrap gap-2">
      {ticked && (
        <Button
          onClick={() =>
            change(setStep(step.key, { done: undefined, read: "", by_ids: undefined, against: "" }))
          }
        >
          Undo the check mark
        </Button>
      )}
      {struck && (
        <Button onClick={() => change(setStep(step.key, { struck: "" }))}>Put it back in the plan</Button>
      )}
      {!ticked && !struck && <Button onClick={() => onStrike()}>Skip this step</Button>}
      {step.own && (
        <Button
          onClick={() =>
            change(setWork((work) => ({ own: (work.own ?? []).filter((own) => own.key !== step.key) })))
          }
        >
          Remove
        </Button>
      )}
      <Move worked={worked} step={step} by={-1} />
      <Move worked={worked} step={step} by={1} />
    </div>
  );
}

/** A step one place up or down, in an order of the person's own. */
function Move({ worked, step, by }: { worked: WorkResult; step: StepLine; by: -1 | 1 }) {
  const { change } = useJob();
  const keys = worked.steps.map((known) => known.key);
  const at = keys.indexOf(step.key);
  const other = keys[at + by];
  const Icon = by < 0 ? ChevronUp : ChevronDown;
  return (
    <Button
      disabled={other === undefined}
      onClick={() => {
        const order = keys.map((key, index) =>
          index === at ? (other ?? key) : index === at + by ? step.key : key,
        );
        change(setWork({ order }));
      }}
    >
      <Icon size={18} aria-hidden />
      {by < 0 ? "earlier" : "later"}
    </Button>
  );
}

function OwnStep({ steps }: { steps: readonly StepLine[] }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const { key } = useOpenStep();
  const [does, setDoes] = useState("");
  const after = steps.find((step) => step.key === key) ?? steps.at(-1);
  const add = () => {
    const step = { key: ownKey(job.bolt_up?.own), does: does.trim(), ...(after && { after: after.key }) };
    change(setWork((work) => ({ own: [...(work.own ?? []), step] })));
    setDoes("");
  };
  return (
    <Fold title="Add a step of your own">
      <label className="block text-[15px] text-muted">
        What to do{after && <> after “{say(after.does, units)}”</>}
        <input
          className="min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2"
          value={does}
          onChange={(event) => setDoes(event.target.value)}
        />
      </label>
      <div className="mt-2">
        <Button onClick={add} disabled={does.trim() === ""}>
          <Plus size={18} aria-hidden />
          Add it
        </Button>
      </div>
    </Fold>
  );
}
