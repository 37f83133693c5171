/** Edits of a document, each giving a new one. */
import type { Job, Schemas, Sheet, TapeEntry } from "../api/client";
import { newId } from "./ids";

type Rig = Schemas["Rig"];
type Bar = Schemas["Bar"];
type AdjusterForm = Schemas["AdjusterForm"];
type Round = Schemas["Round"];
type PlanForm = Schemas["PlanForm"];

export const setRig =
  (rig: Partial<Rig>) =>
  (job: Job): Job => ({ ...job, rig: { ...job.rig, ...rig } });

export const setBar =
  (bar: Partial<Bar>) =>
  (job: Job): Job => ({
    ...job,
    setups: {
      ...job.setups,
      found: { ...job.setups?.found, bar: { ...job.setups?.found?.bar, ...bar } },
    },
  });

export const setAdjuster =
  (adjuster: Partial<AdjusterForm>) =>
  (job: Job): Job => ({
    ...job,
    setups: {
      ...job.setups,
      found: { ...job.setups?.found, adjuster: { ...job.setups?.found?.adjuster, ...adjuster } },
    },
  });

export const setSheet =
  (id: string, sheet: Partial<Sheet>) =>
  (job: Job): Job => ({
    ...job,
    sheets: (job.sheets ?? []).map((old) => (old.id === id ? { ...old, ...sheet } : old)),
  });

/** Puts a reading in its place, or takes it out; places between stay empty. */
export const setReading =
  (id: string, side: "left" | "right", place: number, entry: TapeEntry | undefined) =>
  (job: Job): Job => {
    const sheet = job.sheets?.find((old) => old.id === id);
    const readings = [...(sheet?.[side] ?? [])];
    while (readings.length <= place) readings.push(null);
    readings[place] = entry ?? null;
    while (readings.at(-1) === null) readings.pop();
    return setSheet(id, { [side]: readings })(job);
  };

/** A fresh sheet, like the one before it where there is one. */
export function addSheet(job: Job, kind: Sheet["kind"]): { id: string; edit: (job: Job) => Job } {
  const after = job.setups?.rounds?.at(-1)?.id ?? "";
  const like = job.sheets?.findLast((old) => old.kind === kind);
  const id = newId("sheet");
  const sheet: Sheet = {
    id,
    kind,
    ...(after && { after }),
    method: like?.method ?? "frame_to_hub",
    sense: like?.sense ?? "outward",
    unit: like?.unit ?? job.rig?.sheet_unit ?? "in",
    left: [],
    right: [],
    conditions: {},
    ...(like?.plumb_drop && { plumb_drop: like.plumb_drop }),
    ...(like?.between_points && { between_points: like.between_points }),
  };
  return { id, edit: (old) => ({ ...old, sheets: [...(old.sheets ?? []), sheet] }) };
}

/** The last round, mended; taken out where nothing is left of it. */
export const mendRound =
  (part: Partial<Round>) =>
  (job: Job): Job => {
    const rounds = job.setups?.rounds ?? [];
    const last = rounds.at(-1);
    if (!last) return job;
    const mended: Round = { ...last, ...part };
    const left = "length" in part && !part.length ? [] : [mended];
    return { ...job, setups: { ...job.setups, rounds: [...rounds.slice(0, -1), ...left] } };
  };

export const removeSheet =
  (id: string) =>
  (job: Job): Job => ({
    ...job,
    sheets: (job.sheets ?? []).filter((sheet) => sheet.id !== id),
  });

/** What was fitted or set: a round, as the core has it ready, with what the person measured. */
export const addRound =
  (round: Round) =>
  (job: Job): Job => ({
    ...job,
    setups: {
      ...job.setups,
      rounds: [...(job.setups?.rounds ?? []), { ...round, id: newId("round"), at: new Date().toISOString() }],
    },
  });

type Hole = Schemas["Hole"];
type Hardpoints = Schemas["Hardpoints"];
type Arm = Schemas["Arm"];
type ArmName = keyof Schemas["Arms"];

type Plans = Schemas["Plans"];

const setPlans =
  (part: Partial<Plans>) =>
  (job: Job): Job => ({ ...job, setups: { ...job.setups, plans: { ...job.setups?.plans, ...part } } });

/** The other end of a trial stays; nothing tried is no trial. */
export function tried(
  trial: PlanForm | undefined,
  end: "axle" | "frame",
  hole: string,
): PlanForm | undefined {
  const next: PlanForm = { ...trial, [end]: hole === "" ? undefined : { hole } };
  return next.axle || next.frame ? next : undefined;
}

export const setTrial = (trial: PlanForm | undefined) => setPlans({ trial });

/** Puts a bracket's holes; a hole that is tried is let go of with it. */
export const setHoles =
  (end: "axle" | "frame", holes: Hole[]) =>
  (job: Job): Job => {
    const field = `${end}_holes` as const;
    const found = { ...job.setups?.found, [field]: holes };
    const put: Job = { ...job, setups: { ...job.setups, found } };
    const trial = job.setups?.plans?.trial;
    const kept = holes.some((hole) => hole.id === trial?.[end]?.hole);
    return !trial?.[end] || trial[end]?.bracket || kept ? put : setTrial(tried(trial, end, ""))(put);
  };

export const setHardpoints =
  (part: Partial<Hardpoints>) =>
  (job: Job): Job => ({ ...job, hardpoints: { ...job.hardpoints, ...part } });

export const setArm =
  (name: ArmName, part: Partial<Arm>) =>
  (job: Job): Job =>
    setHardpoints({
      arms: { ...job.hardpoints?.arms, [name]: { ...job.hardpoints?.arms?.[name], ...part } },
    })(job);

type Bracketing = Schemas["Bracketing"];

export const setBracketing =
  (part: Partial<Bracketing>) =>
  (job: Job): Job => ({ ...job, bracket: { ...job.bracket, ...part } });

const sameHole = (a: PlanForm["axle"], b: PlanForm["axle"]) =>
  (a?.bracket ?? "") === (b?.bracket ?? "") && (a?.hole ?? "") === (b?.hole ?? "");

const samePlan = (a: PlanForm, b: PlanForm) =>
  sameHole(a.axle, b.axle) &&
  sameHole(a.frame, b.frame) &&
  (a.bar ?? "") === (b.bar ?? "") &&
  (a.drag_link ?? "") === (b.drag_link ?? "") &&
  (a.length ?? "centred") === (b.length ?? "centred");

/** Chooses a plan; the one chosen before is kept beside it. Nothing chosen lets go of it. */
export const choosePlan =
  (plan: PlanForm | undefined) =>
  (job: Job): Job => {
    const { chosen: before, kept = [] } = job.setups?.plans ?? {};
    const held =
      before && !(plan && samePlan(before, plan))
        ? [before, ...kept.filter((k) => !samePlan(k, before))]
        : kept;
    const left = plan ? held.filter((k) => !samePlan(k, plan)) : held;
    return setPlans({ chosen: plan, kept: left.slice(0, 12) })(job);
  };

/** Takes a kept plan out, by its place. */
export const dropKept =
  (place: number) =>
  (job: Job): Job =>
    setPlans({ kept: (job.setups?.plans?.kept ?? []).filter((_, at) => at !== place) })(job);

/** Changes a part of the chosen plan; a plan is begun where there is none. */
export const setChosen =
  (part: Partial<PlanForm>) =>
  (job: Job): Job =>
    setPlans({ chosen: { ...job.setups?.plans?.chosen, ...part } })(job);

/** Says something of the bar that goes in for the old one; it is among those tried, and planned, from the first word of it. */
export const setNewBar =
  (part: Partial<Schemas["BarPart"]>) =>
  (job: Job): Job => {
    const bars = job.bracket?.bars ?? [];
    const id = job.setups?.plans?.chosen?.bar;
    if (id && bars.some((bar) => bar.id === id)) {
      return setBracketing({ bars: bars.map((bar) => (bar.id === id ? { ...bar, ...part } : bar)) })(job);
    }
    const bar = { id: newId("bar"), name: "new bar", ...part };
    return setChosen({ bar: bar.id, length: "as_the_old_one" })(setBracketing({ bars: [...bars, bar] })(job));
  };

/** What is planned for the sway bar; nothing lets go of it. */
export const planSway = (sway: Schemas["SwayPlan"] | undefined) => setPlans({ sway });

export const setSway =
  (part: Partial<Schemas["Sway"]>) =>
  (job: Job): Job => ({ ...job, sway: { ...job.sway, ...part } });

export const setVehicle =
  (part: Partial<Schemas["Vehicle"]>) =>
  (job: Job): Job => ({ ...job, vehicle: { ...job.vehicle, ...part } });
