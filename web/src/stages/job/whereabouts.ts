/** In which stage a place of the document is typed. */
import type { StageName } from "../../api/client";

const STAGE_OF: readonly (readonly [string, StageName])[] = [
  ["/setups/found/axle_holes", "cycle"],
  ["/setups/found/frame_holes", "cycle"],
  ["/setups/plans/trial", "cycle"],
  ["/setups/plans/sway", "sway"],
  ["/setups/plans/chosen", "bracket"],
  ["/setups", "bar"],
  ["/sheets", "tape"],
  ["/hardpoints", "tape"],
  ["/bracket", "bracket"],
  ["/sway", "sway"],
  ["/bolt_up", "bolt_up"],
  ["/proof", "prove"],
];

/** The stage; what is not said elsewhere is said in Rig. */
export const stageOf = (pointer: string): StageName =>
  STAGE_OF.find(([prefix]) => pointer.startsWith(prefix))?.[1] ?? "rig";
