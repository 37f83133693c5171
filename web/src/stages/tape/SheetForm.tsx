import { Trash2 } from "lucide-react";
import type { Schemas, Sheet, SheetResult } from "../../api/client";
import { removeSheet, setReading, setSheet } from "../../job/edits";
import { useEmpty } from "../../job/useEmpty";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { drafts } from "../../ui/drafts";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { MethodPicture } from "./MethodPicture";
import { SpreadMarks } from "./SpreadMarks";

const METHODS = optionsOf<Schemas["Method"]>({
  frame_to_hub: "Frame to hub",
  frame_to_sidewall: "Frame to sidewall",
  body_to_sidewall: "Body to sidewall",
  own: "Another way",
});
const SENSES = optionsOf<Schemas["Sense"]>({
  outward: "that side sticks out more",
  inward: "that side is tucked in more",
});
const UNITS = optionsOf<Schemas["Unit"]>({
  in: "inches",
  mm: "millimetres",
});
const LEAST_SLOTS = 4;

type SheetFormProps = { sheet: Sheet; result: SheetResult | undefined; index: number };

/** Readings on both sides, walked round: down the left, then down the right. */
export function SheetForm({ sheet, result, index }: SheetFormProps) {
  const { job, change } = useJob();
  const id = sheet.id ?? "";
  const set = (part: Partial<Sheet>) => change(setSheet(id, part));
  const most = Math.max(sheet.left?.length ?? 0, sheet.right?.length ?? 0);
  const squareness = sheet.kind === "squareness";
  const method = sheet.method ?? "frame_to_hub";
  return (
    <>
      {!squareness && (
        <Fold
          title={`Measuring: ${METHODS.find((m) => m.value === method)?.label.toLowerCase()}`}
          open={most === 0}
        >
          <div className="grid gap-3">
            <MethodPicture method={method} />
            <Choice
              label="Measure from … to"
              value={method}
              options={METHODS}
              onPick={(picked) => set({ method: picked })}
            />
          </div>
        </Fold>
      )}
      {squareness && (
        <p>
          Measure the wheelbase on both sides, hub to hub, and the distance between the two points on this
          axle.
        </p>
      )}
      <ReadingFields sheet={sheet} index={index} />
      <SpreadMarks sheet={sheet} />
      {squareness && (
        <SheetLength
          sheet={sheet}
          index={index}
          onSet={set}
          field="between_points"
          label="Between the two points on this axle"
          hint="hub to hub across"
        />
      )}
      {!squareness && result?.centring && <MeansLine centring={result.centring} />}
      <HowItStood sheet={sheet} onSet={set} />
      <HeightChoice
        sheet={sheet}
        onPick={(height) => set({ height })}
        heights={job.rig?.heights ?? []}
        driven={job.rig?.driven_height ?? ""}
      />
      <MoreAboutSheet sheet={sheet} index={index} onSet={set} />
    </>
  );
}

type PartProps = { sheet: Sheet; index: number; onSet: (part: Partial<Sheet>) => void };

type SheetLengthProps = PartProps & {
  field: keyof Sheet & string;
  label: string;
  hint: string;
  signed?: boolean;
};

function SheetLength({ sheet, index, onSet, field, label, hint, signed = false }: SheetLengthProps) {
  const { view } = useJob();
  return (
    <TapeField
      job={view.id}
      pointer={`/sheets/${index}/${field}`}
      label={label}
      hint={hint}
      signed={signed}
      unit={sheet.unit ?? "in"}
      value={sheet[field] as Schemas["TapeEntry"] | undefined}
      onCommit={(entry) => onSet({ [field]: entry })}
    />
  );
}

/** Both sides, a field for each repeat and one to spare. */
function ReadingFields({ sheet, index }: Pick<PartProps, "sheet" | "index">) {
  const { view, change } = useJob();
  const unit = sheet.unit ?? "in";
  const id = sheet.id ?? "";
  const at = (field: string) => `/sheets/${index}/${field}`;
  const most = Math.max(sheet.left?.length ?? 0, sheet.right?.length ?? 0);
  const shown = most < LEAST_SLOTS ? LEAST_SLOTS : most + 1;
  return (
    <div className="grid grid-cols-2 gap-x-3">
      {(["left", "right"] as const).map((side) => (
        <fieldset key={side} className="min-w-0">
          <legend className="mb-1 font-semibold uppercase tracking-wide">{side}</legend>
          {Array.from({ length: shown }, (_, place) => (
            <TapeField
              key={place}
              bare
              job={view.id}
              pointer={at(`${side}/${place}`)}
              label={`${side} reading ${place + 1}`}
              unit={unit}
              value={sheet[side]?.[place] ?? undefined}
              onCommit={(entry) => change(setReading(id, side, place, entry))}
            />
          ))}
        </fieldset>
      ))}
    </div>
  );
}

function HowItStood({ sheet, onSet: set }: Pick<PartProps, "sheet" | "onSet">) {
  return (
    <fieldset>
      <legend className="mb-1 text-[15px] text-muted">Conditions</legend>
      <Tick
        label="When measured, the vehicle was"
        yes="on its wheels"
        no="hanging"
        value={sheet.conditions?.on_its_weight}
        onPick={(on_its_weight) => set({ conditions: { ...sheet.conditions, on_its_weight } })}
      />
      <Tick
        label="Wheels straight ahead"
        value={sheet.conditions?.wheels_straight}
        onPick={(wheels_straight) => set({ conditions: { ...sheet.conditions, wheels_straight } })}
      />
      <Tick
        label="Tires the same size, pressures equal"
        value={sheet.conditions?.pressures_equal}
        onPick={(pressures_equal) => set({ conditions: { ...sheet.conditions, pressures_equal } })}
      />
      <Tick
        label="Someone leaned on it between measurements"
        value={sheet.conditions?.leant_on}
        onPick={(leant_on) => set({ conditions: { ...sheet.conditions, leant_on } })}
      />
    </fieldset>
  );
}

/** What is seldom said of a sheet. */
function MoreAboutSheet({ sheet, index, onSet: set }: PartProps) {
  const { view, change } = useJob();
  const empty = useEmpty();
  const unit = sheet.unit ?? "in";
  const id = sheet.id ?? "";
  const at = (field: string) => `/sheets/${index}/${field}`;
  const squareness = sheet.kind === "squareness";
  const length = (field: keyof Sheet & string, label: string, hint: string, signed = false) => (
    <SheetLength
      key={field}
      sheet={sheet}
      index={index}
      onSet={set}
      field={field}
      label={label}
      hint={hint}
      signed={signed}
    />
  );
  const takeOut = () => {
    drafts.dropUnder(view.id, "/sheets/");
    change(removeSheet(id));
  };
  return (
    <Fold keep title="More about these measurements">
      <div className="grid gap-3">
        {!squareness && (
          <Choice
            label="A bigger number means"
            value={sheet.sense ?? "outward"}
            options={SENSES}
            onPick={(sense) => set({ sense })}
          />
        )}
        <Choice
          label="Plain numbers here are in"
          value={unit}
          options={UNITS}
          onPick={(picked) => set({ unit: picked })}
        />
        <div className="grid gap-x-3 sm:grid-cols-2">
          {length("resolution", "Smallest mark on the tape", empty("/sheets/resolution"))}
          {length("frame_above_hub_left", "Frame above hub, left", "For Prove: was it at the same height?")}
          {length("frame_above_hub_right", "Frame above hub, right", "For Tape: does the axle lean?")}
          {length(
            "height_above_axle",
            "Tape height above the axle center",
            "Only if the axle leans; below is −",
            true,
          )}
          {sheet.method === "body_to_sidewall" &&
            length("plumb_drop", "Plumb line length", "from its mark to the point read")}
          {sheet.method === "own" &&
            length(
              "feature_uncertainty",
              "Reference point is good to ±",
              `two times out of three it is nearer. ${empty("/sheets/feature_uncertainty")}`,
            )}
        </div>
        {sheet.method === "own" && (
          <TextField
            job={view.id}
            pointer={at("method_name")}
            label="What was measured"
            value={sheet.method_name ?? ""}
            onCommit={(method_name) => set({ method_name })}
          />
        )}
        <TextField
          job={view.id}
          pointer={at("note")}
          label="Note"
          long
          value={sheet.note ?? ""}
          onCommit={(note) => set({ note })}
        />
        <div>
          <Button onClick={takeOut}>
            <Trash2 size={18} aria-hidden />
            Delete these measurements
          </Button>
        </div>
      </div>
    </Fold>
  );
}

function MeansLine({ centring }: { centring: Schemas["Centring"] }) {
  const half = centring.working.steps[0];
  if (!half) return null;
  return (
    <p className="border-marker border-l-[5px] bg-paper py-1.5 pl-2.5">
      <b>Half the difference</b>, not the full difference: {half.numbers.in} in, or {half.numbers.mm} mm.
    </p>
  );
}

type HeightChoiceProps = {
  sheet: Sheet;
  heights: Schemas["HeightState"][];
  driven: string;
  onPick: (height: string) => void;
};

function HeightChoice({ sheet, heights, driven, onPick }: HeightChoiceProps) {
  if (heights.length === 0) return null;
  const options = heights.map((height) => ({ value: height.id ?? "", label: height.name }));
  return (
    <Choice
      label="Height when measured"
      value={sheet.height ? sheet.height : driven}
      options={options}
      onPick={onPick}
    />
  );
}
