import { setBracketing } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { TapeField } from "../../ui/TapeField";
import { Tick } from "../../ui/Tick";

/** A frame bracket where there was none: it is placed with the axle at full bump. */
export function FirstBracket() {
  const { view, job, change } = useJob();
  const form = job.bracket ?? {};
  const isFrame = (form.brackets ?? []).some(({ end }) => end === "frame");
  if (!isFrame && !form.first_frame_bracket) return null;
  return (
    <div data-first-bracket>
      <Tick
        label="The frame has no bracket yet: this job places the first one"
        value={form.first_frame_bracket}
        onPick={(first_frame_bracket) => change(setBracketing({ first_frame_bracket }))}
      />
      {form.first_frame_bracket && (
        <TapeField
          job={view.id}
          pointer="/bracket/first_bracket_room"
          label="Clearance fore and aft at full bump"
          unit={job.rig?.sheet_unit ?? "in"}
          value={form.first_bracket_room}
          hint='Empty: 1" (25 mm)'
          onCommit={(first_bracket_room) => change(setBracketing({ first_bracket_room }))}
        />
      )}
    </div>
  );
}
