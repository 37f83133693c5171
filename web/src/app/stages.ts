import type { StageName } from "../api/client";

/** The stages that work, in working order. */
export const STAGES = [
  "rig",
  "tape",
  "bar",
  "bracket",
  "cycle",
  "sway",
  "bolt_up",
  "prove",
] as const satisfies readonly StageName[];

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

export function isStage(text: string | undefined): text is StageName {
  return STAGES.some((stage) => stage === text);
}
