import type { Schemas } from "../../api/client";
import { setAdjuster } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

type AdjusterForm = Schemas["AdjusterForm"];
type EndForm = Schemas["ThreadedEndForm"];

const KINDS = optionsOf<Schemas["AdjusterKind"]>({
  turnbuckle: "Turnbuckle",
  one_end: "One end",
  fixed: "Fixed",
});
const HANDS = optionsOf<Schemas["Hand"]>({
  right: "right-hand",
  left: "left-hand",
});
const SEATS = optionsOf<Schemas["ThreadSeat"]>({
  steel: "steel body",
  welded_adapter: "weld-in tube adapter (bung)",
  aluminium: "aluminium",
});
const STYLES = optionsOf<Schemas["EndStyle"]>({
  through_bolt: "through bolt",
  ball_stud: "ball stud",
  one_way_up: "through bolt, eye goes in one way only",
});

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
      hint="per the manufacturer, eye to eye"
      unit={unit}
      value={form[field]}
      onCommit={(entry) => set({ [field]: entry })}
    />
  );
  return (
    <div className="grid gap-3">
      <Choice
        label="Adjuster"
        pointer="/setups/found/adjuster/kind"
        value={form.kind}
        options={KINDS}
        onPick={(kind) => set({ kind })}
      />
      {form.kind === "one_end" && (
        <Choice
          label="The adjusting end bolts up with a"
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
        {made("made_min", "Shortest length, per manufacturer")}
        {made("made_max", "Longest length, per manufacturer")}
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
        {length("engagement", "Thread engaged, as found", "how much is screwed in")}
      </div>
      <Choice
        label="Right- or left-hand"
        value={form.hand}
        options={HANDS}
        onPick={(hand) => onSet({ ...form, hand })}
      />
      <Choice
        label="Screws into a"
        value={form.seat ?? "steel"}
        options={SEATS}
        onPick={(seat) => onSet({ ...form, seat })}
      />
      <div className="grid gap-x-3 sm:grid-cols-3">
        {length("shank", "Thread on the shank", "for cutting back")}
        {length("tapped_depth", "Depth in the body", "for cutting back")}
        {length("witness", "Witness mark", "Minimum engagement")}
      </div>
    </fieldset>
  );
}
