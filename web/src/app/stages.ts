import type { StageName } from "../api/client";

/** The stages in working order, each with its name: a new one does not compile until it is here. */
export const STAGE_NAMES = {
  rig: "Rig",
  tape: "Tape",
  bar: "Bar",
  bracket: "Bracket",
  cycle: "Cycle",
  sway: "Sway",
  bolt_up: "Bolt-up",
  prove: "Prove",
} satisfies Record<StageName, string>;

export const STAGES = Object.keys(STAGE_NAMES) as StageName[];

export function isStage(text: string | undefined): text is StageName {
  return STAGES.some((stage) => stage === text);
}
