import type { Job, Schemas } from "../../api/client";
import { setRig } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { useNeeds } from "../../job/useNeeds";
import { Choice, optionsOf } from "../../ui/Choice";
import { TextField } from "../../ui/TextField";
import { LocationPicture } from "./LocationPicture";

type Rig = Schemas["Rig"];

const ENDS = optionsOf<Schemas["AxleEnd"]>({
  front: "Front axle",
  rear: "Rear axle",
});
const SIDES = optionsOf<Schemas["Side"]>({
  left: "Left",
  right: "Right",
});
const LOCATIONS = optionsOf<Schemas["AxleLocation"]>({
  leaf_springs: "Leaf springs",
  radius_arms: "Two radius arms",
  three_arms: "Three control arms",
  four_arms: "Four control arms",
  y_link: "Y-link",
});
const UNITS = optionsOf<Schemas["Unit"]>({
  in: "Inches",
  mm: "Millimeters",
});

/** The end, the sides, what holds the axle, and the unit of the sheets. */
export function WhoHoldsWhat() {
  const { view, job, change } = useJob();
  const needs = useNeeds();
  const rig: Rig = job.rig ?? {};
  const set = (part: Partial<Rig>) => change(setRig(part));
  return (
    <>
      <TextField
        job={view.id}
        pointer="/title"
        label="Job"
        required
        value={job.title}
        onCommit={(title) => change((old: Job) => ({ ...old, title }))}
      />
      <TextField
        job={view.id}
        pointer="/rig/vehicle"
        label="Vehicle, in your own words"
        value={rig.vehicle ?? ""}
        onCommit={(vehicle) => set({ vehicle })}
      />
      <Choice
        label="Which axle?"
        pointer="/rig/end"
        value={rig.end}
        options={ENDS}
        onPick={(end) => set({ end })}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice
          label="Steering wheel on the"
          pointer="/rig/steering_side"
          value={rig.steering_side}
          options={SIDES}
          onPick={(steering_side) => set({ steering_side })}
        />
        {needs("bar", "bracket", "cycle") && (
          <Choice
            label="Track bar frame end on the"
            pointer="/rig/frame_eye_side"
            value={rig.frame_eye_side}
            options={SIDES}
            onPick={(frame_eye_side) => set({ frame_eye_side })}
            hint="Needed on Bar."
          />
        )}
      </div>
      {needs("cycle", "bracket", "sway") && (
        <Choice
          label="What locates the axle fore and aft"
          pointer="/rig/axle_location"
          value={rig.axle_location}
          options={LOCATIONS}
          onPick={(axle_location) => set({ axle_location })}
          picture={(location) => <LocationPicture location={location} />}
          hint="Needed on Cycle. A Y-link centers the axle itself: then there is no track bar."
        />
      )}
      <Choice
        label="Enter measurements in"
        pointer="/rig/sheet_unit"
        value={rig.sheet_unit ?? "in"}
        options={UNITS}
        onPick={(sheet_unit) => set({ sheet_unit })}
        hint="Unit of a plain number you type. The unit button at the top changes only what is shown."
      />
    </>
  );
}
