import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Job = Schemas["Job"];
export type JobView = Schemas["JobView"];
export type JobLine = Schemas["JobLine"];
export type Results = Schemas["Results"];
export type Problem = Schemas["Problem"];
export type FieldError = Schemas["FieldError"];
export type TapeEntry = Schemas["TapeEntry"];
export type AngleEntry = Schemas["AngleEntry"];
export type Unit = Schemas["Unit"];
export type Side = Schemas["Side"];
export type Phrase = Schemas["Phrase"];
export type Working = Schemas["Working"];
export type Sheet = Schemas["Sheet"];
export type SheetResult = Schemas["SheetResult"];
export type Sample = Schemas["Sample"];
export type Elevation = Schemas["Elevation"];
export type CycleResult = Schemas["CycleResult"];
export type SetupCycle = Schemas["SetupCycle"];
export type PoseResult = Schemas["PoseResult"];
export type Envelope = Schemas["EnvelopeResult"];
export type Limit = Schemas["LimitResult"];
export type HolePlace = Schemas["HolePlace"];
export type PlanResult = Schemas["PlanResult"];
export type PlanOption = Schemas["OptionResult"];
export type PlanForm = Schemas["PlanForm"];
export type Approach = Schemas["ApproachResult"];
export type Part = Schemas["Part"];
export type PartView = Schemas["PartView"];
export type SwayResult = Schemas["SwayResult"];
export type SwayLinks = Schemas["SwayLinks"];
export type SwayPose = Schemas["SwayPose"];
export type SwayPoses = Schemas["SwayPoses"];
export type StowResult = Schemas["StowResult"];
export type SwayChoice = Schemas["ChoiceResult"];
export type StageName = Schemas["Stage"];
export type StageResult = Schemas["StageResult"];

export const client = createClient<paths>({ baseUrl: "" });

/** What a call came to: data, a problem the server named, or no answer at all. */
export type Answer<T> = { data: T } | { problem: Problem } | { silent: true };

/** Waits for a call and folds a dead server into the answer. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Answer<T>> {
  try {
    const { data, error, response } = await call;
    if (response.ok) return { data: data as T };
    return { problem: asProblem(error, response) };
  } catch {
    return { silent: true };
  }
}

function asProblem(error: unknown, response: Response): Problem {
  if (typeof error === "object" && error !== null && "code" in error) return error as Problem;
  return {
    type: "about:blank",
    title: response.statusText,
    status: response.status,
    code: "unknown",
    detail: `The server answered ${response.status}. Reload the page.`,
  };
}

/** The headers that name the revision a change is based on, and the edit. */
export function ifMatch(revision: number, edit?: string) {
  const based = { "If-Match": `"${revision}"` };
  return edit === undefined ? based : { ...based, "Idempotency-Key": edit };
}
