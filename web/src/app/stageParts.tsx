/** The stages' screens, each a script of its own, fetched when it is first shown or when the browser is idle. */
import { type ComponentType, lazy, type ReactNode } from "react";
import type { StageName } from "../api/client";

const SCRIPTS = {
  rig: () => import("../stages/rig"),
  tape: () => import("../stages/tape"),
  bar: () => import("../stages/bar"),
  bracket: () => import("../stages/bracket"),
  cycle: () => import("../stages/cycle"),
  sway: () => import("../stages/sway"),
  bolt_up: () => import("../stages/bolt_up"),
  prove: () => import("../stages/prove"),
} satisfies Record<StageName, () => Promise<unknown>>;

/** One component of a stage's script. */
function of<P extends object, M>(script: () => Promise<M>, pick: (module: M) => ComponentType<P>) {
  return lazy(async () => ({ default: pick(await script()) }));
}

export const SCREENS = {
  rig: of(SCRIPTS.rig, (stage) => stage.RigStage),
  tape: of(SCRIPTS.tape, (stage) => stage.TapeStage),
  bar: of(SCRIPTS.bar, (stage) => stage.BarStage),
  bracket: of(SCRIPTS.bracket, (stage) => stage.BracketStage),
  cycle: of(SCRIPTS.cycle, (stage) => stage.CycleStage),
  sway: of(SCRIPTS.sway, (stage) => stage.SwayStage),
  bolt_up: of(SCRIPTS.bolt_up, (stage) => stage.BoltUpStage),
  prove: of(SCRIPTS.prove, (stage) => stage.ProveStage),
} satisfies Record<StageName, ComponentType>;

export const CycleCanvas = of(SCRIPTS.cycle, (stage) => stage.CycleCanvas);
export const SwayCanvas = of(SCRIPTS.sway, (stage) => stage.SwayCanvas);
export const BoltUpCanvas = of(SCRIPTS.bolt_up, (stage) => stage.BoltUpCanvas);
export const HoleGhosts = of(SCRIPTS.bracket, (stage) => stage.HoleGhosts);
export const ApproachPlot = of(SCRIPTS.bracket, (stage) => stage.ApproachPlot);

const RigDetail = of(SCRIPTS.rig, (stage) => stage.RigDetail);
const TapeDetail = of(SCRIPTS.tape, (stage) => stage.TapeDetail);
const BarDetail = of(SCRIPTS.bar, (stage) => stage.BarDetail);
const BracketDetail = of(SCRIPTS.bracket, (stage) => stage.BracketDetail);
const ProveDetail = of(SCRIPTS.prove, (stage) => stage.ProveDetail);

/** What stands enlarged over the axle, where the wall is the plain elevation. */
export const DETAILS: Partial<Record<StageName, ReactNode>> = {
  rig: <RigDetail />,
  tape: <TapeDetail />,
  bar: <BarDetail />,
  bracket: <BracketDetail />,
  prove: <ProveDetail />,
};

/** Fetches the stage that is opened while its job is still on its way. */
export const preloadStage = (stage: StageName) => void SCRIPTS[stage]().catch(() => undefined);

/** Fetches every stage once there is time, so that none is missing where the program stops answering. */
export function preloadStages() {
  const fetchAll = () => {
    // One that fails now is fetched when it is shown.
    for (const script of Object.values(SCRIPTS)) void script().catch(() => undefined);
  };
  const timer = setTimeout(fetchAll, 400);
  return () => clearTimeout(timer);
}
