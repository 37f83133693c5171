import type { SetupCycle } from "../../api/client";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

/** The drag link against the bar, and what it steers over the travel. */
export function Steering({ setup }: { setup: SetupCycle }) {
  const units = useSettings((s) => s.units);
  const { steering } = setup;
  if (!steering) return null;
  return (
    <section className="grid gap-1.5" data-steering>
      {[steering.says, steering.match_says, steering.change_says].map((words) => (
        <p key={words.in}>
          <Figure>{say(words, units)}</Figure>
        </p>
      ))}
    </section>
  );
}
