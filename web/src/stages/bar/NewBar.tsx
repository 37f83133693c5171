import type { Schemas } from "../../api/client";
import { setBar, setBracketing, setChosen, setNewBar } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

const KINDS = optionsOf<Schemas["AdjusterKind"]>({
  turnbuckle: "both ends",
  one_end: "one end",
  fixed: "not adjustable",
});
const AIMS = optionsOf<Schemas["LengthAim"]>({
  as_the_old_one: "the old bar's length",
  as_the_maker_had_it: "the stock length",
  centred: "what the measurements call for",
});

const THREADS = optionsOf<"opposite" | "same">({
  opposite: "one right-, one left-hand",
  same: "both right-hand",
});

/** A bar that goes in where the old one was: the old bar's length and the new bar's own are enough to set it. */
export function NewBar() {
  const { view, job, change } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  const chosen = job.setups?.plans?.chosen;
  const bars = job.bracket?.bars ?? [];
  const place = bars.findIndex((bar) => bar.id === chosen?.bar);
  const at = place < 0 ? bars.length : place;
  const bar: Partial<Schemas["BarPart"]> = bars[place] ?? {};
  const length = (field: "made_min" | "made_max", label: string, hint: string) => (
    <TapeField
      job={view.id}
      pointer={`/bracket/bars/${at}/${field}`}
      label={label}
      hint={hint}
      unit={unit}
      value={bar[field]}
      onCommit={(entry) => change(setNewBar({ [field]: entry }))}
    />
  );
  const fixed = bar.adjuster === "fixed";
  return (
    <div className="grid gap-2" data-new-bar>
      <TapeField
        job={view.id}
        pointer="/setups/found/bar/length"
        label="Old bar, eye to eye (center to center)"
        hint="center to center of the bolts, on the bench or in the truck"
        unit={unit}
        value={job.setups?.found?.bar?.length}
        onCommit={(entry) => change(setBar({ length: entry }))}
      />
      <Choice
        label="The new bar adjusts at"
        pointer={`/bracket/bars/${at}/adjuster`}
        value={bar.adjuster}
        options={KINDS}
        onPick={(adjuster) => change(setNewBar({ adjuster }))}
      />
      {fixed
        ? length("made_min", "New bar, eye to eye", "center to center of the bolts")
        : length("made_min", "New bar screwed all the way in, eye to eye", "its shortest length")}
      {!fixed && (
        <div className="grid gap-x-3 sm:grid-cols-2">
          <FigureField
            kind="thread"
            pointer={`/bracket/bars/${at}/thread`}
            label="Its thread, for turns and flats"
            value={bar.thread}
            onCommit={(thread) => change(setNewBar({ thread }))}
          />
          {length("made_max", "Longest, per the manufacturer", "optional")}
        </div>
      )}
      {bar.adjuster === "turnbuckle" && bar.thread && (
        <Choice
          label="Its two threads"
          pointer={`/bracket/bars/${at}/hand`}
          value={bar.hand && (bar.hand === bar.second_hand ? "same" : "opposite")}
          options={THREADS}
          onPick={(threads) =>
            change(setNewBar({ hand: "right", second_hand: threads === "same" ? "right" : "left" }))
          }
        />
      )}
      {bar.id && !fixed && (
        <Choice
          label="Set it to"
          value={chosen?.length ?? "centred"}
          options={AIMS}
          onPick={(aim) => change(setChosen({ length: aim }))}
        />
      )}
      {chosen?.length === "as_the_maker_had_it" && (
        <TapeField
          job={view.id}
          pointer="/bracket/stock_length"
          label="Stock length, eye to eye"
          hint="from the manufacturer"
          unit={unit}
          value={job.bracket?.stock_length}
          onCommit={(entry) => change(setBracketing({ stock_length: entry }))}
        />
      )}
    </div>
  );
}
