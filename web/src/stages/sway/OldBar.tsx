import type { Schemas, SwayResult } from "../../api/client";
import { setSway } from "../../job/edits";
import { InstalledHere } from "../../job/InstalledHere";
import { useJob } from "../../job/useJob";
import { fine, mass, say } from "../../measure/format";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";

const FIELDS = [
  ["diameter", "Old bar's diameter"],
  ["bore", "Old bar's bore; empty = solid"],
  ["active_length", "Old bar's active length"],
  ["arm", "Old bar's arm, bar center to link hole"],
] as const;

const KINDS = [
  { value: "one_piece", label: "one piece" },
  { value: "splined", label: "splined, with arms" },
] as const;

const SIDES = optionsOf<Schemas["Side"]>({
  left: "left",
  right: "right",
});

/** The old bar beside the new one. */
export function OldAndNew({ rows }: { rows: SwayResult["old_and_new"] }) {
  const units = useSettings((s) => s.units);
  return (
    <table className="w-full text-left" data-old-and-new>
      <thead>
        <tr className="border-ink border-b-2 text-[15px]">
          <th scope="col" />
          <th scope="col" className="font-semibold">
            thick
          </th>
          <th scope="col" className="font-semibold">
            arm
          </th>
          <th scope="col" className="font-semibold">
            at a link
          </th>
          <th scope="col" className="font-semibold">
            mass
          </th>
          <th scope="col" className="font-semibold">
            compared with old
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name} className="border-line border-b">
            <th scope="row" className="py-1.5 font-normal text-muted">
              {row.name}
            </th>
            <td>
              <Figure>{fine(row.outside_mm, units)}</Figure>
            </td>
            <td>
              <Figure>{fine(row.arm_mm, units)}</Figure>
            </td>
            <td>{say(row.link_rate_says, units)}</td>
            <td>{mass(row.mass_kg, units)}</td>
            <td className="font-semibold">{row.against_old.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The bar that was there before, and a shim under one clamp. */
export function OldBarInputs() {
  const { view, job, change } = useJob();
  const old = job.sway?.old_bar ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    <>
      <Choice
        label="The old bar was"
        value={old.kind ?? "one_piece"}
        options={KINDS}
        onPick={(kind) => change((now) => setSway({ old_bar: { ...now.sway?.old_bar, kind } })(now))}
      />
      <div className="grid gap-x-2 gap-y-1 sm:grid-cols-2">
        {FIELDS.map(([field, label]) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`/sway/old_bar/${field}`}
            label={label}
            unit={unit}
            value={old[field]}
            onCommit={(entry) =>
              change((now) => setSway({ old_bar: { ...now.sway?.old_bar, [field]: entry } })(now))
            }
          />
        ))}
        <TapeField
          job={view.id}
          pointer="/sway/shim"
          label="Shim or plate under one clamp only"
          unit={unit}
          value={job.sway?.shim}
          onCommit={(shim) => change(setSway({ shim }))}
        />
      </div>
      {job.sway?.shim && (
        <InstalledHere part="second_shim" label="A matching shim goes under the other clamp" />
      )}
      {job.sway?.shim && (
        <Choice
          label="It is under the clamp on the"
          value={job.sway?.shim_side}
          options={SIDES}
          onPick={(shim_side) => change(setSway({ shim_side }))}
        />
      )}
    </>
  );
}
