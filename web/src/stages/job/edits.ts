/** Edits of a document, each giving a new one. */
import type { Job, Schemas, Sheet, TapeEntry } from "../../api/client";

type Rig = Schemas["Rig"];
type Bar = Schemas["Bar"];
type AdjusterForm = Schemas["AdjusterForm"];

export const setRig =
  (rig: Partial<Rig>) =>
  (job: Job): Job => ({ ...job, rig: { ...job.rig, ...rig } });

export const setBar =
  (bar: Partial<Bar>) =>
  (job: Job): Job => ({
    ...job,
    setups: { ...job.setups, as_found: { ...job.setups?.as_found, ...bar } },
  });

export const setAdjuster =
  (adjuster: Partial<AdjusterForm>) =>
  (job: Job): Job => ({
    ...job,
    setups: { ...job.setups, adjuster: { ...job.setups?.adjuster, ...adjuster } },
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
  const round = job.setups?.as_built?.length ?? 0;
  const like = job.sheets?.findLast((old) => old.kind === kind);
  const id = `sheet-${(job.sheets?.length ?? 0) + 1}-${Date.now().toString(36)}`;
  const sheet: Sheet = {
    id,
    kind,
    after_setting: round,
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

/** The last length set, mended; taken out where it is emptied. */
export const mendSetting =
  (length: TapeEntry | undefined) =>
  (job: Job): Job => {
    const made = job.setups?.as_built ?? [];
    const last = made.at(-1);
    const mended = last && length ? [{ ...last, length }] : [];
    return { ...job, setups: { ...job.setups, as_built: [...made.slice(0, -1), ...mended] } };
  };

export const removeSheet =
  (id: string) =>
  (job: Job): Job => ({
    ...job,
    sheets: (job.sheets ?? []).filter((sheet) => sheet.id !== id),
  });

export const addSetting =
  (length: TapeEntry, wanted: number | undefined, moved: Schemas["FittedMove"] | undefined) =>
  (job: Job): Job => {
    const made = {
      length,
      at: new Date().toISOString(),
      ...(wanted !== undefined && { wanted_mm: wanted }),
      ...(moved && { moved }),
    };
    return { ...job, setups: { ...job.setups, as_built: [...(job.setups?.as_built ?? []), made] } };
  };

type Setups = Schemas["Setups"];
type Hole = Schemas["Hole"];
type Hardpoints = Schemas["Hardpoints"];
type Arm = Schemas["Arm"];
type ArmName = keyof Schemas["Arms"];

export const setTrial =
  (trial: Schemas["Trial"]) =>
  (job: Job): Job => ({ ...job, setups: { ...job.setups, trial } });

/** Puts a bracket's holes; a hole that is tried goes with its name, or is let go of. */
export const setHoles =
  (field: "axle_holes" | "frame_holes", holes: Hole[]) =>
  (job: Job): Job => {
    const tried = field === "axle_holes" ? "axle_hole" : "frame_hole";
    const before: Partial<Setups> = job.setups ?? {};
    const name = before.trial?.[tried] ?? "";
    const place = (before[field] ?? []).findIndex((hole) => hole.name === name);
    const kept = holes.some((hole) => hole.name === name);
    // Renamed in its place, it stays the one that is tried.
    const renamed = holes.length === before[field]?.length ? holes[place]?.name : undefined;
    const trial = { ...before.trial, [tried]: kept ? name : (renamed ?? "") };
    return { ...job, setups: { ...before, [field]: holes, trial } };
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

const samePlan = (a: Schemas["PlanForm"], b: Schemas["PlanForm"]) =>
  (a.bracket ?? "") === (b.bracket ?? "") &&
  (a.hole ?? "") === (b.hole ?? "") &&
  (a.bar ?? "") === (b.bar ?? "");

/** Chooses a plan; the one chosen before is kept beside it. Nothing chosen lets go of it. */
export const choosePlan =
  (plan: Schemas["PlanForm"] | undefined) =>
  (job: Job): Job => {
    const before = job.bracket?.chosen;
    const kept = job.bracket?.kept ?? [];
    const held =
      before && !(plan && samePlan(before, plan))
        ? [before, ...kept.filter((k) => !samePlan(k, before))]
        : kept;
    const left = plan ? held.filter((k) => !samePlan(k, plan)) : held;
    return setBracketing({ chosen: plan, kept: left.slice(0, 12) })(job);
  };

export const setSway =
  (part: Partial<Schemas["Sway"]>) =>
  (job: Job): Job => ({ ...job, sway: { ...job.sway, ...part } });

export const setVehicle =
  (part: Partial<Schemas["Vehicle"]>) =>
  (job: Job): Job => ({ ...job, vehicle: { ...job.vehicle, ...part } });
