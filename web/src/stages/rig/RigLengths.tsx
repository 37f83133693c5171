import type { Schemas, TapeEntry } from "../../api/client";
import { setRig } from "../../job/edits";
import { useEmpty } from "../../job/useEmpty";
import { useJob } from "../../job/useJob";
import { TapeField } from "../../ui/TapeField";

type Rig = Schemas["Rig"];
type Length = { readonly field: keyof Rig & string; readonly label: string; readonly hint: string };

/** Fields of lengths: what they are called and which stage needs them. */
export const TRAVEL = [
  { field: "bump", label: "Travel up, from ride height", hint: "Bar: movement over the travel." },
  { field: "droop", label: "Travel down, from ride height", hint: "Bar: movement over the travel." },
] as const;
export const SIZES = [
  { field: "track", label: "Track width, tire center to center", hint: "Drawing, lean in Tape, Cycle" },
  { field: "tyre_diameter", label: "Tire diameter", hint: "Drawing; Cycle: height of the axle" },
  { field: "tyre_width", label: "Tire width", hint: "Drawing only" },
  { field: "frame_width", label: "Frame width, outside", hint: "Drawing; Cycle: from the rail" },
] as const;
export const STOPS = [
  {
    field: "axle_height",
    label: "Axle center above the floor",
    hint: "Cycle. Empty: half the tire diameter",
  },
  {
    field: "bump_half_spacing",
    label: "Up-travel measured this far from the centerline",
    hint: "Cycle: at the bump stops. Empty: at the wheel",
  },
  {
    field: "droop_half_spacing",
    label: "Down-travel measured this far from the centerline",
    hint: "Cycle: shocks or straps. Empty: at the wheel",
  },
] as const;
export const LIMITS = [
  { field: "tolerance", label: "What counts as centered", hint: "Tape, Prove." },
  { field: "usual_spread", label: "Normal scatter of repeat measurements", hint: "Tape." },
] as const;

/** Lengths of the rig, each saying which stage needs it and what is taken where it is empty. */
export function RigLengths({ fields }: { fields: readonly Length[] }) {
  const { view, job, change } = useJob();
  const rig: Rig = job.rig ?? {};
  const empty = useEmpty();
  return (
    <div className="grid gap-x-3 sm:grid-cols-2">
      {fields.map(({ field, label, hint }) => (
        <TapeField
          key={field}
          job={view.id}
          pointer={`/rig/${field}`}
          label={label}
          hint={`${hint} ${empty(`/rig/${field}`)}`.trim()}
          unit={rig.sheet_unit ?? "in"}
          value={rig[field] as TapeEntry | undefined}
          onCommit={(entry) => change(setRig({ [field]: entry }))}
        />
      ))}
    </div>
  );
}
