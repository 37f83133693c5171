import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setSway } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { InstalledHere } from "../../job/InstalledHere";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { Rows } from "../../ui/Rows";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { PointInput } from "../tape/PointInput";

type PinForm = Schemas["PinForm"];

const SIZES = [
  ["eye_bore", "Sway link bore, sleeve out"],
  ["stud", "Stud, diameter"],
  ["stowed_room", "Clearance above the stowed link at full bump"],
  ["parked_difference", "Left-right difference as parked"],
] as const;
const THREADS = [
  ["stud_thread", "Thread of the stud"],
  ["nut_thread", "Thread of the nut"],
] as const;
const PLACES = optionsOf<Schemas["BoltPlace"]>({
  arm_eye: "link to arm",
  far_end: "link, other end",
});
const WAYS = optionsOf<Schemas["BoltWay"]>({
  outward: "outward",
  inward: "inward",
  forward: "forward",
  back: "back",
  up: "up",
  down: "down",
});
const BOLT = [
  ["length", "Length"],
  ["room", "Room in front, measured"],
] as const;

/** Parts of a pin disconnect, where links are stowed, bolts that must come out again. */
export function DisconnectInputs() {
  const { view, job, change } = useJob();
  const pins: PinForm = job.sway?.pins ?? {};
  const set = (part: Partial<PinForm>) => change(setSway({ pins: { ...pins, ...part } }));
  const onAxle = job.sway?.on === "axle";
  return (
    <>
      <InstalledHere part="disconnect" label="The disconnect gets installed in this job" />
      <div className="grid items-end gap-x-2 sm:grid-cols-2">
        <LengthFields at="/sway/pins" form={pins} fields={SIZES} onPut={set} />
        <AngleField
          job={view.id}
          pointer="/sway/pins/parked_slope"
          label="Side slope of the ground"
          value={pins.parked_slope}
          hint="where you park it"
          onCommit={(parked_slope) => set({ parked_slope })}
        />
        {THREADS.map(([field, label]) => (
          <FigureField
            key={field}
            kind="thread"
            pointer={`/sway/pins/${field}`}
            label={label}
            value={pins[field]}
            onCommit={(text) => set({ [field]: text })}
          />
        ))}
      </div>
      <Tick
        label="Pin can be reached"
        value={pins.hand_reaches}
        onPick={(hand_reaches) => set({ hand_reaches })}
      />
      <PointInput
        label={`Stud the link is stowed on, on the ${onAxle ? "axle" : "body"}`}
        pointer="/sway/pins/stow"
        point={pins.stow}
        onBody={!onAxle}
        onPut={(stow) => set({ stow })}
      />
      <h4 className="mt-2 font-semibold">Bolts that must be able to come back out</h4>
      <BoltRows />
    </>
  );
}

/** Bolts that must come out again: how long, where, and which way. */
function BoltRows() {
  const { view, job, change } = useJob();
  const bolts = job.sway?.bolts ?? [];
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    <Rows
      items={bolts}
      name={(bolt) => bolt.name}
      add="Add a bolt that must come out"
      onAdd={() =>
        change(
          setSway({
            bolts: [
              ...bolts,
              { name: `bolt ${bolts.length + 1}`, length: { text: unit === "in" ? "3" : "75", unit } },
            ],
          }),
        )
      }
      onSet={(left) => change(setSway({ bolts: left }))}
    >
      {(bolt, index, put) => (
        <>
          <div className="grid grid-cols-3 items-end gap-x-2">
            <TextField
              job={view.id}
              pointer={`/sway/bolts/${index}/name`}
              label="Bolt"
              required
              value={bolt.name}
              onCommit={(name) => put({ name })}
            />
            <LengthFields
              at={`/sway/bolts/${index}`}
              form={bolt}
              fields={BOLT}
              onPut={(part) => {
                if ("room" in part) put({ room: part.room });
                else if (part.length) put({ length: part.length });
              }}
            />
          </div>
          <Choice
            label="What it goes through"
            value={bolt.place}
            options={PLACES}
            onPick={(place) => put({ place })}
          />
          <Choice
            label="Comes out toward"
            value={bolt.way ?? "outward"}
            options={WAYS}
            onPick={(way) => put({ way })}
          />
        </>
      )}
    </Rows>
  );
}
