import type { Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { Fold } from "../../ui/Fold";
import { TapeField } from "../../ui/TapeField";
import { lastMove, setDragLink, setOff } from "./edits";

type EyeOff = Schemas["EyeOff"];

const WAYS = [
  ["up", "Higher than planned"],
  ["outward", "Further out than planned"],
  ["forward", "Further forward than planned"],
] as const satisfies readonly (readonly [keyof EyeOff, string])[];

/** Where moved eyes really sit, and the drag link's length as it was set. */
export function RealPlaces() {
  const { view, job, change } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  const last = (job.setups?.rounds?.length ?? 0) - 1;
  const moves = (["frame", "axle"] as const).flatMap((end) => lastMove(job, end) ?? []);
  const steered = job.hardpoints?.steering !== undefined;
  if (last < 0 || (moves.length === 0 && !steered)) return null;
  return (
    <Fold keep title="As it really came out">
      <div className="grid gap-3" data-real-places>
        {moves.map(({ round, moved, eye }) => (
          <fieldset key={eye.end} className="grid gap-x-2 gap-y-1 sm:grid-cols-3">
            <legend className="text-[15px] text-muted">
              {eye.end === "frame" ? "Frame eye" : "Axle eye"}: enter how far it is from its planned place.
              Minus is the other way.
            </legend>
            {WAYS.map(([way, label]) => (
              <TapeField
                key={way}
                job={view.id}
                pointer={`/setups/rounds/${round}/moved/${moved}/off/${way}`}
                label={label}
                unit={unit}
                value={eye.off?.[way]}
                onCommit={(entry) => change(setOff(round, moved, { [way]: entry }))}
              />
            ))}
          </fieldset>
        ))}
        {steered && (
          <TapeField
            job={view.id}
            pointer={`/setups/rounds/${last}/drag_link_length`}
            label="Drag link as set, eye to eye"
            unit={unit}
            value={job.setups?.rounds?.[last]?.drag_link_length}
            onCommit={(entry) => change(setDragLink(last, entry))}
          />
        )}
      </div>
    </Fold>
  );
}
