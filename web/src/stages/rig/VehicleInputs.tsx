import type { Schemas } from "../../api/client";
import { setVehicle } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";

type Vehicle = Schemas["Vehicle"];

const WEIGHTS = [
  ["left_corner", "Weight under this axle's left wheel"],
  ["right_corner", "Under this axle's right wheel"],
  ["axle_weight", "Or weight on this axle"],
  ["unsprung_weight", "Weight of the axle itself"],
  ["other_left_corner", "Under the other axle's left wheel"],
  ["other_right_corner", "Under the other axle's right wheel"],
  ["other_weight", "Or the other axle alone"],
  ["roof_load", "Weight on the roof"],
] as const;
const RATES = [
  ["spring_rate", "Spring rate, one spring, this axle"],
  ["other_spring_rate", "Spring rate, one spring, other axle"],
  ["tyre_rate", "Tire spring rate, one tire"],
] as const;
const LENGTHS = [
  ["wheelbase", "Wheelbase"],
  ["spring_spacing", "Distance between the springs, this axle"],
  ["other_spring_spacing", "Distance between the springs, other axle"],
  ["other_track", "Other axle's track"],
  ["other_bump", "Other axle's travel up"],
  ["other_droop", "Other axle's travel down"],
  ["other_roll_centre", "Other axle's roll center above the floor"],
  ["centre_of_gravity", "Center of gravity above the floor"],
  ["centre_of_gravity_good_to", "Accuracy, ±"],
  ["roof_height", "Height of the roof load above the floor"],
] as const;

const THERE = optionsOf<"yes" | "no">({ yes: "yes", no: "no" });

/** The other axle's sway bar, by what a caliper and a tape read. */
function OtherSwayBar() {
  const { view, job, change } = useJob();
  const bar = job.vehicle?.other_sway_bar ?? {};
  const set = (part: Partial<Schemas["OtherSwayBar"]>) =>
    change(setVehicle({ other_sway_bar: { ...bar, ...part } }));
  const size = (field: "diameter" | "arm" | "length", label: string, hint?: string) => (
    <TapeField
      job={view.id}
      pointer={`/vehicle/other_sway_bar/${field}`}
      label={label}
      hint={hint}
      unit={job.rig?.sheet_unit ?? "in"}
      value={bar[field]}
      onCommit={(entry) => set({ [field]: entry })}
    />
  );
  return (
    <div className="col-span-full grid gap-2" data-other-sway-bar>
      <Choice
        label="Is there one?"
        pointer="/vehicle/other_sway_bar/there"
        value={bar.there === undefined ? undefined : bar.there ? "yes" : "no"}
        options={THERE}
        onPick={(picked) => set({ there: picked === "yes" })}
      />
      {bar.there !== false && (
        <div className="grid gap-x-3 sm:grid-cols-3">
          {size("diameter", "Its diameter")}
          {size("arm", "Its sway bar arm", "bar to sway link, straight back")}
          {size("length", "Its straight length", "between its sway bar arms")}
        </div>
      )}
    </div>
  );
}

/** Weights, springs and the centre of gravity: what Bracket loads and Sway rolls. */
export function VehicleInputs() {
  const { job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const form: Vehicle = job.vehicle ?? {};
  const set = (part: Partial<Vehicle>) => change(setVehicle(part));
  const figures = (kind: "weight" | "spring_rate", fields: typeof WEIGHTS | typeof RATES) =>
    fields.map(([field, label]) => (
      <FigureField
        key={field}
        kind={kind}
        pointer={`/vehicle/${field}`}
        label={label}
        value={form[field]}
        onCommit={(text) => set({ [field]: text })}
      />
    ));
  return (
    <>
      <div className="grid items-end gap-x-3 gap-y-2 sm:grid-cols-2">
        {figures("weight", WEIGHTS)}
        {figures("spring_rate", RATES)}
        <div className="col-span-full">
          <Fold
            keep
            title="Sway bar at the other axle"
            open={form.other_bar !== undefined || form.other_sway_bar?.diameter !== undefined}
          >
            <OtherSwayBar />
            <FigureField
              kind="roll_rate"
              pointer="/vehicle/other_bar"
              label="or its roll rate, if you know it"
              value={form.other_bar}
              onCommit={(other_bar) => set({ other_bar })}
            />
          </Fold>
        </div>
        <LengthFields at="/vehicle" form={form} fields={LENGTHS} onPut={set} />
      </div>
      {results.vehicle_assumed.length > 0 && (
        <div className="mt-2 text-[15px]" data-vehicle-assumed>
          <p className="text-muted">Typical values used, not measured (Bracket, Sway):</p>
          <ul className="grid list-disc gap-0.5 pl-5">
            {results.vehicle_assumed.map((assumption) => (
              <li key={assumption.pointer}>
                <Figure>{say(assumption.says, units)}</Figure>
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
