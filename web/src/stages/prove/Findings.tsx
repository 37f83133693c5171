import { ArrowRight, CircleCheck, CircleHelp, OctagonAlert } from "lucide-react";
import type { Schemas } from "../../api/client";
import { countsOf, isAccepted } from "../../job/standing";
import { useGoTo } from "../../job/useGoTo";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { accept } from "./edits";

type Finding = Schemas["Finding"];

const VERDICTS = {
  fails: { word: "Fails", icon: OctagonAlert },
  open: { word: "Still open", icon: CircleHelp },
  not_checked: { word: "Still open", icon: CircleHelp },
  close: { word: "Close", icon: CircleHelp },
} satisfies Record<Finding["verdict"], { word: string; icon: typeof CircleHelp }>;

/** What stands between proved and closed, the worst first: each is put right where it is, or accepted with a reason. */
export function Findings() {
  const { results } = useJob();
  const counted = countsOf(results.findings);
  if (counted.length === 0) return null;
  return (
    <section className="grid gap-2" data-gates={counted.length}>
      <h3 className="font-semibold">Before you close it</h3>
      {counted.map((finding) => (
        <FindingRow key={finding.key} finding={finding} />
      ))}
    </section>
  );
}

function FindingRow({ finding }: { finding: Finding }) {
  const { view, change } = useJob();
  const units = useSettings((s) => s.units);
  const go = useGoTo();
  const accepted = isAccepted(finding);
  const { word, icon } = VERDICTS[finding.verdict];
  const Icon = accepted ? CircleCheck : icon;
  const edge = accepted ? "border-line" : finding.weight === "safety" ? "border-axle" : "border-marker";
  return (
    <div
      className={`grid gap-1 border-l-[5px] bg-paper py-1.5 pr-2 pl-2.5 leading-snug ${edge}`}
      data-gate={finding.key}
      data-accepted={accepted}
    >
      <button
        type="button"
        className="settle grid min-h-11 w-full grid-cols-[auto_minmax(0,1fr)_auto] items-start gap-2 text-left hover:bg-tape"
        onClick={() => go(finding.stage, finding.goes_to)}
      >
        <Icon size={20} aria-hidden className="mt-0.5 shrink-0" />
        <span>
          <b>{accepted ? "Accepted" : finding.weight === "safety" ? "Safety" : word}.</b>{" "}
          <Figure>{say(finding.says, units)}</Figure>
        </span>
        <ArrowRight size={18} aria-hidden className="mt-0.5" />
      </button>
      {finding.acceptable ? (
        <TextField
          job={view.id}
          pointer={`/proof/acceptances/${finding.key}`}
          label="Close it anyway, because"
          value={finding.accepted?.because ?? ""}
          onCommit={(because) =>
            change(
              accept(finding, say(finding.says, units), {
                because,
                by: finding.accepted?.by,
                at: new Date().toISOString(),
              }),
            )
          }
        />
      ) : (
        <p className="text-muted">Fix this first. A job can't be closed over this with a reason.</p>
      )}
    </div>
  );
}
