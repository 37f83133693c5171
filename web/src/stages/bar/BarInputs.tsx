import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { Tick } from "../../ui/Tick";
import { AngleField } from "../job/AngleField";
import { setAdjuster, setBar } from "../job/edits";
import { FigureField } from "../job/FigureField";
import { useEmpty } from "../job/useEmpty";
import { useJob } from "../job/useJob";

type Bar = Schemas["Bar"];
type AdjusterForm = Schemas["AdjusterForm"];
type EndForm = Schemas["ThreadedEndForm"];

const READ = [
  { value: "as_it_stands", label: "as it stands now" },
  { value: "before_the_lift", label: "before the lift" },
] as const;
const ENDS = [
  { value: "frame", label: "frame end" },
  { value: "axle", label: "axle end" },
] as const;
const ZEROS = [
  { value: "gravity", label: "on gravity" },
  { value: "floor_or_frame", label: "on floor or frame" },
] as const;
const KINDS = [
  { value: "turnbuckle", label: "Turnbuckle" },
  { value: "one_end", label: "One end" },
  { value: "fixed", label: "Fixed" },
] as const;
const HANDS = [
  { value: "right", label: "right-hand" },
  { value: "left", label: "left-hand" },
] as const;
const SEATS = [
  { value: "steel", label: "steel body" },
  { value: "welded_adapter", label: "welded-in adapter" },
  { value: "aluminium", label: "aluminium" },
] as const;
const STYLES = [
  { value: "through_bolt", label: "through bolt" },
  { value: "ball_stud", label: "ball stud" },
  { value: "one_way_up", label: "through bolt, eye one way up" },
] as const;

/** The bar as found: length, heights or angle, and what else matters. */
export function BarInputs() {
  const { view, job, change } = useJob();
  const empty = useEmpty();
  const bar: Bar = job.setups?.found?.bar ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Bar>) => change(setBar(part));
  const length = (field: keyof Bar & string, label: string, hint: string, signed = false) => (
    <TapeField
      job={view.id}
      pointer={`/setups/found/bar/${field}`}
      label={label}
      hint={hint}
      signed={signed}
      unit={unit}
      value={bar[field] as Schemas["TapeEntry"] | undefined}
      onCommit={(entry) => set({ [field]: entry })}
    />
  );
  const finder = bar.finder ?? {};
  const setFinder = (part: Partial<NonNullable<Bar["finder"]>>) => set({ finder: { ...finder, ...part } });
  return (
    <div className="grid gap-2">
      {length("length", "Length, eye to eye", "centre to centre of the bolts")}
      <div className="grid gap-x-3 sm:grid-cols-2">
        {length("frame_eye_height", "Frame eye above the floor", "middle of the bolt")}
        {length("axle_eye_height", "Axle eye above the floor", "the same floor")}
      </div>
      <Choice
        label="Read"
        value={bar.read ?? "as_it_stands"}
        options={READ}
        onPick={(read) => set({ read })}
      />
      <Fold title="By angle finder" open={finder.reading !== undefined}>
        <div className="grid gap-2">
          <AngleField
            job={view.id}
            pointer="/setups/found/bar/finder/reading"
            label="Finder along the bar"
            value={finder.reading}
            onCommit={(reading) => setFinder({ reading })}
          />
          <Choice
            label="Which end is higher? The finder does not say"
            value={finder.higher_end}
            options={ENDS}
            onPick={(higher_end) => setFinder({ higher_end })}
          />
          <Choice
            label="It was zeroed"
            value={finder.zero ?? "gravity"}
            options={ZEROS}
            onPick={(zero) => setFinder({ zero })}
          />
          <AngleField
            job={view.id}
            pointer="/setups/found/bar/finder/good_to"
            label="It is good to, plus or minus"
            hint={`${empty("/setups/found/bar/finder/good_to")}. A dial is good to 1°`}
            value={finder.good_to}
            onCommit={(good_to) => setFinder({ good_to })}
          />
          <Tick
            label="The bar is bent or tapered: only heights count"
            value={bar.bent}
            onPick={(bent) => set({ bent: bent ?? false })}
          />
        </div>
      </Fold>
      <Fold title="Where its eyes are">
        <div className="grid gap-x-3 sm:grid-cols-2">
          {length("fore_aft", "Frame eye further forward by", "further back is −. Empty: none", true)}
          {length(
            "frame_eye_from_centre",
            "Frame eye from the centreline",
            "checks the length, places the drawing",
          )}
          {length("axle_eye_from_centre", "Axle eye from the centreline", "on the other side")}
          {length(
            "heights_good_to",
            "Bolt heights are good to",
            `plus or minus. ${empty("/setups/found/bar/heights_good_to")}`,
          )}
        </div>
      </Fold>
    </div>
  );
}

/** The adjuster: kind, threads, made range. */
export function AdjusterInputs() {
  const { view, job, change } = useJob();
  const form: AdjusterForm = job.setups?.found?.adjuster ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<AdjusterForm>) => change(setAdjuster(part));
  const made = (field: "made_min" | "made_max", label: string) => (
    <TapeField
      job={view.id}
      pointer={`/setups/found/adjuster/${field}`}
      label={label}
      hint="by its maker, eye to eye"
      unit={unit}
      value={form[field]}
      onCommit={(entry) => set({ [field]: entry })}
    />
  );
  return (
    <div className="grid gap-3">
      <Choice label="The bar is" value={form.kind} options={KINDS} onPick={(kind) => set({ kind })} />
      {form.kind === "one_end" && (
        <Choice
          label="Through its eye goes a"
          value={form.end_style ?? "through_bolt"}
          options={STYLES}
          onPick={(end_style) => set({ end_style })}
        />
      )}
      {form.kind && form.kind !== "fixed" && (
        <ThreadedEnd
          name={form.kind === "one_end" ? "Adjusting end" : "Frame end"}
          field="first"
          form={form.first ?? {}}
          onSet={(first) => set({ first })}
        />
      )}
      {form.kind === "turnbuckle" && (
        <ThreadedEnd
          name="Axle end"
          field="second"
          form={form.second ?? {}}
          onSet={(second) => set({ second })}
        />
      )}
      <div className="grid gap-x-3 sm:grid-cols-2">
        {made("made_min", "Shortest as made")}
        {made("made_max", "Longest as made")}
      </div>
    </div>
  );
}

function ThreadedEnd({
  name,
  field,
  form,
  onSet,
}: {
  name: string;
  field: "first" | "second";
  form: EndForm;
  onSet: (form: EndForm) => void;
}) {
  const { view, job } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  const at = `/setups/found/adjuster/${field}`;
  const length = (part: keyof EndForm & string, label: string, hint: string) => (
    <TapeField
      job={view.id}
      pointer={`${at}/${part}`}
      label={label}
      hint={hint}
      unit={unit}
      value={form[part] as Schemas["TapeEntry"] | undefined}
      onCommit={(entry) => onSet({ ...form, [part]: entry })}
    />
  );
  return (
    <fieldset className="grid gap-2 border-frame border-l-[3px] pl-3">
      <legend className="font-semibold">{name}</legend>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <FigureField
          kind="thread"
          pointer={`${at}/thread`}
          label="Thread"
          value={form.thread}
          onCommit={(thread) => onSet({ ...form, thread })}
        />
        {length("engagement", "Thread in, as found", "how much is screwed in")}
      </div>
      <Choice
        label="It is cut"
        value={form.hand}
        options={HANDS}
        onPick={(hand) => onSet({ ...form, hand })}
      />
      <Choice
        label="Into a"
        value={form.seat ?? "steel"}
        options={SEATS}
        onPick={(seat) => onSet({ ...form, seat })}
      />
      <div className="grid gap-x-3 sm:grid-cols-3">
        {length("shank", "Thread on the shank", "for cutting back")}
        {length("tapped_depth", "Depth in the body", "for cutting back")}
        {length("witness", "Witness mark", "the maker's least")}
      </div>
    </fieldset>
  );
}
