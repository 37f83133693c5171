import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setBracketing } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { Tick } from "../../ui/Tick";

type Conversion = Schemas["Conversion"];
type PinionReading = Schemas["PinionReading"];

const KINDS = optionsOf<Schemas["AdjusterKind"]>({
  one_end: "at one end",
  turnbuckle: "by a sleeve",
  fixed: "not adjustable",
});

/** What a Y-link needs said: its legs' thread, the spacers, the pinion before and after at every height. */
export function ConversionInputs() {
  const { job, results, change } = useJob();
  const form: Conversion = job.bracket?.conversion ?? {};
  const set = (part: Partial<Conversion>) => change(setBracketing({ conversion: { ...form, ...part } }));
  return (
    <>
      <Choice
        label="How the legs adjust"
        value={form.leg_kind}
        options={KINDS}
        onPick={(leg_kind) => set({ leg_kind })}
      />
      <FigureField
        kind="thread"
        pointer="/bracket/conversion/leg_thread"
        label="Thread of the legs"
        value={form.leg_thread}
        onCommit={(leg_thread) => set({ leg_thread })}
      />
      <Tick
        label="Spacers behind the old upper mount removed"
        value={form.spacers_out}
        onPick={(spacers_out) => set({ spacers_out })}
      />
      <p className="pt-2 text-[15px] text-muted">
        Pinion angle by finder, nose down +. One measurement with the Y-link in covers all heights.
      </p>
      {results.heights.map((height) => (
        <Pinion
          key={height.id}
          at={height.driven ? "" : height.id}
          label={height.name}
          form={form}
          onPut={set}
        />
      ))}
    </>
  );
}

type PinionProps = {
  /** The height's id; empty is the driven one. */
  at: string;
  label: string;
  form: Conversion;
  onPut: (part: Partial<Conversion>) => void;
};

/** Both readings at one height. */
function Pinion({ at: id, label, form, onPut }: PinionProps) {
  const { view } = useJob();
  const readings = form.pinion ?? [];
  const index = readings.findIndex((reading) => (reading.height ?? "") === id);
  const at = `/bracket/conversion/pinion/${index < 0 ? readings.length : index}`;
  const put = (part: Partial<PinionReading>) => {
    const height = id === "" ? {} : { height: id };
    const pinion =
      index < 0
        ? [...readings, { ...height, ...part }]
        : readings.map((reading, here) => (here === index ? { ...reading, ...part } : reading));
    onPut({ pinion });
  };
  return (
    <div className="grid gap-x-2 sm:grid-cols-2">
      <AngleField
        job={view.id}
        pointer={`${at}/before`}
        label={`Before, at ${label}`}
        value={readings[index]?.before}
        onCommit={(before) => put({ before })}
      />
      <AngleField
        job={view.id}
        pointer={`${at}/after`}
        label={`Now, at ${label}`}
        value={readings[index]?.after}
        onCommit={(after) => put({ after })}
      />
    </div>
  );
}
