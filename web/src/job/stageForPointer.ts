/** In which stage a place of the document is typed. */
import type { Job, Schemas, StageName } from "../api/client";

/** Every part of the document: a new one does not compile until somebody has said where it is typed. */
const OF_PART = {
  format: "rig",
  version: "rig",
  title: "rig",
  notes: "rig",
  to_do: "rig",
  all_stages: "rig",
  complaints: "rig",
  rig: "rig",
  vehicle: "rig",
  hardpoints: "tape",
  sheets: "tape",
  setups: "bar",
  bracket: "bracket",
  sway: "sway",
  bolt_up: "bolt_up",
  diagnosis: "prove",
  proof: "prove",
  settled: "prove",
} satisfies Record<keyof Job, StageName>;

const OF_FOUND = {
  bar: "bar",
  adjuster: "bar",
  axle_holes: "cycle",
  frame_holes: "cycle",
} satisfies Record<keyof Schemas["Found"], StageName>;

const OF_PLANS = {
  chosen: "bracket",
  kept: "bracket",
  sway: "sway",
  parts: "bolt_up",
  not_here: "bolt_up",
  trial: "cycle",
} satisfies Record<keyof Schemas["Plans"], StageName>;

/** What of an adjustment is typed once it is proved; the rest is typed where it is set. */
const OF_ROUND: Partial<Record<keyof Schemas["Round"], StageName>> = {
  moved: "prove",
  drag_link_length: "prove",
  cause: "prove",
  parts: "prove",
  sway_link: "sway",
  sway_hole: "sway",
};

const at = (stages: Record<string, StageName>, part: string | undefined): StageName | undefined =>
  part === undefined ? undefined : stages[part];

/** The stage; what is not said elsewhere is said in Rig. */
export function stageOf(pointer: string): StageName {
  // A height that other heights are taken from: typed with the sizes, too.
  if (pointer === "/sway/room/rail_underside") return "rig";
  const [, part, of, field, ofRow] = pointer.split("/");
  if (part === "setups" && of === "rounds") return at(OF_ROUND, ofRow) ?? "bar";
  const within =
    part !== "setups" ? undefined : of === "found" ? OF_FOUND : of === "plans" ? OF_PLANS : undefined;
  return (within && at(within, field)) ?? at(OF_PART, part) ?? "rig";
}
