import type { Schemas } from "../../api/client";
import { setRig, setSway } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

const FROM = optionsOf<Schemas["HeightsFrom"]>({
  floor: "the floor, on its wheels",
  rail_and_axle: "the frame rail and the axle, on a hoist",
});

/** What heights are measured from: on a hoist there is no floor to measure to. */
export function HeightsFrom() {
  const { view, job, change } = useJob();
  const unit = job.rig?.sheet_unit ?? "in";
  const picked = job.rig?.heights_from ?? "floor";
  return (
    <div data-heights-from>
      <Choice
        label="Heights of mounts and bar ends are measured from"
        pointer="/rig/heights_from"
        value={picked}
        options={FROM}
        onPick={(heights_from) =>
          change(setRig({ heights_from: heights_from === "floor" ? undefined : heights_from }))
        }
      />
      <div className="grid items-end gap-x-3 sm:grid-cols-2">
        <TapeField
          job={view.id}
          pointer="/sway/room/rail_underside"
          label="Bottom of the frame rails above the floor"
          hint="On its wheels, at the driven height"
          unit={unit}
          value={job.sway?.room?.rail_underside}
          onCommit={(rail_underside) =>
            change((old) => setSway({ room: { ...old.sway?.room, rail_underside } })(old))
          }
        />
        <TapeField
          job={view.id}
          pointer="/rig/hub_faces"
          label="Hub face to hub face"
          hint="Only where a mount is measured from a hub face"
          unit={unit}
          value={job.rig?.hub_faces}
          onCommit={(hub_faces) => change(setRig({ hub_faces }))}
        />
      </div>
    </div>
  );
}
