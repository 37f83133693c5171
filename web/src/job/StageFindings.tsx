import { OctagonAlert } from "lucide-react";
import type { StageName } from "../api/client";
import { say } from "../measure/format";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { standingIn } from "./standing";
import { useGoTo } from "./useGoTo";
import { useJob } from "./useJob";

/** The worst of what fails on this screen, and a press to its place, or to the list of all that stands in the way. */
export function StageFindings({ stage }: { stage: StageName }) {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const go = useGoTo();
  // What ends the travel is the Cycle screen's own answer.
  const standing = standingIn(results, stage).filter(({ kind }) => kind !== "travel_ends");
  const [worst] = standing;
  // The Prove screen has the whole list.
  if (!worst || stage === "prove") return null;
  return (
    <button
      type="button"
      className="settle flex min-h-11 w-full items-center gap-2 border-axle border-t-2 bg-paper px-3 py-1.5 text-left leading-tight hover:bg-tape"
      data-stage-findings={standing.length}
      onClick={() => (worst.goes_to ? go(worst.stage, worst.goes_to) : go("prove"))}
    >
      <OctagonAlert size={20} aria-hidden className="shrink-0 text-axle" />
      <span className="line-clamp-2 min-w-0 flex-1">
        <Figure>{say(worst.says, units)}</Figure>
      </span>
      {standing.length > 1 && <span className="shrink-0 text-muted">{standing.length - 1} more</span>}
    </button>
  );
}
