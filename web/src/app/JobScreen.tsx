import { Suspense, useEffect, useMemo, useState } from "react";
import { Navigate, useParams } from "react-router";
import type { StageName } from "../api/client";
import { ElevationView } from "../elevation/ElevationView";
import { type Pointer, Rule } from "../elevation/Rule";
import { Stick } from "../elevation/Stick";
import { useStance } from "../elevation/stance";
import { useLook } from "../elevation/walk/useLook";
import { StageFindings } from "../job/StageFindings";
import { useSession } from "../job/session";
import { useJob } from "../job/useJob";
import { at } from "../measure/travel";
import { useOpenStep } from "../stages/bolt_up/useWorked";
import { Button } from "../ui/Button";
import { Cautions } from "../ui/Cautions";
import { FractionPad } from "../ui/FractionPad";
import { Notice } from "../ui/Notice";
import { useOpened } from "../ui/opened";
import { Refused } from "../ui/refused";
import { Walkable } from "../walk/Walkable";
import { ConflictDialog } from "./ConflictDialog";
import { Gone } from "./Gone";
import { KeysDialog } from "./KeysDialog";
import { PracticePanel } from "./PracticePanel";
import { RegistryBar } from "./RegistryBar";
import { StageStrip } from "./StageStrip";
import { Start } from "./Start";
import {
  ApproachPlot,
  BoltUpCanvas,
  CycleCanvas,
  DETAILS,
  HoleGhosts,
  preloadStage,
  preloadStages,
  SCREENS,
  SwayCanvas,
} from "./stageParts";
import { isStage } from "./stages";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";
import { isPractice } from "./usePractice";

/** A job: opens it, then shows the stage asked for. */
export function JobScreen() {
  const { id = "", stage } = useParams();
  const { view, document, state, missing, left, unopened, open, close } = useSession();
  useEffect(() => {
    useStance.setState({ travel: null, crossed: null, playing: false, round: "heave" });
    useLook.setState({ look: null });
    useOpened.getState().shutAll();
    useOpenStep.setState({ key: null });
    void open(id);
    return close;
  }, [id, open, close]);
  useEffect(() => {
    // With a plan at hand the bar stages show the plan, the stages before it what was found.
    const planned = stage === "bar" || stage === "bracket" || stage === "cycle" || stage === "prove";
    useStance.setState({ shown: planned ? "planned" : "found", crossed: null, playing: false });
  }, [stage]);
  useEffect(() => {
    if (isStage(stage)) preloadStage(stage);
  }, [stage]);
  if (!isStage(stage) && stage !== "start") return <Navigate to={`/jobs/${id}/tape`} replace />;
  if (missing) return <Gone document={left} saved={null} />;
  if (view?.id === id && state === "gone") return <Gone document={document} saved={view.document} />;
  if (!view || view.id !== id)
    return (
      <main className="grid h-full place-content-center p-6 text-center text-muted">
        {unopened ? <p role="alert">Can't open the job yet: {unopened} Trying again.</p> : "Opening the job…"}
      </main>
    );
  return isStage(stage) ? <Work stage={stage} /> : <Start />;
}

function Work({ stage }: { stage: StageName }) {
  const { view, results } = useJob();
  const [keysShown, showKeys] = useState(false);
  useKeys(view.id, () => showKeys(true));
  useEffect(preloadStages, []);
  const Screen = SCREENS[stage];
  const { faults, state } = useSession();
  const refused = useMemo(
    () => new Map(state === "idle" ? [] : faults.map((fault) => [fault.pointer, fault.message])),
    [faults, state],
  );
  return (
    <Refused value={refused}>
      <div className="grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto_auto_auto]">
        <TopBar onKeys={() => showKeys(true)} />
        <div className="min-h-0 scroll-pt-32 overflow-y-auto overflow-x-clip lg:grid lg:grid-cols-[minmax(0,1fr)_424px] lg:overflow-hidden md:max-lg:grid md:max-lg:grid-cols-[minmax(0,1fr)_400px] md:max-lg:overflow-hidden">
          {isPractice(view.id) ? (
            <div className="grid min-h-0 md:grid-rows-[minmax(0,1fr)_auto]" data-short>
              <CanvasOf stage={stage} />
              <PracticePanel job={view.id} />
            </div>
          ) : (
            <CanvasOf stage={stage} />
          )}
          <main className="flex min-h-0 flex-col border-ink bg-slate max-md:border-t-2 md:border-l-2">
            <div
              className="grid min-h-0 flex-1 scroll-pt-32 scroll-pb-4 content-start gap-4 p-4 md:overflow-y-auto"
              data-panel
              key={`panel of ${stage}`}
            >
              <Faults />
              <Suspense fallback={<p className="text-muted">Opening…</p>}>
                <Screen />
              </Suspense>
            </div>
            <StageFindings stage={stage} />
            <Cautions key={stage} cautions={results.cautions} stage={stage} />
          </main>
        </div>
        <RegistryRow />
        {/* A row of its own, so that its keys never move under a finger. */}
        <FractionPad />
        <StageStrip current={stage} />
        <ConflictDialog />
        <KeysDialog open={keysShown} onOpenChange={showKeys} />
      </div>
    </Refused>
  );
}

/** A row of its own whether anything is joined or not, so that the rows below keep their places. */
const RegistryRow = () => (
  <div>
    <RegistryBar />
  </div>
);

function CanvasOf({ stage }: { stage: StageName }) {
  return (
    <Suspense fallback={<section aria-label="The axle to scale" className="min-h-0" />}>
      <CanvasIn stage={stage} />
    </Suspense>
  );
}

function CanvasIn({ stage }: { stage: StageName }) {
  if (stage === "cycle") return <CycleCanvas />;
  if (stage === "sway") return <SwayCanvas />;
  if (stage === "bolt_up") return <BoltUpCanvas />;
  return <Canvas stage={stage} />;
}

/** What comes with a stage's own script: the wall stands without it until it is there. */
const Late = ({ children }: { children: React.ReactNode }) => <Suspense fallback={null}>{children}</Suspense>;

function Faults() {
  const { faults, state, why, cause, dropChange } = useSession();
  if (cause && state !== "idle")
    return (
      <div role="alert">
        <Notice kind="refused">
          Not saved yet: {cause} What you typed is kept here and sent again by itself.
        </Notice>
      </div>
    );
  if (state !== "refused") return null;
  const reported = faults.map((fault) => `${fault.pointer}: ${fault.message}`).join(" ") || why;
  return (
    <div className="grid justify-items-start gap-2" role="alert">
      <Notice kind="refused">Not saved: {reported} The rest is saved. Enter it again, or discard it.</Notice>
      <Button onClick={dropChange}>Discard what was refused</Button>
    </div>
  );
}

/** The bay wall: elevation, the rule under it, the stick beside it. */
function Canvas({ stage }: { stage: StageName }) {
  const { job, results } = useJob();
  const { elevation, bar } = results;
  const sweep = bar?.sweep ?? [];
  // Where it is not decided yet what is set, nothing is drawn as if it were.
  const correction = bar?.correction?.decide_first ? undefined : bar?.correction;
  const hasPlan = correction !== undefined;
  const set = correction?.set;
  const lengths = bar && {
    found: bar.found.length_mm,
    planned: set?.length_mm ?? correction?.planned.length_mm ?? bar.found.length_mm,
  };
  return (
    <section
      aria-label="The axle to scale"
      className="grid min-h-0 grid-cols-[minmax(0,1fr)_auto] grid-rows-[minmax(0,1fr)] gap-1 p-2 max-md:h-[440px] md:p-3"
    >
      <Walkable under={<LiveRule />}>
        <ElevationView
          elevation={elevation}
          sweep={sweep}
          steeringSide={job.rig?.steering_side}
          hasPlan={hasPlan}
          lengths={lengths}
          planName={set ? "as set" : "plan"}
          detail={<Late>{DETAILS[stage]}</Late>}
          overlay={
            stage === "bracket"
              ? (scene) => (
                  <Late>
                    <HoleGhosts scene={scene} />
                  </Late>
                )
              : undefined
          }
        />
      </Walkable>
      <div className="min-h-0">
        <Stick
          elevation={elevation}
          heights={results.heights}
          low={sweep[0]?.travel_mm ?? elevation.full_droop_mm}
          high={sweep[sweep.length - 1]?.travel_mm ?? elevation.full_bump_mm}
          beside={
            stage === "bracket"
              ? (scale) => (
                  <Late>
                    <ApproachPlot scale={scale} className="ml-4 max-xl:hidden" />
                  </Late>
                )
              : undefined
          }
          plot={(stage === "bar" || stage === "prove") && sweep.length > 0 ? { sweep, hasPlan } : undefined}
        />
      </div>
    </section>
  );
}

/** The rule's pointers go with the stick. */
function LiveRule() {
  const { results } = useJob();
  const travel = useStance((s) => s.travel) ?? results.elevation.driven_travel_mm;
  const { bar, prove } = results;
  const sample = at(bar?.sweep ?? [], travel);
  const read = results.sheets.findLast(
    (sheet) => sheet.kind === "centring" && sheet.centring && (!prove || sheet.id !== prove.sheet),
  );
  const basis = bar?.correction?.basis;
  const tolerance = results.tolerance_mm;
  const after = prove?.after;
  const moved =
    sample && bar ? sample.found_mm - (at(bar.sweep, results.elevation.driven_travel_mm)?.found_mm ?? 0) : 0;
  const pointers: Pointer[] = [];
  const foundMm = sample?.found_mm ?? read?.centring?.offset_mm;
  if (after) {
    pointers.push({
      name: "proved",
      kind: "proved",
      mm: after.offset_mm + moved,
      uncertainty: after.uncertainty_mm,
    });
  }
  const beforeMm = prove?.movement?.before_mm;
  if (prove && beforeMm !== undefined)
    pointers.push({ name: "as found", kind: "found", mm: beforeMm + moved });
  if (!prove && foundMm !== undefined && (read?.centring || bar?.lift)) {
    pointers.push({
      name: basis?.source === "lift" ? "estimated" : "as found",
      kind: "found",
      mm: foundMm,
      uncertainty: basis?.uncertainty_mm ?? read?.centring?.uncertainty_mm,
    });
  }
  if (!prove && sample && bar?.correction && !bar.correction.decide_first)
    pointers.push({ name: bar.correction.set ? "as set" : "plan", kind: "plan", mm: sample.planned_mm });
  return <Rule pointers={pointers} tolerance={tolerance} />;
}
