import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setSway } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { Tick } from "../../ui/Tick";
import { PointInput } from "../tape/PointInput";

type Sway = Schemas["Sway"];

const LINK = [
  ["link", "Sway link length, eye to eye"],
  ["left_longer", "Left link is longer by"],
] as const;
const ANGLES = [
  ["arm_angle", "Arm angle above level"],
  ["lean_forward", "Link leans forward"],
  ["lean_outward", "Link leans outward"],
  ["stock_arm_angle", "Arm angle above level, stock"],
  ["wanted_angle", "Your own arm angle"],
] as const;
const ROD = [
  ["eye_to_tip", "Joint center to the end of its shank"],
  ["shank", "Its threaded length"],
  ["jam_nut", "Thickness of a jam nut"],
] as const;

/** What is measured of the links: lengths, ends, angles, thread and rod. */
export function LinkInputs() {
  const { view, job, change } = useJob();
  const form: Sway = job.sway ?? {};
  const set = (part: Partial<Sway>) => change(setSway(part));
  const body = (form.on ?? "body") === "body";
  return (
    <>
      <div className="mt-2 grid gap-x-2 sm:grid-cols-2">
        <LengthFields at="/sway" form={form} fields={LINK} signed={["left_longer"]} onPut={set} />
      </div>
      <Tick
        label="Fixed length, no thread to turn"
        value={form.links_fixed}
        onPick={(fixed) => set({ links_fixed: fixed ?? false })}
      />
      <Tick
        label="Unequal on purpose (preload)"
        value={form.preload_wanted}
        onPick={(wanted) => set({ preload_wanted: wanted ?? false })}
      />
      <PointInput
        label="Bar position"
        pointer="/sway/axis"
        point={form.axis}
        onPut={(axis) => set({ axis })}
      />
      <PointInput
        label="Other end of the link"
        pointer="/sway/far_end"
        point={form.far_end}
        onBody={!body}
        onPut={(far_end) => set({ far_end })}
      />
      <p className="mt-2 text-[15px] text-muted">If a tape won't reach the other end, use three angles:</p>
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
        Links that turn, right hand at one end and left hand at the other; built from rod, with their joints:
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
    </>
  );
}
