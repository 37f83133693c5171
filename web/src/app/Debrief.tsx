import { Link } from "react-router";
import { say } from "../measure/format";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { Modal } from "./Modal";
import type { Debriefing } from "./usePractice";

/** The truth beside what was believed, and what a careful hand would have done. */
export function Debrief({ told, onClose }: { told: Debriefing; onClose: () => void }) {
  const units = useSettings((s) => s.units);
  const minutes = Math.max(1, Math.round(told.seconds / 60));
  return (
    <Modal open onOpenChange={onClose} title={told.won ? "Won" : "Not won yet"}>
      <div className="grid gap-3" data-debrief={told.won ? "won" : "lost"}>
        <p>
          <Figure>{say(told.says, units)}</Figure>
        </p>
        {told.passed_over.length > 0 && (
          <section>
            <h3 className="font-semibold">What was passed over</h3>
            <ul className="list-disc pl-5">
              {told.passed_over.map((says) => (
                <li key={says.in}>
                  <Figure>{say(says, units)}</Figure>
                </li>
              ))}
            </ul>
          </section>
        )}
        <section>
          <h3 className="font-semibold">What this one teaches</h3>
          <p>{told.learns}</p>
        </section>
        <section>
          <h3 className="font-semibold">What a careful hand would have done</h3>
          <p>{told.careful}</p>
        </section>
        <p className="text-muted">
          {told.readings} {told.readings === 1 ? "reading" : "readings"} of the tape, {minutes}{" "}
          {minutes === 1 ? "minute" : "minutes"}.
        </p>
        <div className="flex flex-wrap gap-2">
          <Button onClick={onClose}>Go on with this vehicle</Button>
          <Link
            to="/practice"
            className="inline-flex min-h-11 items-center rounded-[3px] border-[1.5px] border-ink bg-marker px-3 font-semibold text-on-marker"
          >
            To the lessons
          </Link>
        </div>
      </div>
    </Modal>
  );
}
