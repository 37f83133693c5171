import { useState } from "react";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { mark, setWork, type Work } from "./edits";
import { Reason } from "./Reason";

type TakenOff = NonNullable<Work["taken_off"]>[number];

/** What was taken off on the way and must go back: always in sight. */
export function PutBack() {
  const { job, change } = useJob();
  const [name, setName] = useState("");
  const [staying, stay] = useState<number | null>(null);
  const list = job.bolt_up?.taken_off ?? [];
  const off = list.filter((taken) => !taken.back && !taken.stays_off);
  const set = (index: number, part: Partial<TakenOff>) =>
    change(
      setWork((work) => ({
        taken_off: (work.taken_off ?? []).map((old, at) => (at === index ? { ...old, ...part } : old)),
      })),
    );
  const add = () => {
    change(setWork((work) => ({ taken_off: [...(work.taken_off ?? []), { name: name.trim() }] })));
    setName("");
  };
  return (
    <section
      className="sticky top-0 z-10 md:-top-4 border-frame border-l-4 bg-paper px-2 py-0.5 shadow-sm"
      aria-label="Put back"
      data-put-back={off.length}
    >
      <Fold
        title={
          off.length === 0
            ? `Nothing left to put back${list.length > 0 ? ": all of it is back on" : ""}`
            : `Off: ${off.map((taken) => taken.name).join(", ")}`
        }
      >
        {off.length > 0 && (
          <ul className="grid">
            {list.map(
              (taken, index) =>
                !taken.back &&
                !taken.stays_off && (
                  <li key={taken.name} className="grid gap-1 border-line border-b py-1">
                    <div className="flex items-center justify-between gap-2">
                      <b className="leading-tight">{taken.name}</b>
                      <span className="flex shrink-0 gap-1.5">
                        <Button onClick={() => set(index, { back: mark(job.bolt_up) })}>It is back on</Button>
                        <Button look="quiet" onClick={() => stay(index)}>
                          stays off
                        </Button>
                      </span>
                    </div>
                    {staying === index && (
                      <Reason
                        ask="It stays off because"
                        go="Save"
                        onGo={(reason) => {
                          set(index, { stays_off: reason });
                          stay(null);
                        }}
                        onLeave={() => stay(null)}
                      />
                    )}
                  </li>
                ),
            )}
          </ul>
        )}
        <label className="block text-[15px] text-muted">
          What you took off or loosened: a clip, a harness, a wheel
          <input
            className="min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2"
            value={name}
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => event.key === "Enter" && name.trim() !== "" && add()}
          />
        </label>
        <div className="mt-2 flex flex-wrap gap-2">
          <Button onClick={add} disabled={name.trim() === ""}>
            It is off
          </Button>
        </div>
        {list.length > off.length && (
          <ul className="mt-2 list-disc pl-6 text-[16px]">
            {list.map(
              (taken) =>
                (taken.back || taken.stays_off) && (
                  <li key={taken.name}>
                    {taken.name}: {taken.back ? "back" : `stays off, because ${taken.stays_off}`}
                  </li>
                ),
            )}
          </ul>
        )}
      </Fold>
    </section>
  );
}
