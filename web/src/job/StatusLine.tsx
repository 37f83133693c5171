import { ArrowRight } from "lucide-react";
import { say } from "../measure/format";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { useGoTo } from "./useGoTo";
import { useJob } from "./useJob";

/** Where the job stands, and a press that goes to its next step. */
export function StatusLine() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const go = useGoTo();
  const { state, says, next } = results.status;
  return (
    <div className="mt-3 border-ink border-t pt-2 leading-snug" data-status={state}>
      <b>{say(says, units)}.</b>
      {next && (
        <button
          type="button"
          className="settle grid min-h-11 w-full grid-cols-[minmax(0,1fr)_auto] items-center gap-2 text-left underline hover:bg-tape"
          data-next-step={next.stage}
          onClick={() => go(next.stage, next.goes_to)}
        >
          <span>
            Next: <Figure>{say(next.says, units)}</Figure>
          </span>
          <ArrowRight size={18} aria-hidden />
        </button>
      )}
    </div>
  );
}
