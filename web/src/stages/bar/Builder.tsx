import { Download } from "lucide-react";
import { setBracketing } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { inOwnWords } from "../../measure/english";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { WorkingOut } from "../../ui/WorkingOut";
import { usePlanned } from "../bracket/usePlanned";

const NEW_HOLES = { field: "gap_in_new_holes", label: "Gap in the planned holes, brackets on" } as const;

const FIELDS = [
  { field: "gap", label: "Gap between the bushing shells" },
  { field: "stock", label: "Bar stock, outside diameter" },
  { field: "frame_shell", label: "Frame end bushing shell, outside diameter" },
  { field: "axle_shell", label: "Axle end bushing shell, outside diameter" },
] as const;

/** A bar cut and welded to length: gap to cut, order of work, wraps for the copes. */
export function Builder() {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  const plan = usePlanned();
  const form = job.bracket?.builder ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const built = plan?.builder;
  const asksAgain = built?.tapes_again || form.gap_in_new_holes !== undefined;
  const fault = plan?.missing.find((f) => f.pointer.startsWith("/bracket/builder"));
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold">Built bar, cut and welded to length</h3>
      <div className="grid gap-x-2 sm:grid-cols-2">
        {[...(asksAgain ? [NEW_HOLES] : []), ...FIELDS].map(({ field, label }) => (
          <TapeField
            key={field}
            job={view.id}
            pointer={`/bracket/builder/${field}`}
            label={label}
            unit={unit}
            value={form[field]}
            onCommit={(entry) => change(setBracketing({ builder: { ...form, [field]: entry } }))}
          />
        ))}
      </div>
      {fault && (
        <Notice kind={fault.code === "missing" ? "question" : "refused"}>{inOwnWords(fault.message)}</Notice>
      )}
      {built && (
        <div data-built>
          <p className="font-semibold text-[20px]">
            <Figure>{say(built.says, units)}</Figure>
          </p>
          {built.remark && (
            <Notice kind="warning">
              <Figure>{say(built.remark, units)}</Figure>
            </Notice>
          )}
          <p className="text-muted">
            No adjuster to come loose, and none to adjust later: only for an axle proved centered.
          </p>
          <ol className="my-2 list-decimal pl-6">
            {built.order.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          <WorkingOut working={built.working} />
          <p className="mt-1">Wraps for the copes, one to one; measure the check bar before cutting:</p>
          {(["frame", "axle"] as const).map((end) => (
            <div key={end} className="flex items-center gap-3">
              <span className="flex-1">{end} end</span>
              {(["svg", "dxf"] as const).map((format) => (
                <a
                  key={format}
                  className="inline-flex min-h-11 items-center gap-1 underline"
                  href={`/api/v1/jobs/${view.id}/templates/cope?format=${format}&of=${end}`}
                  download
                >
                  <Download size={16} aria-hidden />
                  {format.toUpperCase()}
                </a>
              ))}
            </div>
          ))}
        </div>
      )}
    </section>
  );
}
