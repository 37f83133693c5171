import { CalendarDays, Check } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { isPast, say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { setProof } from "./edits";

type Reminder = Schemas["Reminder"];

/** What is due after the work: with its day, its odometer, and a calendar to take along. */
export function Reminders() {
  const { view, job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const { reminders } = results.settling;
  if (reminders.length === 0)
    return <p className="text-muted">Nothing was loosened or set: nothing is due.</p>;
  const done = ({ kind }: Reminder) =>
    change(
      setProof((proof) => ({
        reminders: [
          ...(proof.reminders ?? []),
          { kind, done: { at: new Date().toISOString(), ...(proof.by && { by: proof.by }) } },
        ],
      })),
    );
  return (
    <section>
      <div className="mb-2 grid grid-cols-2 gap-2">
        <label className="block text-[15px] text-muted">
          Date back on the road
          <input
            type="date"
            className="min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2"
            value={job.proof?.on_the_road ?? ""}
            onChange={(event) => change(setProof({ on_the_road: event.target.value || undefined }))}
          />
        </label>
        <TextField
          job={view.id}
          pointer="/proof/odometer"
          label="Odometer that day"
          value={job.proof?.odometer ?? ""}
          hint="such as 84210 mi"
          onCommit={(odometer) => change(setProof({ odometer }))}
        />
      </div>
      <ul className="grid" data-reminders>
        {reminders.map((reminder, index) => {
          const late = reminder.due !== undefined && !reminder.done && isPast(reminder.due);
          return (
            <li
              key={`${reminder.kind} ${index}`}
              className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-2 border-line border-b py-1.5"
              data-reminder={reminder.kind}
            >
              <span className="leading-tight">
                <Figure>{say(reminder.says, units)}</Figure>
                <span className={`block text-[15px] ${late ? "font-semibold text-axle" : "text-muted"}`}>
                  {late && "Overdue: "}
                  {reminder.due ?? "date not known yet"}
                  {reminder.odometer_says && `, ${say(reminder.odometer_says, units)}`}
                  {reminder.done && `, done ${new Date(reminder.done.done.at).toLocaleDateString()}`}
                </span>
              </span>
              {reminder.done ? (
                <Check size={24} aria-label="done" />
              ) : (
                <Button onClick={() => done(reminder)}>Mark done</Button>
              )}
            </li>
          );
        })}
      </ul>
      {reminders.some((reminder) => reminder.due) && (
        <a
          className="mt-2 inline-flex min-h-11 items-center gap-2 underline"
          href={`/api/v1/jobs/${view.id}/reminders.ics`}
          download
        >
          <CalendarDays size={20} aria-hidden />
          Download as a calendar file
        </a>
      )}
    </section>
  );
}
