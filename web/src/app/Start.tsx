import { ArrowRight, LayoutGrid } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Job, Schemas, Side } from "../api/client";
import { addSheet, setRig } from "../job/edits";
import { useJob } from "../job/useJob";
import { Button } from "../ui/Button";
import { Choice, optionsOf } from "../ui/Choice";
import { goToField } from "../ui/reveal";
import { PurposeChoice } from "./PurposeChoice";
import { beginsWith, inputsForTheEye, type Purpose } from "./purposes";

type End = NonNullable<Schemas["Rig"]["end"]>;

const ENDS = optionsOf<Schemas["AxleEnd"]>({
  front: "Front axle",
  rear: "Rear axle",
});
const SIDES = optionsOf<Schemas["Side"]>({
  left: "left",
  right: "right",
});

/** The one question a new job asks: what is to be done. */
export function Start() {
  const { view, job, change } = useJob();
  const navigate = useNavigate();
  const [toDo, setToDo] = useState<Purpose[]>(job.to_do ?? []);
  const [end, setEnd] = useState<End | undefined>(job.rig?.end);
  const [eye, setEye] = useState<Side | undefined>(job.rig?.frame_eye_side);
  const flip = (purpose: Purpose) =>
    setToDo(toDo.includes(purpose) ? toDo.filter((other) => other !== purpose) : [...toDo, purpose]);
  const begin = () => {
    const { stage, field } = beginsWith(toDo);
    const sheet = stage === "tape" && (job.sheets ?? []).length === 0 ? addSheet(job, "centring") : undefined;
    change((old: Job) => {
      const said = setRig({ ...(end && { end }), ...(eye && { frame_eye_side: eye }) })(old);
      const named: Job = { ...said, to_do: toDo, all_stages: false };
      return sheet ? sheet.edit(named) : named;
    });
    navigate(`/jobs/${view.id}/${stage}`);
    goToField(field);
  };
  return (
    <div className="grid h-full grid-rows-[auto_1fr]">
      <header className="flex items-center gap-2 border-ink border-b-2 px-2 py-1.5 sm:px-3">
        <Link to="/" aria-label="Back to the jobs" className="grid min-h-11 min-w-11 place-content-center">
          <LayoutGrid size={20} aria-hidden />
        </Link>
        <p className="truncate font-bold text-[21px]">{job.title}</p>
      </header>
      <main className="overflow-y-auto px-4 py-5">
        <div className="mx-auto grid max-w-[1120px] gap-5">
          <div>
            <h1 className="font-bold text-[40px] leading-none" data-answer>
              What needs doing?
            </h1>
            <p className="mt-1.5 text-[18px] text-muted">
              Choose all that apply. The job shows only the screens that work needs.
            </p>
          </div>
          <PurposeChoice picked={toDo} onPick={flip} />
          <div className="flex flex-wrap items-end gap-x-8 gap-y-4">
            <Choice label="Which axle?" value={end} options={ENDS} onPick={setEnd} />
            {inputsForTheEye(toDo) && (
              <Choice
                label="Frame end of the track bar is on the"
                value={eye}
                options={SIDES}
                onPick={setEye}
              />
            )}
            <span className="ml-auto flex flex-wrap gap-2">
              <Link
                className="inline-flex min-h-11 items-center px-3 underline underline-offset-4"
                to={`/jobs/${view.id}/rig`}
              >
                Show all screens
              </Link>
              <Button look="strong" disabled={toDo.length === 0} onClick={begin}>
                Next
                <ArrowRight size={18} aria-hidden />
              </Button>
            </span>
          </div>
        </div>
      </main>
    </div>
  );
}
