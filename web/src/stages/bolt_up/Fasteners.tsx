import { Plus } from "lucide-react";
import type { Schemas } from "../../api/client";
import { FigureField } from "../../job/FigureField";
import { LengthFields } from "../../job/LengthFields";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { GRADES, NUTS, TREATMENTS } from "../bracket/BoltInputs";
import { Checks } from "../bracket/Checks";
import { type FastenerForm, ownKey, setFastener, setWork } from "./edits";
import type { FastenerLine, WorkResult } from "./useWorked";

const SOURCES = optionsOf<Schemas["TorqueSource"]>({
  parts_sheet: "part's instructions",
  vehicle_manual: "vehicle manual",
  maker_told: "manufacturer",
  from_memory: "memory",
});

const HEADS = optionsOf<Schemas["HeadSide"]>({
  forward: "forward",
  back: "back",
  inward: "inward",
  outward: "outward",
  up: "up",
  down: "down",
});

const YES_NO = [
  { value: "yes", label: "yes" },
  { value: "no", label: "no" },
] as const;

const TIGHTNESS = {
  open: "open",
  tight: "tight",
  other_than_wanted: "not to spec",
  by_feel: "by feel",
  struck: "skipped",
} satisfies Record<Schemas["Tightness"], string>;

/** One list for everything that is bolted. */
export function Fasteners({ worked }: { worked: WorkResult }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <>
      {worked.fasteners.length === 0 && <p className="text-muted">Nothing gets bolted in this job.</p>}
      {worked.fasteners.map((line) => (
        <Fold key={line.key} title={`${line.name}: ${TIGHTNESS[line.tightness]}`}>
          <p className="mb-2">
            <Figure>{say(line.torque_says, units)}</Figure>
          </p>
          <FastenerInputs line={line} />
        </Fold>
      ))}
      <div>
        <Button
          onClick={() => change(setFastener(ownKey(job.bolt_up?.fasteners), { name: "another fastener" }))}
        >
          <Plus size={18} aria-hidden />
          Add a fastener
        </Button>
      </div>
    </>
  );
}

const FIGURES = [
  ["thread", "thread", "Thread size"],
  ["thread", "nut_thread", "Nut thread"],
  ["torque", "torque", "Torque as given"],
] as const;
const LENGTHS = [
  ["length", "Bolt length under the head"],
  ["grip", "Total thickness clamped"],
  ["washer", "One washer, one at each end"],
  ["hole", "Hole size"],
] as const;
const WORDS = [
  ["reused_from", "Reused from"],
  ["access", "What to move for wrench access"],
] as const;

function FastenerInputs({ line }: { line: FastenerLine }) {
  const { view, job, change } = useJob();
  const forms = job.bolt_up?.fasteners ?? [];
  const known = forms.findIndex((form) => form.key === line.key);
  const form: FastenerForm = forms[known] ?? { key: line.key };
  const at = `/bolt_up/fasteners/${known < 0 ? line.key : known}`;
  const set = (part: Partial<FastenerForm>) => change(setFastener(line.key, part));
  const own = line.key.startsWith("own/");
  return (
    <div className="grid gap-2" data-fastener-inputs={line.key}>
      <Checks title="" checks={line.checks} />
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        {own && (
          <TextField
            job={view.id}
            pointer={`${at}/name`}
            label="What it holds"
            value={form.name ?? ""}
            required
            onCommit={(name) => set({ name })}
          />
        )}
        {FIGURES.map(([kind, field, label]) => (
          <FigureField
            key={field}
            kind={kind}
            pointer={`${at}/${field}`}
            label={label}
            value={form[field]}
            onCommit={(text) => set({ [field]: text })}
          />
        ))}
        <LengthFields at={at} form={form} fields={LENGTHS} onPut={set} />
        {WORDS.map(([field, label]) => (
          <TextField
            key={field}
            job={view.id}
            pointer={`${at}/${field}`}
            label={label}
            value={form[field] ?? ""}
            onCommit={(text) => set({ [field]: text })}
          />
        ))}
      </div>
      <FastenerChoices form={form} onSet={set} />
      <TextField
        job={view.id}
        pointer={`${at}/struck`}
        label="Skip it, because"
        value={form.struck ?? ""}
        onCommit={(struck) => set({ struck })}
      />
      {own && (
        <div>
          <Button
            onClick={() =>
              change(
                setWork((work) => ({
                  fasteners: (work.fasteners ?? []).filter((old) => old.key !== line.key),
                })),
              )
            }
          >
            Remove
          </Button>
        </div>
      )}
    </div>
  );
}

type FastenerChoicesProps = { form: FastenerForm; onSet: (part: Partial<FastenerForm>) => void };

function FastenerChoices({ form, onSet: set }: FastenerChoicesProps) {
  return (
    <>
      <Choice
        label="Torque comes from"
        value={form.source}
        options={SOURCES}
        onPick={(source) => set({ source })}
      />
      <Choice
        label="Head marking"
        value={form.grade ?? "unknown"}
        options={GRADES}
        onPick={(grade) => set({ grade: grade === "unknown" ? undefined : grade })}
      />
      <Choice label="Nut type" value={form.nut} options={NUTS} onPick={(nut) => set({ nut })} />
      <Choice
        label="Threads are"
        value={form.treatment}
        options={TREATMENTS}
        onPick={(treatment) => set({ treatment })}
      />
      <Choice
        label="It runs through a control arm's bushing"
        value={form.through_bushing === undefined ? undefined : form.through_bushing ? "yes" : "no"}
        options={YES_NO}
        onPick={(answer) => set({ through_bushing: answer === undefined ? undefined : answer === "yes" })}
      />
      <Choice label="Bolt head faces" value={form.head} options={HEADS} onPick={(head) => set({ head })} />
    </>
  );
}
