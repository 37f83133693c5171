import type { Schemas, SwayResult } from "../../api/client";
import { setSway } from "../../job/edits";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { degrees, fine, say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Rows } from "../../ui/Rows";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { addBuild } from "./edits";

type Stage = Schemas["BuildStage"];

/** Hole and link as it is planned, after the next lift, with the tent: a row each, and a sentence where one isn't enough. */
export function BuildStages({ swayed }: { swayed: SwayResult }) {
  const stages = swayed.build_stages ?? [];
  if (stages.length === 0) return null;
  return (
    <div className="mt-3" data-build-stages>
      <h4 className="font-semibold">Hole and link for each build</h4>
      <table className="w-full text-left">
        <thead>
          <tr className="border-ink border-b text-[15px]">
            {["build", "hole, stiff end = 1", "sway link", "roll per g", "drag link"].map((title) => (
              <th key={title} scope="col" className="py-1 font-semibold">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {stages.map((stage) => (
            <StageRow key={stage.name} stage={stage} />
          ))}
        </tbody>
      </table>
      <p className="text-sm">
        Both axles are raised the same amount, with the same travel around the new height.
      </p>
    </div>
  );
}

/** One build; nothing in its cells where arm and link work in no hole. */
function StageRow({ stage }: { stage: Schemas["BuildStageResult"] }) {
  const units = useSettings((s) => s.units);
  const cells = [
    stage.name === "" ? "as planned" : stage.name,
    stage.hole_number ?? "",
    stage.link_mm !== undefined && <Figure>{fine(stage.link_mm, units)}</Figure>,
    stage.road_deg_per_g !== undefined && degrees(stage.road_deg_per_g),
    stage.drag_link_deg !== undefined &&
      `${degrees(stage.drag_link_deg)}${stage.apart_deg === undefined ? "" : `, ${degrees(stage.apart_deg)} off the bar`}`,
  ];
  return (
    <>
      <tr className={stage.enough ? "border-line border-b" : ""}>
        {cells.map((cell, column) => (
          <td key={column} className="py-1.5 pr-2">
            {cell}
          </td>
        ))}
      </tr>
      {!stage.enough && (
        <tr className="border-line border-b text-[15px]">
          <td colSpan={cells.length} className="pb-1.5">
            <Figure>{say(stage.says, units)}</Figure>
          </td>
        </tr>
      )}
    </>
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
