import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setBracketing } from "../../job/edits";
import { useEmpty } from "../../job/useEmpty";
import { useJob } from "../../job/useJob";
import { TapeField } from "../../ui/TapeField";

type Bracketing = Schemas["Bracketing"];

/** Ears and brackets: what loads and fit are reckoned from. */
export function FitInputs() {
  const { view, job, change } = useJob();
  const empty = useEmpty();
  const form: Bracketing = job.bracket ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<Bracketing>) => change(setBracketing(part));
  return (
    <>
      <p className="text-[15px] text-muted">Weights, springs and center of gravity are on the Rig screen.</p>
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        <TapeField
          job={view.id}
          pointer="/bracket/ear_width"
          label="Inside width between the bracket ears"
          unit={unit}
          value={form.ear_width}
          onCommit={(ear_width) => set({ ear_width })}
        />
        <AngleField
          job={view.id}
          pointer="/bracket/frame_bracket_angle"
          label="Finder on the frame bracket"
          value={form.frame_bracket_angle}
          onCommit={(frame_bracket_angle) => set({ frame_bracket_angle })}
        />
        <AngleField
          job={view.id}
          pointer="/bracket/axle_bracket_angle"
          label="Finder on the axle bracket"
          value={form.axle_bracket_angle}
          onCommit={(axle_bracket_angle) => set({ axle_bracket_angle })}
        />
      </div>
      <p className="text-[15px] text-muted">How steep is too steep: when a bracket is recommended.</p>
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        <AngleField
          job={view.id}
          pointer="/bracket/steep_from"
          label="Recommend a bracket above a bar angle of"
          hint={`degrees. ${empty("/bracket/steep_from")}`}
          value={form.steep_from}
          onCommit={(steep_from) => set({ steep_from })}
        />
        <TapeField
          job={view.id}
          pointer="/bracket/swing_limit"
          label="or above a side-to-side movement of"
          hint={empty("/bracket/swing_limit")}
          unit={unit}
          value={form.swing_limit}
          onCommit={(swing_limit) => set({ swing_limit })}
        />
      </div>
    </>
  );
}
