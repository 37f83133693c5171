import { useState } from "react";
import { FigureField } from "../../job/FigureField";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { Checks } from "../bracket/Checks";
import { mark, setFastener } from "./edits";
import { Reason } from "./Reason";
import type { FastenerLine } from "./useWorked";

/** How tight a fastener was made: what the wrench said, or by feel and why. */
export function TightenField({ line }: { line: FastenerLine }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const [feel, setFeel] = useState(false);
  const forms = job.bolt_up?.fasteners ?? [];
  const known = forms.findIndex((form) => form.key === line.key);
  const form = forms[known];
  const tighten = (made: { torque: string } | { by_feel_because: string }) => {
    change((old) => {
      const { stands } = old.bolt_up ?? {};
      return setFastener(line.key, {
        tight: { ...made, ...(stands && { stood: stands }), done: mark(old.bolt_up) },
      })(old);
    });
    setFeel(false);
  };
  return (
    <section className="grid gap-1.5 border-[1.5px] border-ink bg-slate p-2" data-fastener={line.key}>
      <h4 className="font-semibold leading-tight">
        {line.name}
        {line.count !== undefined && line.count > 1 && ` (${line.count})`}
      </h4>
      {line.what && <p className="text-[16px] leading-tight">{line.what}</p>}
      <p className="text-[16px] leading-tight">
        <Figure>{say(line.torque_says, units)}</Figure>
      </p>
      <Checks title="" checks={line.checks} />
      <FigureField
        kind="torque"
        pointer={`/bolt_up/fasteners/${known < 0 ? line.key : known}/tight/torque`}
        label="Torqued to"
        value={form?.tight?.torque}
        onCommit={(torque) =>
          torque ? tighten({ torque }) : change(setFastener(line.key, { tight: undefined }))
        }
      />
      {line.tight_says && (
        <p data-tight={line.tightness}>
          <Figure>{say(line.tight_says, units)}</Figure>
        </p>
      )}
      {feel ? (
        <Reason
          ask="By feel, because"
          go="Save"
          onGo={(because) => tighten({ by_feel_because: because })}
          onLeave={() => setFeel(false)}
        />
      ) : (
        line.tightness === "open" && (
          <div>
            <Button onClick={() => setFeel(true)}>By feel, because…</Button>
          </div>
        )
      )}
    </section>
  );
}
