import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

const AFTER = optionsOf<Schemas["ComplaintAfter"]>({
  gone: "gone",
  better: "better",
  same: "the same",
  worse: "worse",
});

/** What was complained about, asked again after the road test. */
export function ComplaintsAgain() {
  const { job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const complaints = job.complaints ?? [];
  return (
    <section className="grid gap-3">
      <h3 className="font-semibold">Recheck the complaints after the road test</h3>
      {complaints.map((complaint, index) => {
        const advice = results.complaints?.find((reported) => reported.complaint === index);
        return (
          <div key={index} className="grid gap-1" data-pointer={`/complaints/${index}/after`}>
            <Choice
              label={complaint.text}
              value={complaint.after}
              options={AFTER}
              onPick={(after) =>
                change((old) => ({
                  ...old,
                  complaints: (old.complaints ?? []).map((c, at) => (at === index ? { ...c, after } : c)),
                }))
              }
            />
            {advice?.again && (
              <ul className="list-disc pl-6" data-advice={index}>
                {advice.says.map((says) => (
                  <li key={says.in}>
                    <Figure>{say(says, units)}</Figure>
                  </li>
                ))}
              </ul>
            )}
          </div>
        );
      })}
    </section>
  );
}
