import { Check } from "lucide-react";
import { say } from "../measure/format";
import { Button } from "../ui/Button";
import { useSettings } from "../ui/settings";
import { recordParts } from "./installs";
import { useJob } from "./useJob";

/** What this job installs besides bar, brackets and drag link, and the press that puts it on record. */
export function InstalledParts() {
  const { job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const installs = results.settling.installs;
  const open = installs.filter((line) => !line.on_record).map((line) => line.part);
  if (installs.length === 0) return null;
  return (
    <section className="grid gap-2 border-[1.5px] border-ink bg-paper p-3" data-installs>
      <ul className="grid gap-1">
        {installs.map((line) => (
          <li key={line.part} className="flex items-center justify-between gap-2">
            <span>{say(line.says, units)}</span>
            {line.on_record ? (
              <span className="inline-flex shrink-0 items-center gap-1">
                <Check size={16} aria-hidden />
                installed
              </span>
            ) : (
              <span className="shrink-0 text-muted">not on record</span>
            )}
          </li>
        ))}
      </ul>
      {open.length > 0 && (
        <div>
          <Button look="strong" onClick={() => change(recordParts(open, job.bolt_up?.by))}>
            {open.length > 1 ? "They are installed" : "It is installed"}
          </Button>
        </div>
      )}
    </section>
  );
}
