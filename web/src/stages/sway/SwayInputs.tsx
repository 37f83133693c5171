import { Plus, Trash2 } from "lucide-react";
import type { Schemas, TapeEntry } from "../../api/client";
import { AngleField } from "../../ui/AngleField";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { setSway } from "../job/edits";
import { useJob } from "../job/useJob";
import { PointInput } from "../tape/PointInput";

type Sway = Schemas["Sway"];

const KINDS = [
  { value: "one_piece", label: "one piece" },
  { value: "splined", label: "splined, with arms" },
  { value: "two_rate", label: "two rates" },
  { value: "powered", label: "powered disconnect" },
  { value: "none", label: "none" },
] as const;
const ON = [
  { value: "body", label: "the body, links go down" },
  { value: "axle", label: "the axle, links go up" },
] as const;
const ARMS = [
  { value: "forward", label: "forward" },
  { value: "back", label: "back" },
] as const;

const number = (text: string) => (text.trim() === "" ? undefined : Number(text.replace(",", ".")));
const isNumber = (text: string) =>
  text.trim() === "" || Number(text.replace(",", ".")) >= 0 ? undefined : "Type a number.";
const isWeight = (text: string) =>
  text.trim() === "" || /^\s*\d[\d\s.,]*\s*(kg|lbs?)\s*$/i.test(text)
    ? undefined
    : "This is not a weight. Type a number with its unit, such as 2300 lb or 1050 kg.";

/** What is measured of the sway bar, its links, and the vehicle. */
export function SwayInputs() {
  const { view, job, change } = useJob();
  const form: Sway = job.sway ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Sway>) => change(setSway(part));
  const length = (
    pointer: string,
    label: string,
    value: TapeEntry | undefined,
    put: (entry: TapeEntry | undefined) => void,
    signed = false,
  ) => (
    <TapeField
      key={pointer}
      job={view.id}
      pointer={`/sway/${pointer}`}
      label={label}
      signed={signed}
      unit={unit}
      value={value}
      onCommit={put}
    />
  );
  const holes = form.holes ?? [];
  return (
    <>
      <Fold title="The sway bar and its links" open={form.kind === undefined}>
        <Choice label="What kind of bar" value={form.kind} options={KINDS} onPick={(kind) => set({ kind })} />
        <Choice
          label="The bar is fixed to"
          value={form.on ?? "body"}
          options={ON}
          onPick={(on) => set({ on })}
        />
        <Choice
          label="Its arms point"
          value={form.forward ? "forward" : "back"}
          options={ARMS}
          onPick={(way) => set({ forward: way === "forward" })}
        />
        <PointInput
          label="The bar's axis"
          pointer="/sway/axis"
          point={form.axis}
          onPut={(axis) => set({ axis })}
        />
        <div className="mt-2 grid gap-x-2 sm:grid-cols-2">
          {holes.map((hole, index) =>
            length(`holes/${index}`, `Arm to hole ${index + 1}`, hole, (entry) =>
              set({
                holes: entry
                  ? holes.map((old, at) => (at === index ? entry : old))
                  : holes.filter((_, at) => at !== index),
                hole: Math.min(form.hole ?? 0, Math.max(0, holes.length - (entry ? 1 : 2))),
              }),
            ),
          )}
          <Button
            className="self-start"
            onClick={() =>
              set({
                holes: [...holes, holes[holes.length - 1] ?? { text: unit === "in" ? "10" : "250", unit }],
              })
            }
          >
            <Plus size={18} aria-hidden />
            {holes.length === 0 ? "Add the arm's length" : "One more hole"}
          </Button>
          {length(
            "eye_from_centre",
            "Link's eye on the arm, from the middle",
            form.eye_from_centre,
            (eye_from_centre) => set({ eye_from_centre }),
          )}
          {length("link", "Link, eye to eye", form.link, (link) => set({ link }))}
          {length(
            "left_longer",
            "Left link longer by",
            form.left_longer,
            (left_longer) => set({ left_longer }),
            true,
          )}
        </div>
        <Tick
          label="Unequal on purpose"
          value={form.preload_wanted}
          onPick={(wanted) => set({ preload_wanted: wanted ?? false })}
        />
        <PointInput
          label="The link's far end"
          pointer="/sway/far_end"
          point={form.far_end}
          onPut={(far_end) => set({ far_end })}
        />
        <p className="mt-2 text-[15px] text-muted">
          Where no tape gets to the far end, three angles will do:
        </p>
        <div className="grid gap-x-2 sm:grid-cols-3">
          {(
            [
              ["arm_angle", "Arm above level"],
              ["lean_forward", "Link leans forward"],
              ["lean_outward", "Link leans outward"],
              ["stock_arm_angle", "Arm above level when stock"],
              ["wanted_angle", "Arm angle of your own"],
            ] as const
          ).map(([field, label]) => (
            <AngleField
              key={field}
              job={view.id}
              pointer={`/sway/${field}`}
              label={label}
              value={form[field]}
              hint=""
              onCommit={(entry) => set({ [field]: entry })}
            />
          ))}
          <TextField
            job={view.id}
            pointer="/sway/link_thread"
            label="Thread of the links"
            value={form.link_thread ?? ""}
            hint="such as 1/2-20"
            onCommit={(text) => set({ link_thread: text.trim() || undefined })}
          />
        </div>
        <div className="grid gap-x-2 sm:grid-cols-2">
          {length("diameter", "Bar, outside diameter", form.diameter, (diameter) => set({ diameter }))}
          {length("bore", "Bore of a hollow bar", form.bore, (bore) => set({ bore }))}
          {length("active_length", "Length that twists", form.active_length, (active_length) =>
            set({ active_length }),
          )}
          {length("shock_stroke", "Stroke of the shock", form.shock_stroke, (shock_stroke) =>
            set({ shock_stroke }),
          )}
        </div>
      </Fold>
      <VehicleInputs />
      <DisconnectInputs />
    </>
  );
}

function VehicleInputs() {
  const { view, job, change } = useJob();
  const form: Schemas["VehicleForm"] = job.sway?.vehicle ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<typeof form>) => change(setSway({ vehicle: { ...form, ...part } }));
  return (
    <Fold title="The vehicle: weights, springs, roof">
      <div className="grid gap-x-2 sm:grid-cols-2">
        {(
          [
            ["other_weight", "Weight on the other axle"],
            ["roof_load", "Weight on the roof"],
          ] as const
        ).map(([field, label]) => (
          <TextField
            key={field}
            job={view.id}
            pointer={`/sway/vehicle/${field}`}
            label={label}
            value={form[field] ?? ""}
            check={isWeight}
            hint="with its unit: lb or kg"
            onCommit={(text) => set({ [field]: text.trim() || undefined })}
          />
        ))}
        {(
          [
            ["roof_height", "Roof load above the floor"],
            ["spring_spacing", "Between the springs here"],
            ["other_spring_spacing", "Between the springs at the other axle"],
          ] as const
        ).map(([field, label]) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`/sway/vehicle/${field}`}
            label={label}
            unit={unit}
            value={form[field]}
            onCommit={(entry) => set({ [field]: entry })}
          />
        ))}
        {(
          [
            ["other_spring_n_per_mm", "Rate of a spring at the other axle, N/mm"],
            ["other_bar_nm_per_rad", "Roll rate of the other axle's bar, N·m/rad"],
            ["tyre_n_per_mm", "Rate of a tyre, N/mm"],
          ] as const
        ).map(([field, label]) => (
          <TextField
            key={field}
            job={view.id}
            pointer={`/sway/vehicle/${field}`}
            label={label}
            value={form[field]?.toString() ?? ""}
            check={isNumber}
            onCommit={(text) => set({ [field]: number(text) })}
          />
        ))}
      </div>
      <p className="text-[15px] text-muted">
        This axle's own weight, spring rate and the centre of gravity stand in stage Bracket.
      </p>
    </Fold>
  );
}

function DisconnectInputs() {
  const { view, job, change } = useJob();
  const pins: Schemas["PinForm"] = job.sway?.pins ?? {};
  const bolts = job.sway?.bolts ?? [];
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<typeof pins>) => change(setSway({ pins: { ...pins, ...part } }));
  return (
    <Fold title="Disconnects and bolts, checked">
      <div className="grid gap-x-2 sm:grid-cols-2">
        {(
          [
            ["eye_bore", "Bore of the link's eye, sleeve out"],
            ["stud", "Stud, diameter"],
            ["stowed_room", "Room over the stowed link at full bump"],
            ["parked_difference", "Sides differ as it is parked"],
          ] as const
        ).map(([field, label]) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`/sway/pins/${field}`}
            label={label}
            unit={unit}
            value={pins[field]}
            onCommit={(entry) => set({ [field]: entry })}
          />
        ))}
        {(
          [
            ["stud_thread", "Thread of the stud"],
            ["nut_thread", "Thread of the nut"],
          ] as const
        ).map(([field, label]) => (
          <TextField
            key={field}
            job={view.id}
            pointer={`/sway/pins/${field}`}
            label={label}
            value={pins[field] ?? ""}
            hint="such as 1/2-20"
            onCommit={(text) => set({ [field]: text.trim() || undefined })}
          />
        ))}
      </div>
      <Tick
        label="A hand reaches the pin"
        value={pins.hand_reaches}
        onPick={(hand_reaches) => set({ hand_reaches })}
      />
      {bolts.map((bolt, index) => {
        const put = (part: Partial<typeof bolt>) =>
          change(setSway({ bolts: bolts.map((old, at) => (at === index ? { ...old, ...part } : old)) }));
        return (
          <div
            key={index}
            className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-2 border-line border-b"
          >
            <TextField
              job={view.id}
              pointer={`/sway/bolts/${index}/name`}
              label="Bolt"
              required
              value={bolt.name}
              onCommit={(name) => put({ name })}
            />
            <TapeField
              job={view.id}
              pointer={`/sway/bolts/${index}/length`}
              label="Length"
              unit={unit}
              value={bolt.length}
              onCommit={(entry) => entry && put({ length: entry })}
            />
            <TapeField
              job={view.id}
              pointer={`/sway/bolts/${index}/room`}
              label="Room in front"
              unit={unit}
              value={bolt.room}
              onCommit={(room) => room && put({ room })}
            />
            <Button
              look="quiet"
              aria-label={`Take ${bolt.name} out`}
              onClick={() => change(setSway({ bolts: bolts.filter((_, at) => at !== index) }))}
            >
              <Trash2 size={18} aria-hidden />
            </Button>
          </div>
        );
      })}
      <Button
        className="mt-2"
        onClick={() => {
          const usual: TapeEntry = { text: unit === "in" ? "3" : "75", unit };
          change(
            setSway({ bolts: [...bolts, { name: `bolt ${bolts.length + 1}`, length: usual, room: usual }] }),
          );
        }}
      >
        <Plus size={18} aria-hidden />
        Add a bolt that must come out
      </Button>
    </Fold>
  );
}
