import { useState } from "react";
import type { Schemas } from "../../api/client";
import { addRound } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";

const FROM = optionsOf<Schemas["CutFrom"]>({
  shanks: "tips of the shanks",
  body: "the body's faces",
  both: "both",
});

/** Ends that were cut back, on record: the bar goes on from what is left of its thread. */
export function RecordCut({ correction }: { correction: Schemas["Correction"] }) {
  const { view, job, change } = useJob();
  const [from, setFrom] = useState<Schemas["CutFrom"]>(correction.setting?.cut?.from ?? "shanks");
  const round = job.setups?.rounds?.length ?? 0;
  const { fitting } = correction;
  return (
    <div className="grid gap-2 border-[1.5px] border-ink bg-paper p-3" data-cut>
      <h3 className="font-semibold">If you cut the ends back, enter how much came off</h3>
      <Choice label="Cut from" value={from} options={FROM} onPick={setFrom} />
      <TapeField
        key={round}
        job={view.id}
        pointer={`/setups/rounds/${round}/cut/each_end`}
        label="Cut off each adjusting end"
        hint="Enter saves it. Set the length afterwards."
        unit={job.rig?.sheet_unit ?? "in"}
        value={undefined}
        onCommit={(each_end) =>
          each_end &&
          change(
            addRound({ ...(fitting.bar !== undefined && { bar: fitting.bar }), cut: { each_end, from } }),
          )
        }
      />
    </div>
  );
}
