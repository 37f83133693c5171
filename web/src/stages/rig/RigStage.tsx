import type { Job, Results, Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setRig } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { useNeeds } from "../../job/useNeeds";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Choice, optionsOf } from "../../ui/Choice";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { measure, plain, type Sign } from "../../ui/sign";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { BarInputs } from "../sway/BarInputs";
import { Complaints } from "./Complaints";
import { Heights } from "./Heights";
import { HeightsFrom } from "./HeightsFrom";
import { OtherEnd } from "./OtherEnd";
import { RigAssumed } from "./RigAssumed";
import { LIMITS, RigLengths, SIZES, STOPS, TRAVEL } from "./RigLengths";
import { Straps } from "./Straps";
import { VehicleInputs } from "./VehicleInputs";
import { WhoHoldsWhat } from "./WhoHoldsWhat";

type Rig = Schemas["Rig"];

const USES = optionsOf<Schemas["Use"]>({
  road_and_towing: "Road, towing",
  loaded_travel: "Loaded travel",
  mixed: "Road and trail",
  trails: "Trails",
  crawling: "Crawling",
  fast_desert: "Fast, open ground",
});

/** Who holds what: the end, the sides, the heights, the use, the complaints. */
export function RigStage() {
  const { job, results } = useJob();
  const units = useSettings((s) => s.units);
  const needs = useNeeds();
  const headline = results.stages.find((s) => s.stage === "rig");
  const eye = job.rig?.frame_eye_side;
  const sections = sectionsOf(job, results, needs("sway"), needs("bracket", "sway"));
  return (
    <>
      <Answer says={headline ? say(headline.headline, units).replace(/^./, (c) => c.toUpperCase()) : ""}>
        {results.no_bar ? withoutBar(job) : needs("bar", "bracket", "cycle") ? withBar(eye) : ELSE}
      </Answer>
      <Sections label="Rig inputs" of="rig" sections={sections} />
    </>
  );
}

const ELSE = "Say what vehicle it is; nothing else is needed here for this job.";

function withBar(eye: Rig["frame_eye_side"]) {
  return eye
    ? `The track bar's frame end is on the ${eye}.`
    : "Say what vehicle it is and which side the bar's frame end is on.";
}

/** A bar that goes is not asked about: neither its side nor its holes. */
function withoutBar(job: Job) {
  return job.rig?.axle_location === "y_link"
    ? "A Y-link centers this axle; there is no track bar."
    : "The track bar comes out in this job: a Y-link takes its place.";
}

function sectionsOf(job: Job, results: Results, sway: boolean, loads: boolean): Section[] {
  const rig: Rig = job.rig ?? {};
  const complaints = job.complaints?.length ?? 0;
  const open = [rig.end, rig.steering_side].filter((reported) => reported === undefined).length;
  const of = (count: number, word: string, none: string): Sign =>
    plain(count > 0 ? `${count} ${word}` : none);
  return [
    {
      value: "who",
      label: "Axle setup",
      sign: open > 0 ? measure(`${open} to answer`) : plain("entered"),
      inputs: <WhoHoldsWhat />,
    },
    {
      value: "heights",
      label: "Heights",
      sign: of(rig.heights?.length ?? 0, "named", "ride height"),
      inputs: <HeightInputs />,
    },
    {
      value: "sizes",
      label: "Sizes",
      sign: of(results.assumptions.length, "assumed", "entered"),
      inputs: <SizeInputs />,
    },
    ...(loads
      ? [
          {
            value: "weights",
            label: "Weights",
            sign: of(results.vehicle_assumed.length, "typical", "entered"),
            inputs: <VehicleInputs />,
          },
        ]
      : []),
    ...(sway
      ? [
          {
            value: "sway_bar",
            label: "Sway bar",
            sign: plain(job.sway?.kind ? "entered" : "not entered"),
            inputs: <BarInputs />,
          },
        ]
      : []),
    {
      value: "complaints",
      label: "Complaints",
      sign: of(complaints, "to ask again", "none"),
      inputs: <UseAndComplaints />,
    },
  ];
}

function HeightInputs() {
  const { view, job, change } = useJob();
  const rig: Rig = job.rig ?? {};
  const set = (part: Partial<Rig>) => change(setRig(part));
  return (
    <>
      <TapeField
        job={view.id}
        pointer="/rig/lift"
        label="Lift over stock"
        hint="For a drop, use a minus sign. Bar, Prove: what the lift alone does"
        signed
        unit={rig.sheet_unit ?? "in"}
        value={rig.lift}
        onCommit={(lift) => set({ lift })}
      />
      <RigLengths fields={TRAVEL} />
      <Heights rig={rig} jobId={view.id} onSet={set} />
    </>
  );
}

function SizeInputs() {
  const { view, job, change } = useJob();
  return (
    <>
      <RigLengths fields={[...SIZES, ...STOPS, ...LIMITS]} />
      <AngleField
        job={view.id}
        pointer="/rig/floor_slope"
        label="Floor slope, + if higher on the left"
        value={job.rig?.floor_slope}
        hint="Tape: plumb lines. Bar: an angle finder zeroed to level. Empty: level"
        onCommit={(floor_slope) => change(setRig({ floor_slope }))}
      />
      <HeightsFrom />
      <Straps />
      <RigAssumed />
    </>
  );
}

function UseAndComplaints() {
  const { view, job, change } = useJob();
  return (
    <>
      <Complaints />
      <Choice
        label="What it is used for"
        pointer="/rig/use"
        value={job.rig?.use}
        options={USES}
        onPick={(use) => change(setRig({ use }))}
        hint="Bracket: loads. Sway: how much body roll is OK."
      />
      <OtherEnd />
      <TextField
        job={view.id}
        pointer="/notes"
        label="Notes"
        long
        value={job.notes ?? ""}
        onCommit={(notes) => change((old: Job) => ({ ...old, notes }))}
      />
    </>
  );
}
