import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setBar } from "../../job/edits";
import { heightLabel, isSigned } from "../../job/heights";
import { useEmpty } from "../../job/useEmpty";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { Tick } from "../../ui/Tick";

type Bar = Schemas["Bar"];

const READ = optionsOf<Schemas["BarRead"]>({
  as_it_stands: "as it is now",
  before_the_lift: "before the lift",
});
const ENDS = optionsOf<Schemas["BarEnd"]>({
  frame: "frame end",
  axle: "axle end",
});
const ZEROS = optionsOf<Schemas["FinderZero"]>({
  gravity: "to level (gravity)",
  floor_or_frame: "on the floor or frame",
});

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
      {length("length", "Length, eye to eye (center to center)", "center to center of the bolts")}
      <div className="grid gap-x-3 sm:grid-cols-2">
        {length(
          "frame_eye_height",
          `Frame end, ${heightLabel(job, true)}`,
          "to the center of the bolt",
          isSigned(job),
        )}
        {length(
          "axle_eye_height",
          `Axle end, ${heightLabel(job, false)}`,
          "to the center of the bolt",
          isSigned(job),
        )}
      </div>
      <Choice
        label="Measured"
        value={bar.read ?? "as_it_stands"}
        options={READ}
        onPick={(read) => set({ read })}
      />
      <Fold keep title="By angle finder" open={finder.reading !== undefined}>
        <div className="grid gap-2">
          <AngleField
            job={view.id}
            pointer="/setups/found/bar/finder/reading"
            label="Angle finder on the bar"
            value={finder.reading}
            onCommit={(reading) => setFinder({ reading })}
          />
          <Choice
            label="Which end is higher? The finder can't tell"
            value={finder.higher_end}
            options={ENDS}
            onPick={(higher_end) => setFinder({ higher_end })}
          />
          <Choice
            label="Finder was zeroed"
            value={finder.zero ?? "gravity"}
            options={ZEROS}
            onPick={(zero) => setFinder({ zero })}
          />
          <AngleField
            job={view.id}
            pointer="/setups/found/bar/finder/good_to"
            label="Finder accuracy, ±"
            hint={`${empty("/setups/found/bar/finder/good_to")}. A dial finder is good to 1°`}
            value={finder.good_to}
            onCommit={(good_to) => setFinder({ good_to })}
          />
          <Tick
            label="Bar is bent or tapered: use heights only"
            value={bar.bent}
            onPick={(bent) => set({ bent: bent ?? false })}
          />
        </div>
      </Fold>
      <Fold keep title="Where its ends are">
        <div className="grid gap-x-3 sm:grid-cols-2">
          {length(
            "fore_aft",
            "Frame end farther forward by",
            "farther back is −. Empty: same fore-aft as the axle end",
            true,
          )}
          {length(
            "frame_eye_from_centre",
            "Frame end to centerline",
            "checks the length and places the drawing",
          )}
          {length("axle_eye_from_centre", "Axle end to centerline", "on the opposite side")}
          {length(
            "heights_good_to",
            "Bolt heights are good to ±",
            `${empty("/setups/found/bar/heights_good_to")}`,
          )}
        </div>
      </Fold>
    </div>
  );
}
