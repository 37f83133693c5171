import { Link } from "react-router";
import { say } from "../measure/format";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { Modal } from "./Modal";
import type { Debriefing } from "./usePractice";

/** The truth beside what was believed, and what a careful hand would have done. */
export function Debrief({ reported, onClose }: { reported: Debriefing; onClose: () => void }) {
  const units = useSettings((s) => s.units);
  const minutes = Math.max(1, Math.round(reported.seconds / 60));
  return (
    <Modal open onOpenChange={onClose} title={reported.won ? "Done right" : "Not there yet"}>
      <div className="grid gap-3" data-debrief={reported.won ? "won" : "lost"}>
        <p>
          <Figure>{say(reported.says, units)}</Figure>
        </p>
        {reported.passed_over.length > 0 && (
          <section>
            <h3 className="font-semibold">What was missed</h3>
            <ul className="list-disc pl-5">
              {reported.passed_over.map((says) => (
                <li key={says.in}>
                  <Figure>{say(says, units)}</Figure>
                </li>
              ))}
            </ul>
          </section>
        )}
        <section>
          <h3 className="font-semibold">What this lesson teaches</h3>
          <p>{reported.learns}</p>
        </section>
        <section>
          <h3 className="font-semibold">What a careful mechanic would do</h3>
          <p>{reported.careful}</p>
        </section>
        <p className="text-muted">
          {reported.readings} {reported.readings === 1 ? "reading" : "readings"} of the tape, {minutes}{" "}
          {minutes === 1 ? "minute" : "minutes"}.
        </p>
        <div className="flex flex-wrap gap-2">
          <Button onClick={onClose}>Keep going with this vehicle</Button>
          <Link
            to="/practice"
            className="inline-flex min-h-11 items-center rounded-[3px] border-[1.5px] border-ink bg-marker px-3 font-semibold text-on-marker"
          >
            Back to the lessons
          </Link>
        </div>
      </div>
    </Modal>
  );
}
