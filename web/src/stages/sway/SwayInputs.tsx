import type { Schemas } from "../../api/client";
import { Fold } from "../../ui/Fold";
import { Rows } from "../../ui/Rows";
import { Tick } from "../../ui/Tick";
import { AngleField } from "../job/AngleField";
import { setSway } from "../job/edits";
import { FigureField } from "../job/FigureField";
import { LengthFields } from "../job/LengthFields";
import { useJob } from "../job/useJob";
import { PointInput } from "../tape/PointInput";
import { BarInputs } from "./BarInputs";
import { DisconnectInputs } from "./DisconnectInputs";
import { RoomInputs } from "./RoomInputs";

type Sway = Schemas["Sway"];

const LINK = [
  ["link", "Link, eye to eye"],
  ["left_longer", "Left link longer by"],
] as const;
const ANGLES = [
  ["arm_angle", "Arm above level"],
  ["lean_forward", "Link leans forward"],
  ["lean_outward", "Link leans outward"],
  ["stock_arm_angle", "Arm above level when stock"],
  ["wanted_angle", "Arm angle of your own"],
] as const;
const ROD = [
  ["eye_to_tip", "Joint's centre to its tip"],
  ["shank", "Length of its thread"],
  ["jam_nut", "Thickness of a jam nut"],
] as const;

/** What is measured of the sway bar, its links, their room, and disconnects. */
export function SwayInputs() {
  const { view, job, change } = useJob();
  const form: Sway = job.sway ?? {};
  const set = (part: Partial<Sway>) => change(setSway(part));
  const body = (form.on ?? "body") === "body";
  return (
    <>
      <Fold title="The sway bar and its links" open={form.kind === undefined}>
        <BarInputs />
        <div className="mt-2 grid gap-x-2 sm:grid-cols-2">
          <LengthFields at="/sway" form={form} fields={LINK} signed={["left_longer"]} onPut={set} />
        </div>
        <Tick
          label="Unequal on purpose"
          value={form.preload_wanted}
          onPick={(wanted) => set({ preload_wanted: wanted ?? false })}
        />
        <PointInput
          label="The bar's axis"
          pointer="/sway/axis"
          point={form.axis}
          onPut={(axis) => set({ axis })}
        />
        <PointInput
          label="The link's far end"
          pointer="/sway/far_end"
          point={form.far_end}
          onBody={!body}
          onPut={(far_end) => set({ far_end })}
        />
        <p className="mt-2 text-[15px] text-muted">
          Where no tape gets to the far end, three angles will do:
        </p>
        <div className="grid gap-x-2 sm:grid-cols-3">
          {ANGLES.map(([field, label]) => (
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
        </div>
        <p className="mt-2 text-[15px] text-muted">
          Links that turn, right hand at one end and left hand at the other; built from rod, with their
          joints:
        </p>
        <div className="grid items-end gap-x-2 sm:grid-cols-2">
          <FigureField
            kind="thread"
            pointer="/sway/link_thread"
            label="Thread of the links"
            value={form.link_thread}
            onCommit={(link_thread) => set({ link_thread })}
          />
          <LengthFields
            at="/sway/rod"
            form={form.rod ?? {}}
            fields={ROD}
            onPut={(part) => set({ rod: { ...form.rod, ...part } })}
          />
        </div>
      </Fold>
      <SplinedInputs />
      <RoomInputs />
      <DisconnectInputs />
    </>
  );
}

const BAR = [
  ["length", "Length"],
  ["diameter", "Diameter"],
  ["bore", "Bore"],
] as const;
const ARM = [["arm", "Arm"]] as const;

/** Splined bars and arms that can be had. */
function SplinedInputs() {
  const { job, change } = useJob();
  const form: Schemas["SplinedForm"] = job.sway?.splined ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<typeof form>) => change(setSway({ splined: { ...form, ...part } }));
  const entry = (inches: string, millimetres: string) => ({
    text: unit === "in" ? inches : millimetres,
    unit,
  });
  const bars = form.bars ?? [];
  const arms = form.arms ?? [];
  return (
    <Fold title="Splined bars to choose from">
      <Rows
        items={bars}
        name={(_, index) => `splined bar ${index + 1}`}
        add="Add a bar that can be had"
        onAdd={() =>
          set({
            bars: [
              ...bars,
              bars[bars.length - 1] ?? { length: entry("36", "900"), diameter: entry("1", "25") },
            ],
          })
        }
        onSet={(left) => set({ bars: left })}
      >
        {(bar, index, put) => (
          <div className="grid grid-cols-3 gap-x-2">
            <LengthFields
              at={`/sway/splined/bars/${index}`}
              form={bar}
              fields={BAR}
              onPut={(part) => ("bore" in part || Object.values(part)[0]) && put(part as Partial<typeof bar>)}
            />
          </div>
        )}
      </Rows>
      <div className="mt-2">
        <Rows
          items={arms}
          name={(_, index) => `arm ${index + 1}`}
          add="Add a length of arm"
          onAdd={() => set({ arms: [...arms, arms[arms.length - 1] ?? entry("12", "300")] })}
          onSet={(left) => set({ arms: left })}
        >
          {(arm, index, put) => (
            <LengthFields
              at={`/sway/splined/arms/${index}`}
              form={{ arm }}
              fields={ARM}
              onPut={(part) => part.arm && put(part.arm)}
            />
          )}
        </Rows>
      </div>
    </Fold>
  );
}
