import type { Schemas, SwayResult } from "../../api/client";
import { setSway } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Rows } from "../../ui/Rows";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { addBuild } from "./edits";

type Stage = Schemas["BuildStage"];

/** Hole and link as it is planned, after the next lift, with the tent: a line each. */
export function BuildStages({ swayed }: { swayed: SwayResult }) {
  const units = useSettings((s) => s.units);
  const stages = swayed.build_stages ?? [];
  if (stages.length === 0) return null;
  return (
    <div className="mt-3" data-build-stages>
      <h4 className="font-semibold">Hole and link for each build</h4>
      <ul>
        {stages.map((stage) => (
          <li key={stage.name} className="border-line border-b py-1.5 last:border-b-0">
            <Figure>{say(stage.says, units)}</Figure>
          </li>
        ))}
      </ul>
      <p className="text-sm">
        Both axles are raised the same amount, with the same travel around the new height.
      </p>
    </div>
  );
}

/** What is still to be built: what it is called, how much higher it stands, what is on the roof. */
export function BuildStageRows() {
  const { view, job, change } = useJob();
  const stages = job.sway?.build_stages ?? [];
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    <>
      <h4 className="mt-2 font-semibold">Builds still to come</h4>
      <Rows
        pointer="/sway/build_stages"
        items={stages}
        name={(stage) => stage.name ?? ""}
        add={stages.length === 0 ? "Add a later build" : "Add another build"}
        onAdd={() => change(addBuild)}
        onSet={(left: Stage[]) => change(setSway({ build_stages: left }))}
      >
        {(stage, index, put) => (
          <div className="grid items-end gap-x-2 sm:grid-cols-3">
            <TextField
              job={view.id}
              pointer={`/sway/build_stages/${index}/name`}
              label="Build"
              required
              value={stage.name ?? ""}
              onCommit={(name) => put({ name })}
            />
            <TapeField
              job={view.id}
              pointer={`/sway/build_stages/${index}/raised`}
              label="Higher than now by"
              signed
              unit={unit}
              value={stage.raised}
              onCommit={(raised) => put({ raised })}
            />
            <FigureField
              kind="weight"
              pointer={`/sway/build_stages/${index}/roof_load`}
              label="Weight on the roof"
              value={stage.roof_load}
              onCommit={(text) => put({ roof_load: text })}
            />
          </div>
        )}
      </Rows>
    </>
  );
}
