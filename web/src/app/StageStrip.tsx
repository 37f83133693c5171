import { Check, OctagonAlert, Plus, RotateCcw } from "lucide-react";
import { Link } from "react-router";
import type { StageName, StageResult } from "../api/client";
import { stageOf } from "../job/stageForPointer";
import { standingIn } from "../job/standing";
import { useJob } from "../job/useJob";
import { say } from "../measure/format";
import { Figure } from "../ui/Figure";
import { goToField } from "../ui/reveal";
import { useSettings } from "../ui/settings";
import { STAGE_NAMES } from "./stages";

const WORDS = {
  nothing: "nothing yet",
  begun: "begun",
  settled: "settled",
  needs_look: "needs another look",
} satisfies Record<StageResult["progress"], string>;

/** The stages this work needs along the bottom edge, each with its state and its figure; the others are behind a press. */
export function StageStrip({ current }: { current: StageName }) {
  const { results, change } = useJob();
  const numbered = results.stages.map((stage, index) => ({ stage, number: index + 1 }));
  const shown = numbered.filter(({ stage }) => stage.needed || stage.stage === current);
  const behind = numbered.length - shown.length;
  return (
    <nav
      aria-label="Stages"
      className="row-start-4 grid auto-cols-fr grid-flow-col border-ink border-t-2 bg-slate"
      data-behind={behind}
    >
      {shown.map(({ stage, number }) => (
        <StageLink key={stage.stage} stage={stage} number={number} here={stage.stage === current} />
      ))}
      {behind > 0 && (
        <button
          type="button"
          className="settle flex min-h-14 items-center justify-center gap-1.5 px-1 leading-tight hover:bg-tape"
          data-more-stages
          onClick={() => change((job) => ({ ...job, all_stages: true }))}
        >
          <Plus size={18} aria-hidden className="shrink-0" />
          <span className="max-sm:text-[12.5px]">
            more stages<span className="max-sm:sr-only"> ({behind})</span>
          </span>
        </button>
      )}
    </nav>
  );
}

type StageLinkProps = { stage: StageResult; number: number; here: boolean };

function StageLink({ stage, number, here }: StageLinkProps) {
  const { view, results } = useJob();
  const units = useSettings((s) => s.units);
  // A stage that has no answer yet is gone to for the sake of what it lacks.
  const lacks =
    stage.progress !== "settled" &&
    results.bar_missing.find(({ code, pointer }) => code === "missing" && stageOf(pointer) === stage.stage);
  return (
    <Link
      onClick={() => lacks && goToField(lacks.pointer)}
      to={`/jobs/${view.id}/${stage.stage}`}
      aria-current={here ? "step" : undefined}
      className={`settle flex min-h-14 min-w-0 items-center gap-2 border-line border-r px-0.5 py-1.5 last:border-r-0 sm:px-2 ${here ? "bg-strip text-on-strip" : "hover:bg-tape"}`}
      data-stage={stage.stage}
      data-progress={stage.progress}
    >
      <Badge number={number} progress={stage.progress} here={here} />
      <span className="min-w-0">
        <span className="block whitespace-nowrap font-bold leading-tight max-sm:text-[12.5px] max-sm:tracking-tight">
          {STAGE_NAMES[stage.stage]}
          <Mark stage={stage.stage} here={here} />
        </span>
        <span className="line-clamp-3 text-[12.5px] leading-[1.1] max-sm:tracking-tighter sm:line-clamp-2 sm:text-[15.5px]">
          <Figure narrow>{say(stage.headline, units)}</Figure>
        </span>
        <span className="sr-only">{WORDS[stage.progress]}</span>
      </span>
    </Link>
  );
}

/** How many things of a stage stand in the way of closing the job. */
function Mark({ stage, here }: { stage: StageName; here: boolean }) {
  const { results } = useJob();
  const standing = standingIn(results, stage).length;
  if (standing === 0) return null;
  return (
    <span
      className={`ml-1 inline-flex items-center gap-0.5 align-baseline font-semibold text-[13px] max-sm:ml-0.5 ${here ? "" : "text-axle"}`}
      data-standing={standing}
    >
      <OctagonAlert size={12} aria-hidden />
      <span className="max-sm:sr-only">{standing}</span>
      <span className="sr-only"> to put right or accept</span>
    </span>
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
