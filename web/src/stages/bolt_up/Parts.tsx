import { Plus } from "lucide-react";
import type { Schemas } from "../../api/client";
import { InstalledHere } from "../../job/InstalledHere";
import { InstalledParts } from "../../job/InstalledParts";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { Checks } from "../bracket/Checks";
import { ownKey, setPart, setWork } from "./edits";
import { UseKit } from "./UseKit";
import type { WorkResult } from "./useWorked";

const STATES = optionsOf<Schemas["PartState"]>({
  in_the_kit: "in the kit",
  reused: "reused",
  bought: "bought",
  made: "made",
  declined: "left out",
  missing: "missing",
  wrong: "wrong",
});

/** Whether everything is there and fits. */
export function Parts({ worked }: { worked: WorkResult }) {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  const records = job.bolt_up?.parts ?? [];
  return (
    <>
      {worked.parts.length === 0 && <p className="text-muted">No new parts in this plan.</p>}
      {worked.parts.map((part) => {
        const known = records.findIndex((record) => record.key === part.key);
        const record = records[known];
        const at = `/bolt_up/parts/${known < 0 ? part.key : known}`;
        return (
          <section key={part.key} className="grid gap-1 border-line border-b pb-2" data-part={part.key}>
            <h4 className="font-semibold leading-tight">
              {part.name}
              <span className="font-normal text-muted">
                {" "}
                <Figure>{say(part.where_says, units)}</Figure>
              </span>
            </h4>
            <Choice
              label="Status"
              value={record?.state}
              options={STATES}
              onPick={(state) => change(setPart(part.key, { state }))}
            />
            <div className="grid gap-x-2 sm:grid-cols-2">
              <TextField
                job={view.id}
                pointer={`${at}/note`}
                label="What is wrong with it, or where it came from"
                value={record?.note ?? ""}
                onCommit={(note) => change(setPart(part.key, { note }))}
              />
              <TextField
                job={view.id}
                pointer={`${at}/until`}
                label="Temporary: replace it with"
                value={record?.until ?? ""}
                onCommit={(until) => change(setPart(part.key, { until }))}
              />
            </div>
            {part.supplier_says && (
              <Notice kind="refused">
                Stops the steps that need it. For the supplier: <q>{say(part.supplier_says, units)}</q>
              </Notice>
            )}
          </section>
        );
      })}
      <OwnPart />
      <UseKit worked={worked} />
      {worked.fit.length > 0 && <Checks title="Fit check" checks={worked.fit} />}
      {job.sway?.kind && job.sway.kind !== "none" && (
        <InstalledHere part="sway_bar" label="The sway bar itself gets installed in this job" />
      )}
      <InstalledParts />
    </>
  );
}

function OwnPart() {
  const { job, change } = useJob();
  const add = () => change(setPart(ownKey(job.bolt_up?.parts), { name: "another part" }));
  const own = (job.bolt_up?.parts ?? []).filter((record) => record.key?.startsWith("own/"));
  const { view } = useJob();
  return (
    <div className="grid gap-2">
      {own.map((record) => (
        <div key={record.key} className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
          <TextField
            job={view.id}
            pointer={`/bolt_up/parts/own/${record.key}/name`}
            label="Part"
            value={record.name ?? ""}
            required
            onCommit={(name) => change(setPart(record.key ?? "", { name }))}
          />
          <Button
            onClick={() =>
              change(
                setWork((work) => ({ parts: (work.parts ?? []).filter((old) => old.key !== record.key) })),
              )
            }
          >
            Remove
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={add}>
          <Plus size={18} aria-hidden />
          Add a part
        </Button>
      </div>
    </div>
  );
}
