import type { Schemas } from "../../api/client";
import { setSway } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { newId } from "../../job/ids";
import { JUDGES } from "../../job/judge";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { Rows } from "../../ui/Rows";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { BuildStageRows } from "./BuildStages";

type Sway = Schemas["Sway"];

const KINDS = optionsOf<Schemas["SwayKind"]>({
  one_piece: "one piece",
  splined: "splined, with arms",
  two_rate: "two rates",
  powered: "powered disconnect",
  none: "none",
});
const ON = optionsOf<Schemas["ObstacleOn"]>({
  body: "mounted to the body, links go down to the axle",
  axle: "mounted to the axle, links go up to the body",
});
const BUSHINGS = optionsOf<Schemas["BushKind"]>({
  rubber: "rubber",
  polyurethane: "polyurethane",
  bearing: "bearings, no give",
});
const ARMS = [
  { value: "forward", label: "forward" },
  { value: "back", label: "back" },
] as const;
const SIZES = [
  ["diameter", "Bar, outside diameter"],
  ["bore", "Bore of a hollow bar"],
  ["active_length", "Active (twisting) length"],
  ["eye_from_centre", "Link hole on the arm, from the centerline"],
  ["bush_spacing", "Distance between the mounting bushings"],
  ["shock_stroke", "Stroke of the shock"],
] as const;
const RATES = [
  ["link_rate", "Link stiffness, with joints"],
  ["bush_rate", "Mounting bushing stiffness"],
] as const;
const NUMBERS = [
  ["allowable_mpa", "Allowable shear stress, MPa"],
  ["soft_percent", "Soft setting of two rates, % of firm"],
] as const;

const number = (text: string) => (text.trim() === "" ? undefined : Number(text.replace(",", ".")));

/** The sway bar itself: kind, sizes, holes, what gives. */
export function BarInputs() {
  const { view, job, change } = useJob();
  const form: Sway = job.sway ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Sway>) => change(setSway(part));
  const holes = form.holes ?? [];
  return (
    <>
      <Choice
        label="Kind of bar"
        pointer="/sway/kind"
        value={form.kind}
        options={KINDS}
        onPick={(kind) => set({ kind })}
      />
      <Choice label="The bar mounts to" value={form.on ?? "body"} options={ON} onPick={(on) => set({ on })} />
      <Choice
        label="Its arms point"
        value={form.forward ? "forward" : "back"}
        options={ARMS}
        onPick={(way) => set({ forward: way === "forward" })}
      />
      <Rows
        pointer="/sway/holes"
        items={holes}
        name={(_, index) => `hole ${index + 1}`}
        add={holes.length === 0 ? "Add an arm length" : "Add another hole"}
        onAdd={() =>
          set({
            holes: [
              ...holes,
              {
                id: newId("hole"),
                arm: holes.at(-1)?.arm ?? { text: unit === "in" ? "10" : "250", unit },
              },
            ],
          })
        }
        onSet={(left) =>
          set({
            holes: left,
            hole: left.some(({ id }) => id === form.hole) ? form.hole : (left[0]?.id ?? ""),
          })
        }
      >
        {(hole, index, put) => (
          <TapeField
            job={view.id}
            pointer={`/sway/holes/${index}/arm`}
            kept={`/sway/holes/=${hole.id}/arm`}
            label={`Arm to hole ${index + 1}`}
            unit={unit}
            value={hole.arm}
            onCommit={(arm) => arm && put({ arm })}
          />
        )}
      </Rows>
      <div className="mt-2 grid items-end gap-x-2 sm:grid-cols-2">
        <LengthFields at="/sway" form={form} fields={SIZES} onPut={set} />
        {RATES.map(([field, label]) => (
          <FigureField
            key={field}
            kind="spring_rate"
            pointer={`/sway/${field}`}
            label={label}
            value={form[field]}
            onCommit={(text) => set({ [field]: text })}
          />
        ))}
        <Choice
          label="Mounting bushings"
          pointer="/sway/bush_kind"
          value={form.bush_kind}
          options={BUSHINGS}
          onPick={(bush_kind) => set({ bush_kind })}
        />
        {NUMBERS.map(([field, label]) => (
          <TextField
            key={field}
            job={view.id}
            pointer={`/sway/${field}`}
            label={label}
            value={form[field]?.toString() ?? ""}
            check={JUDGES.number}
            hint={field === "allowable_mpa" ? "Empty: 700" : "Empty: 30"}
            onCommit={(text) => set({ [field]: number(text) })}
          />
        ))}
      </div>
      <BuildStageRows />
    </>
  );
}
