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
  radius_arms: "Radius arms",
  three_arms: "Three arms",
  four_arms: "Four arms",
  y_link: "Y-shaped link",
});
const UNITS = optionsOf<Schemas["Unit"]>({
  in: "Inches",
  mm: "Millimetres",
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
        label="Which end is worked on"
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
            label="Frame eye of the bar on the"
            pointer="/rig/frame_eye_side"
            value={rig.frame_eye_side}
            options={SIDES}
            onPick={(frame_eye_side) => set({ frame_eye_side })}
            hint="Bar needs this."
          />
        )}
      </div>
      {needs("cycle", "bracket", "sway") && (
        <Choice
          label="What holds the axle fore and aft"
          pointer="/rig/axle_location"
          value={rig.axle_location}
          options={LOCATIONS}
          onPick={(axle_location) => set({ axle_location })}
          picture={(location) => <LocationPicture location={location} />}
          hint="Cycle needs this. A Y-shaped link centres the axle itself: then there is no bar."
        />
      )}
      <Choice
        label="Sheets are written in"
        pointer="/rig/sheet_unit"
        value={rig.sheet_unit ?? "in"}
        options={UNITS}
        onPick={(sheet_unit) => set({ sheet_unit })}
        hint="What a bare number means where it is typed. The unit button above changes what is shown, never what is stored."
      />
    </>
  );
}
