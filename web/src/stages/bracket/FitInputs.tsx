import type { Schemas } from "../../api/client";
import { AngleField } from "../../ui/AngleField";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { setBracketing } from "../job/edits";
import { useJob } from "../job/useJob";

type Bracketing = Schemas["Bracketing"];

const TREATMENTS = [
  { value: "dry", label: "dry or plated" },
  { value: "threadlocker", label: "threadlocker" },
  { value: "oiled", label: "oiled" },
  { value: "anti_seize", label: "anti-seize" },
] as const;

const isWeight = (text: string) =>
  text.trim() === "" || /^\s*\d[\d\s.,]*\s*(kg|lbs?)\s*$/i.test(text)
    ? undefined
    : "This is not a weight. Type a number with its unit, such as 2600 lb or 1180 kg.";
const isNumber = (text: string) =>
  text.trim() === "" || Number(text.replace(",", ".")) > 0 ? undefined : "Type a number more than nought.";

/** Weights, ears, bolt and brackets: what loads and fit are reckoned from. */
export function FitInputs() {
  const { view, job, change } = useJob();
  const form: Bracketing = job.bracket ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Bracketing>) => change(setBracketing(part));
  const weight = (field: "axle_weight" | "unsprung_weight", label: string) => (
    <TextField
      job={view.id}
      pointer={`/bracket/${field}`}
      label={label}
      value={form[field] ?? ""}
      check={isWeight}
      hint="with its unit: lb or kg"
      onCommit={(text) => set({ [field]: text.trim() === "" ? undefined : text })}
    />
  );
  const number = (text: string) => (text.trim() === "" ? undefined : Number(text.replace(",", ".")));
  return (
    <Fold title="Weights, ears, bolt, bracket angles">
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        {weight("axle_weight", "Weight on this axle")}
        {weight("unsprung_weight", "The axle's own weight")}
        <TapeField
          job={view.id}
          pointer="/bracket/centre_of_gravity"
          label="Centre of gravity above the floor"
          unit={unit}
          value={form.centre_of_gravity}
          onCommit={(centre_of_gravity) => set({ centre_of_gravity })}
        />
        <TextField
          job={view.id}
          pointer="/bracket/spring_rate_n_per_mm"
          label="Rate of one spring, N/mm"
          value={form.spring_rate_n_per_mm?.toString() ?? ""}
          check={isNumber}
          onCommit={(text) => set({ spring_rate_n_per_mm: number(text) })}
        />
        <TapeField
          job={view.id}
          pointer="/bracket/ear_width"
          label="Inside width between the ears"
          unit={unit}
          value={form.ear_width}
          onCommit={(ear_width) => set({ ear_width })}
        />
        <TextField
          job={view.id}
          pointer="/bracket/bolt/thread"
          label="Eye bolt's thread"
          value={form.bolt?.thread ?? ""}
          hint="such as 9/16-18 or M14x2"
          onCommit={(text) => set({ bolt: { ...form.bolt, thread: text.trim() || undefined } })}
        />
        <TextField
          job={view.id}
          pointer="/bracket/bolt/torque_nm"
          label="Its torque from the part's sheet, N·m"
          value={form.bolt?.torque_nm?.toString() ?? ""}
          check={isNumber}
          onCommit={(text) => set({ bolt: { ...form.bolt, torque_nm: number(text) } })}
        />
        <TapeField
          job={view.id}
          pointer="/bracket/bolt/play"
          label="Play of both bolts in their holes"
          unit={unit}
          value={form.bolt?.play}
          onCommit={(play) => set({ bolt: { ...form.bolt, play } })}
        />
        <AngleField
          job={view.id}
          pointer="/bracket/frame_bracket_angle"
          label="Finder on the frame bracket"
          value={form.frame_bracket_angle}
          onCommit={(frame_bracket_angle) => set({ frame_bracket_angle })}
        />
        <AngleField
          job={view.id}
          pointer="/bracket/axle_bracket_angle"
          label="Finder on the axle bracket"
          value={form.axle_bracket_angle}
          onCommit={(axle_bracket_angle) => set({ axle_bracket_angle })}
        />
      </div>
      <Choice
        label="The bolt's thread is"
        value={form.bolt?.treatment ?? "dry"}
        options={TREATMENTS}
        onPick={(treatment) => set({ bolt: { ...form.bolt, treatment } })}
      />
    </Fold>
  );
}
