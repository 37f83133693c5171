import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";

const ABOUT = optionsOf<Schemas["ComplaintAbout"]>({
  off_centre: "off center",
  side_stepping: "side-stepping",
  wander: "wander",
  wobble: "wobble",
  rocking: "rocking",
  leans_in_bends: "leans in bends",
  rub: "tire rub",
  clunk: "clunk",
  wheel_crooked: "steering wheel off center",
  lifts_early: "wheel lifts early",
});

/** What a complaint suggests to look at, in this job's figures. */
function Advice({ complaint }: { complaint: number }) {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const advice = results.complaints?.find((reported) => reported.complaint === complaint);
  if (!advice) return null;
  return (
    <ul className="list-disc pl-6 text-[16px] leading-snug" data-advice={complaint}>
      {advice.says.map((says) => (
        <li key={says.in}>
          <Figure>{say(says, units)}</Figure>
        </li>
      ))}
    </ul>
  );
}

/** What is complained about, in the owner's words and by its kind. */
export function Complaints() {
  const { view, job, change } = useJob();
  const complaints = job.complaints ?? [];
  const set = (next: Schemas["Complaint"][]) => change((old) => ({ ...old, complaints: next }));
  return (
    <fieldset className="grid gap-2" data-pointer="/complaints">
      <legend className="mb-1 text-[15px] text-muted">
        What the driver complains about (asked again on Prove)
      </legend>
      {complaints.map((complaint, index) => (
        <div key={index} className="grid gap-1">
          <TextField
            job={view.id}
            pointer={`/complaints/${index}/text`}
            label={`complaint ${index + 1}`}
            required
            value={complaint.text}
            onCommit={(text) => set(complaints.map((old, at) => (at === index ? { ...old, text } : old)))}
          />
          <div className="flex gap-2">
            <select
              aria-label={`complaint ${index + 1} is about`}
              className="min-h-11 min-w-0 flex-1 border-[1.5px] border-ink bg-slate px-2"
              value={complaint.about ?? ""}
              onChange={(event) => {
                const about = (event.target.value || undefined) as Schemas["ComplaintAbout"] | undefined;
                set(complaints.map((old, at) => (at === index ? { ...old, about } : old)));
              }}
            >
              <option value="">what is it about?</option>
              {ABOUT.map(({ value, label }) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </select>
            <Button
              look="quiet"
              aria-label={`remove complaint ${index + 1}`}
              onClick={() => set(complaints.filter((_, at) => at !== index))}
            >
              <Trash2 size={18} aria-hidden />
            </Button>
          </div>
          <Advice complaint={index} />
        </div>
      ))}
      <div>
        <Button onClick={() => set([...complaints, { text: "New complaint" }])}>
          <Plus size={18} aria-hidden />
          Add a complaint
        </Button>
      </div>
    </fieldset>
  );
}
