import { Plus, Trash2 } from "lucide-react";
import type { Job, Schemas, TapeEntry } from "../../api/client";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { AngleField } from "../job/AngleField";
import { renameHeight, setRig } from "../job/edits";
import { useEmpty } from "../job/useEmpty";
import { useJob } from "../job/useJob";
import { BarInputs } from "../sway/BarInputs";
import { LocationPicture } from "./LocationPicture";
import { OtherEnd } from "./OtherEnd";
import { VehicleInputs } from "./VehicleInputs";

type Rig = Schemas["Rig"];

const ENDS = [
  { value: "front", label: "Front axle" },
  { value: "rear", label: "Rear axle" },
] as const;
const SIDES = [
  { value: "left", label: "Left" },
  { value: "right", label: "Right" },
] as const;
const LOCATIONS = [
  { value: "leaf_springs", label: "Leaf springs" },
  { value: "radius_arms", label: "Radius arms" },
  { value: "three_arms", label: "Three arms" },
  { value: "four_arms", label: "Four arms" },
  { value: "y_link", label: "Y-shaped link" },
] as const;
const USES = [
  { value: "road_and_towing", label: "Road, towing" },
  { value: "loaded_travel", label: "Loaded travel" },
  { value: "mixed", label: "Road and trail" },
  { value: "trails", label: "Trails" },
  { value: "crawling", label: "Crawling" },
  { value: "fast_desert", label: "Fast, open ground" },
] as const;
const UNITS = [
  { value: "in", label: "Inches" },
  { value: "mm", label: "Millimetres" },
] as const;

/** Fields of lengths: what they are called and which stage needs them. */
const TRAVEL = [
  { field: "bump", label: "Travel up, from ride height", hint: "Bar: arc over the travel." },
  { field: "droop", label: "Travel down, from ride height", hint: "Bar: arc over the travel." },
] as const;
const SIZES = [
  { field: "track", label: "Track, tyre middle to middle", hint: "Drawing, lean in Tape, Cycle" },
  { field: "tyre_diameter", label: "Tyre diameter", hint: "Drawing; Cycle: height of the axle" },
  { field: "tyre_width", label: "Tyre width", hint: "Drawing only" },
  { field: "frame_width", label: "Frame width, outside", hint: "Drawing; Cycle: from the rail" },
] as const;
const STOPS = [
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
const LIMITS = [
  { field: "tolerance", label: "What counts as centred", hint: "Tape, Prove." },
  { field: "usual_spread", label: "Usual spread of repeats", hint: "Tape." },
] as const;

/** Who holds what: the end, the sides, the heights, the use, the complaints. */
export function RigStage() {
  const { view, job, results, change } = useJob();
  const units = useSettings((s) => s.units);
  const rig: Rig = job.rig ?? {};
  const unit = rig.sheet_unit ?? "in";
  const empty = useEmpty();
  const set = (part: Partial<Rig>) => change(setRig(part));
  const length = ({ field, label, hint }: { field: keyof Rig & string; label: string; hint: string }) => (
    <TapeField
      key={field}
      job={view.id}
      pointer={`/rig/${field}`}
      label={label}
      hint={`${hint} ${empty(`/rig/${field}`)}`.trim()}
      unit={unit}
      value={rig[field] as TapeEntry | undefined}
      onCommit={(entry) => set({ [field]: entry })}
    />
  );
  const headline = results.stages.find((s) => s.stage === "rig");
  return (
    <>
      <Answer says={headline ? say(headline.headline, units).replace(/^./, (c) => c.toUpperCase()) : ""}>
        {rig.frame_eye_side
          ? `The bar is bolted to the frame on the ${rig.frame_eye_side}.`
          : "Say what it is and which side the bar is bolted to the frame on."}
      </Answer>
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
      <Choice label="Which end is worked on" value={rig.end} options={ENDS} onPick={(end) => set({ end })} />
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice
          label="Steering wheel on the"
          value={rig.steering_side}
          options={SIDES}
          onPick={(steering_side) => set({ steering_side })}
        />
        <Choice
          label="Frame eye of the bar on the"
          value={rig.frame_eye_side}
          options={SIDES}
          onPick={(frame_eye_side) => set({ frame_eye_side })}
          hint="Bar needs this."
        />
      </div>
      <Choice
        label="Sheets are written in"
        value={unit}
        options={UNITS}
        onPick={(sheet_unit) => set({ sheet_unit })}
        hint="What a bare number means where it is typed. The unit button above changes what is shown, never what is stored."
      />
      <TapeField
        job={view.id}
        pointer="/rig/lift"
        label="Height added to stock"
        hint="A drop has a minus sign. Bar, Prove: what the lift alone does"
        signed
        unit={unit}
        value={rig.lift}
        onCommit={(lift) => set({ lift })}
      />
      <div className="grid gap-x-3 sm:grid-cols-2">{TRAVEL.map(length)}</div>
      <Heights rig={rig} jobId={view.id} onSet={set} />
      <Choice
        label="What holds the axle fore and aft"
        value={rig.axle_location}
        options={LOCATIONS}
        onPick={(axle_location) => set({ axle_location })}
        picture={(location) => <LocationPicture location={location} />}
        hint="Cycle needs this. A Y-shaped link centres the axle itself: then there is no bar."
      />
      <Choice
        label="What it is used for"
        value={rig.use}
        options={USES}
        onPick={(use) => set({ use })}
        hint="Bracket: loads. Sway: how much it may roll."
      />
      <Complaints />
      <OtherEnd />
      <Fold title="Sizes and tolerances">
        <div className="grid gap-x-3 sm:grid-cols-2">
          {SIZES.map(length)}
          {STOPS.map(length)}
          {LIMITS.map(length)}
        </div>
        <AngleField
          job={view.id}
          pointer="/rig/floor_slope"
          label="Slope of the floor, + higher on the left"
          value={rig.floor_slope}
          hint="Tape: plumb lines. Bar: a finder zeroed on gravity. Empty: level"
          onCommit={(floor_slope) => set({ floor_slope })}
        />
      </Fold>
      <VehicleInputs />
      <Fold title="Sway bar">
        <BarInputs />
      </Fold>
      <TextField
        job={view.id}
        pointer="/notes"
        label="Notes"
        long
        value={job.notes ?? ""}
        onCommit={(notes) => change((old: Job) => ({ ...old, notes }))}
      />
      <Assumed />
    </>
  );
}

function Assumed() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  if (results.assumptions.length === 0) return null;
  const list = (drawingOnly: boolean) =>
    results.assumptions
      .filter((a) => a.drawing_only === drawingOnly)
      .map((a) => say(a.says, units))
      .join(", ");
  return (
    <Fold title="Assumed, because nobody has measured it">
      {list(false) && (
        <p>
          Figures rest on: <Figure>{list(false)}</Figure>.
        </p>
      )}
      {list(true) && (
        <p>
          The drawing alone rests on: <Figure>{list(true)}</Figure>.
        </p>
      )}
    </Fold>
  );
}

function Heights({ rig, jobId, onSet }: { rig: Rig; jobId: string; onSet: (part: Partial<Rig>) => void }) {
  const heights = rig.heights ?? [];
  const put = (index: number, part: Partial<Schemas["HeightState"]>) =>
    heights.map((height, at) => (at === index ? { ...height, ...part } : height));
  const { change } = useJob();
  const rename = (index: number, name: string) => change(renameHeight(heights[index]?.name ?? "", name));
  const add = () => {
    const taken = heights.map((height) => height.name);
    const name =
      ["raised", "loaded", "lowered"].find((word) => !taken.includes(word)) ?? `height ${heights.length + 1}`;
    onSet({ heights: [...heights, { name, offset: { text: "0", unit: rig.sheet_unit ?? "in" } }] });
  };
  const remove = (index: number) => {
    const name = heights[index]?.name;
    onSet({
      heights: heights.filter((_, at) => at !== index),
      driven_height: rig.driven_height === name ? "" : rig.driven_height,
    });
  };
  const options = [
    ...(heights.some((height) => height.name === rig.driven_height) && heights.length > 1
      ? []
      : [{ value: "-", label: "ride height" }]),
    ...heights.map((height) => ({ value: height.name, label: height.name })),
  ];
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-[15px] text-muted">
        Heights it stands at, above ride height (− is below)
      </legend>
      {heights.map((height, index) => (
        <div key={index} className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
          <TextField
            job={jobId}
            pointer={`/rig/heights/${index}/name`}
            label="name"
            required
            value={height.name}
            onCommit={(name) => rename(index, name)}
          />
          <TapeField
            job={jobId}
            pointer={`/rig/heights/${index}/offset`}
            label="higher by"
            signed
            unit={rig.sheet_unit ?? "in"}
            value={height.offset}
            onCommit={(offset) => offset && onSet({ heights: put(index, { offset }) })}
          />
          <Button
            look="quiet"
            className="mt-6"
            aria-label={`take out ${height.name}`}
            onClick={() => remove(index)}
          >
            <Trash2 size={18} aria-hidden />
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={add}>
          <Plus size={18} aria-hidden />
          Add a height
        </Button>
      </div>
      {heights.length > 0 && (
        <Choice
          label="Really driven at"
          value={rig.driven_height ? rig.driven_height : "-"}
          options={options}
          onPick={(name) => onSet({ driven_height: name === "-" ? "" : name })}
          hint="All decisions are made at this height."
        />
      )}
    </fieldset>
  );
}

const ABOUT = [
  { value: "off_centre", label: "off centre" },
  { value: "side_stepping", label: "side-stepping" },
  { value: "wander", label: "wander" },
  { value: "wobble", label: "wobble" },
  { value: "rocking", label: "rocking" },
  { value: "rub", label: "tyre rub" },
  { value: "clunk", label: "clunk" },
  { value: "wheel_crooked", label: "wheel crooked" },
  { value: "lifts_early", label: "wheel lifts early" },
] as const satisfies readonly { value: Schemas["ComplaintAbout"]; label: string }[];

/** What a complaint suggests to look at, in this job's figures. */
function Advice({ complaint }: { complaint: number }) {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const advice = results.complaints?.find((told) => told.complaint === complaint);
  if (!advice) return null;
  return (
    <ul className="list-disc pl-6 text-[16px] leading-snug" data-advice={complaint}>
      {advice.says.map((says) => (
        <li key={says.in}>
          <Figure>{say(says, units)}</Figure>
        </li>
      ))}
    </ul>
  );
}

function Complaints() {
  const { view, job, change } = useJob();
  const complaints = job.complaints ?? [];
  const set = (next: Schemas["Complaint"][]) => change((old) => ({ ...old, complaints: next }));
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-[15px] text-muted">What is complained about (asked again in Prove)</legend>
      {complaints.map((complaint, index) => (
        <div key={index} className="grid gap-1">
          <TextField
            job={view.id}
            pointer={`/complaints/${index}/text`}
            label={`complaint ${index + 1}`}
            required
            value={complaint.text}
            onCommit={(text) => set(complaints.map((old, at) => (at === index ? { ...old, text } : old)))}
          />
          <div className="flex gap-2">
            <select
              aria-label={`complaint ${index + 1} is about`}
              className="min-h-11 min-w-0 flex-1 border-[1.5px] border-ink bg-slate px-2"
              value={complaint.about ?? ""}
              onChange={(event) => {
                const about = (event.target.value || undefined) as Schemas["ComplaintAbout"] | undefined;
                set(complaints.map((old, at) => (at === index ? { ...old, about } : old)));
              }}
            >
              <option value="">what is it about?</option>
              {ABOUT.map(({ value, label }) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </select>
            <Button
              look="quiet"
              aria-label={`take out complaint ${index + 1}`}
              onClick={() => set(complaints.filter((_, at) => at !== index))}
            >
              <Trash2 size={18} aria-hidden />
            </Button>
          </div>
          <Advice complaint={index} />
        </div>
      ))}
      <div>
        <Button onClick={() => set([...complaints, { text: "New complaint" }])}>
          <Plus size={18} aria-hidden />
          Add a complaint
        </Button>
      </div>
    </fieldset>
  );
}
