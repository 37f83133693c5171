import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setSway } from "../../job/edits";
import { heightLabel } from "../../job/heights";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { Rows } from "../../ui/Rows";
import { TextField } from "../../ui/TextField";
import { PointInput } from "../tape/PointInput";

type RoomForm = Schemas["RoomForm"];

const SIZES = [
  ["arm_thickness", "Thickness of an arm"],
  ["link_thickness", "Thickness of a link, including its joints"],
  ["rail_underside", "Bottom of the frame rails above the floor"],
  ["rail_height", "Height of a rail"],
] as const;
const TUBE = [
  ["tube_outside", "Tube the bar runs in, outside diameter"],
  ["tube_length", "Length of that tube"],
  ["mount_from_centre", "Middle of a bar mount from the vehicle centerline"],
  ["mount_across", "Mount across the bar, edge to edge"],
  ["mount_along", "Mount along the bar"],
] as const;
const FACES = optionsOf<Schemas["PanelFaces"]>({
  forward: "forward, across the vehicle",
  outward: "outward, along it",
  up: "up, level",
});
const AT = {
  forward: "Forward of the axle",
  outward: "Out from the middle",
} as const;
const THICKNESS = [["thickness", "Thickness"]] as const;

/** What arms and links could touch: rails, tyres at lock, shocks, panels. */
export function RoomInputs() {
  const { view, job, change } = useJob();
  const form: RoomForm = job.sway?.room ?? {};
  const set = (part: Partial<RoomForm>) => change(setSway({ room: { ...form, ...part } }));
  return (
    <>
      <p className="text-[15px] text-muted">
        Tires come from the Rig screen, obstacles such as the inner fender from the Tape screen.
      </p>
      <div className="grid items-end gap-x-2 sm:grid-cols-2">
        <LengthFields at="/sway/room" form={form} fields={SIZES} onPut={set} />
        <AngleField
          job={view.id}
          pointer="/sway/room/steering_lock"
          label="Tires steer each way by"
          value={form.steering_lock}
          hint="Empty: 35° at a front"
          onCommit={(steering_lock) => set({ steering_lock })}
        />
      </div>
      <Fold title="Tube and mounts of the bar" keep>
        <div className="grid items-end gap-x-2 sm:grid-cols-2">
          <LengthFields at="/sway/room" form={form} fields={TUBE} onPut={set} />
        </div>
      </Fold>
      <h4 className="mt-2 font-semibold">Shocks, same on both sides</h4>
      <ShockRows form={form} onSet={set} />
      <h4 className="mt-2 font-semibold">Panels the arm must pass through</h4>
      <PanelRows form={form} onSet={set} />
    </>
  );
}

type RoomRowsProps = { form: RoomForm; onSet: (part: Partial<RoomForm>) => void };

/** A length as it is begun with, in the unit of the job's sheets. */
function useEntry() {
  const { job } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  return (inches: string, millimetres: string) => ({ text: unit === "in" ? inches : millimetres, unit });
}

function ShockRows({ form, onSet: set }: RoomRowsProps) {
  const { view } = useJob();
  const entry = useEntry();
  const shocks = form.shocks ?? [];
  return (
    <Rows
      items={shocks}
      name={(shock) => shock.name}
      add="Add a shock"
      onAdd={() =>
        set({
          shocks: [
            ...shocks,
            {
              name: shocks.length === 0 ? "shock" : `shock ${shocks.length + 1}`,
              thickness: entry("2 1/2", "65"),
            },
          ],
        })
      }
      onSet={(left) => set({ shocks: left })}
    >
      {(shock, index, put) => (
        <>
          <div className="grid grid-cols-2 gap-x-2">
            <TextField
              job={view.id}
              pointer={`/sway/room/shocks/${index}/name`}
              label="What it is"
              required
              value={shock.name}
              onCommit={(name) => put({ name })}
            />
            <LengthFields
              at={`/sway/room/shocks/${index}`}
              form={shock}
              fields={THICKNESS}
              onPut={(part) => part.thickness && put({ thickness: part.thickness })}
            />
          </div>
          <PointInput
            label="Its end on the body"
            pointer={`/sway/room/shocks/${index}/body`}
            point={shock.body}
            onBody
            onPut={(body) => put({ body })}
          />
          <PointInput
            label="Its end on the axle"
            pointer={`/sway/room/shocks/${index}/axle`}
            point={shock.axle}
            onPut={(axle) => put({ axle })}
          />
        </>
      )}
    </Rows>
  );
}

function PanelRows({ form, onSet: set }: RoomRowsProps) {
  const { view, job } = useJob();
  const entry = useEntry();
  const panels = form.panels ?? [];
  return (
    <Rows
      items={panels}
      name={(panel) => panel.name}
      add="Add a panel"
      onAdd={() =>
        set({
          panels: [
            ...panels,
            {
              name: panels.length === 0 ? "inner fender" : `panel ${panels.length + 1}`,
              at: entry("0", "0"),
            },
          ],
        })
      }
      onSet={(left) => set({ panels: left })}
    >
      {(panel, index, put) => (
        <>
          <div className="grid grid-cols-2 gap-x-2">
            <TextField
              job={view.id}
              pointer={`/sway/room/panels/${index}/name`}
              label="What it is"
              required
              value={panel.name}
              onCommit={(name) => put({ name })}
            />
            <LengthFields
              at={`/sway/room/panels/${index}`}
              form={panel}
              fields={[["at", panel.faces === "up" ? heightLabel(job, true) : AT[panel.faces ?? "forward"]]]}
              signed={["at"]}
              onPut={(part) => part.at && put({ at: part.at })}
            />
          </div>
          <Choice
            label="It faces"
            value={panel.faces ?? "forward"}
            options={FACES}
            onPick={(faces) => put({ faces })}
          />
        </>
      )}
    </Rows>
  );
}
