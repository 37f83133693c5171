import { useEffect, useRef, useState } from "react";
import type { Schemas, Side } from "../api/client";
import { say } from "../measure/format";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { Notice } from "../ui/Notice";
import { useSettings } from "../ui/settings";
import { Debrief } from "./Debrief";
import { type Act, usePractice } from "./usePractice";

type Method = Schemas["Method"];

const METHODS = [
  { value: "frame_to_hub", label: "frame to hub" },
  { value: "frame_to_sidewall", label: "frame to sidewall" },
  { value: "body_to_sidewall", label: "body to sidewall" },
] as const;

/** A press here leaves the field one is in in focus: it takes what the tape shows. */
const keepFocus = (event: React.MouseEvent) => event.preventDefault();

/** The practice vehicle: what is done to it and read of it. */
export function PracticePanel({ job }: { job: string }) {
  const { lesson, gone, act, done } = usePractice(job);
  const units = useSettings((s) => s.units);
  if (gone) return <Notice kind="refused">{gone}</Notice>;
  if (!lesson) return null;
  return (
    <section
      aria-label="The practice vehicle"
      className="grid max-h-[42vh] content-start gap-2 overflow-y-auto border-ink border-t-2 bg-slate p-3"
      data-practice={lesson.lesson.planted}
    >
      <p className="leading-snug">
        <b>{lesson.lesson.title}.</b> {lesson.lesson.begins} <b data-stands>{lesson.stands}</b>
      </p>
      <div className="grid gap-3 xl:grid-cols-[minmax(0,1fr)_208px]">
        <div className="grid content-start gap-2">
          <Tape onAct={act} />
          <Sleeve onAct={act} />
          <div className="flex flex-wrap gap-1.5">
            {lesson.possible.map(({ act: possible, says }) => (
              <Button key={JSON.stringify(possible)} onMouseDown={keepFocus} onClick={() => act(possible)}>
                <Figure>{say(says, units)}</Figure>
              </Button>
            ))}
          </div>
        </div>
        <div className="grid content-between gap-2">
          <Seen done={lesson.done} />
          <Button look="dark" onClick={() => done.mutate()}>
            I'm done
          </Button>
        </div>
      </div>
      {done.error && <Notice kind="refused">{done.error.message}</Notice>}
      {done.data && <Debrief reported={done.data} onClose={() => done.reset()} />}
    </section>
  );
}

function Tape({ onAct }: { onAct: (act: Act) => void }) {
  const [method, setMethod] = useState<Method>("frame_to_hub");
  const read = (side: Side) => onAct({ act: "read", method, side });
  return (
    <div className="flex flex-wrap items-end gap-1.5">
      <label className="grid text-[15px] text-muted">
        Measure from
        <select
          className="min-h-11 border-[1.5px] border-ink bg-slate px-2 text-ink"
          value={method}
          onChange={(event) => setMethod(event.target.value as Method)}
        >
          {METHODS.map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {(["left", "right"] as const).map((side) => (
        <Button key={side} look="strong" onMouseDown={keepFocus} onClick={() => read(side)}>
          Measure the {side}
        </Button>
      ))}
    </div>
  );
}

function Sleeve({ onAct }: { onAct: (act: Act) => void }) {
  const [turns, setTurns] = useState("0");
  const [flats, setFlats] = useState("0");
  const count = Math.trunc(Number(turns) || 0) * 6 + Math.trunc(Number(flats) || 0);
  const field = (label: string, value: string, set: (text: string) => void) => (
    <div className="grid text-[15px] text-muted">
      <label htmlFor={`sleeve ${label}`}>{label}</label>
      <input
        id={`sleeve ${label}`}
        className="min-h-11 w-24 border-[1.5px] border-ink bg-tape px-2 text-[18px] text-ink"
        inputMode="numeric"
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </div>
  );
  return (
    <div className="flex flex-wrap items-end gap-1.5">
      {field("Sleeve: turns", turns, setTurns)}
      {field("flats", flats, setFlats)}
      <Button disabled={count === 0} onClick={() => onAct({ act: "turn", flats: count })}>
        Make it longer
      </Button>
      <Button disabled={count === 0} onClick={() => onAct({ act: "turn", flats: -count })}>
        Make it shorter
      </Button>
    </div>
  );
}

/** What was done and seen, the newest in sight. */
function Seen({ done }: { done: readonly Schemas["Done"][] }) {
  const units = useSettings((s) => s.units);
  const list = useRef<HTMLOListElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new line is scrolled to
  useEffect(() => {
    list.current?.lastElementChild?.scrollIntoView({ block: "nearest" });
  }, [done.length]);
  return (
    <ol
      ref={list}
      className="grid max-h-32 content-start overflow-y-auto text-[16px] text-muted"
      data-seen={done.length}
    >
      {done.map((one, index) => (
        <li key={index}>
          {one.act.act === "read" && `${one.act.side}: `}
          <Figure>{say(one.says, units)}</Figure>
        </li>
      ))}
    </ol>
  );
}
