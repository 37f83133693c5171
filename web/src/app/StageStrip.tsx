import { Check, RotateCcw } from "lucide-react";
import { Link } from "react-router";
import type { StageName, StageResult } from "../api/client";
import { say } from "../measure/format";
import { useJob } from "../stages/job/useJob";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { STAGE_NAMES } from "./stages";

const WORDS = {
  nothing: "nothing yet",
  begun: "begun",
  settled: "settled",
  needs_look: "needs another look",
} satisfies Record<StageResult["progress"], string>;

/** The stages along the bottom edge, each with its state and its figure. */
export function StageStrip({ current }: { current: StageName }) {
  const { view, results } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <nav aria-label="Stages" className="row-start-4 grid grid-cols-8 border-ink border-t-2 bg-slate">
      {results.stages.map((stage, index) => {
        const here = stage.stage === current;
        return (
          <Link
            key={stage.stage}
            to={`/jobs/${view.id}/${stage.stage}`}
            aria-current={here ? "step" : undefined}
            className={`settle flex min-h-14 min-w-0 items-center gap-2 border-line border-r px-0.5 py-1.5 last:border-r-0 sm:px-2 ${here ? "bg-strip text-on-strip" : "hover:bg-tape"}`}
            data-stage={stage.stage}
            data-progress={stage.progress}
          >
            <Badge number={index + 1} progress={stage.progress} here={here} />
            <span className="min-w-0">
              <span className="block whitespace-nowrap font-bold leading-tight max-sm:text-[12.5px] max-sm:tracking-tight">
                {STAGE_NAMES[stage.stage]}
              </span>
              <span className="block truncate text-[14px] leading-tight sm:text-[16px]">
                <Figure>{say(stage.headline, units)}</Figure>
              </span>
              <span className="sr-only">{WORDS[stage.progress]}</span>
            </span>
          </Link>
        );
      })}
    </nav>
  );
}

function Badge({
  number,
  progress,
  here,
}: {
  number: number;
  progress: StageResult["progress"];
  here: boolean;
}) {
  const looks = {
    nothing: "border-muted text-muted",
    begun: "border-ink",
    settled: "border-ink bg-ink text-slate",
    needs_look: "border-axle bg-axle text-slate",
  } satisfies Record<StageResult["progress"], string>;
  const look = here ? "border-on-strip bg-marker text-on-marker" : looks[progress];
  return (
    <span
      className={`grid size-7 shrink-0 place-content-center rounded-full border-[1.5px] font-bold text-[15px] max-sm:hidden ${look}`}
      aria-hidden
    >
      {progress === "settled" && !here ? (
        <Check size={16} />
      ) : progress === "needs_look" && !here ? (
        <RotateCcw size={15} />
      ) : (
        number
      )}
    </span>
  );
}
