import type { Schemas, TapeEntry } from "../../api/client";
import { setRig } from "../../job/edits";
import { useEmpty } from "../../job/useEmpty";
import { useJob } from "../../job/useJob";
import { TapeField } from "../../ui/TapeField";

type Rig = Schemas["Rig"];
type Length = { readonly field: keyof Rig & string; readonly label: string; readonly hint: string };

/** Fields of lengths: what they are called and which stage needs them. */
export const TRAVEL = [
  { field: "bump", label: "Travel up, from ride height", hint: "Bar: arc over the travel." },
  { field: "droop", label: "Travel down, from ride height", hint: "Bar: arc over the travel." },
] as const;
export const SIZES = [
  { field: "track", label: "Track, tyre middle to middle", hint: "Drawing, lean in Tape, Cycle" },
  { field: "tyre_diameter", label: "Tyre diameter", hint: "Drawing; Cycle: height of the axle" },
  { field: "tyre_width", label: "Tyre width", hint: "Drawing only" },
  { field: "frame_width", label: "Frame width, outside", hint: "Drawing; Cycle: from the rail" },
] as const;
export const STOPS = [
  {
    field: "axle_height",
    label: "Axle centre above the floor",
    hint: "Cycle. Empty: half of the tyre",
  },
  {
    field: "bump_half_spacing",
    label: "Travel up was taken, from the middle",
    hint: "Cycle: bump stops. Empty: at the wheel",
  },
  {
    field: "droop_half_spacing",
    label: "Travel down was taken, from the middle",
    hint: "Cycle: shocks or straps. Empty: at the wheel",
  },
] as const;
export const LIMITS = [
  { field: "tolerance", label: "What counts as centred", hint: "Tape, Prove." },
  { field: "usual_spread", label: "Usual spread of repeats", hint: "Tape." },
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
