import { Link } from "react-router";
import type { Phrase, Schemas } from "../../api/client";
import { newId } from "../../job/ids";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { Rows } from "../../ui/Rows";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { setWork } from "./edits";
import type { WorkResult } from "./useWorked";

const MOCK_UP = {
  corners_equal: "Level side to side",
  strapped: "Axle strapped to center",
  repeats_agree: "Repeat measurements agree",
  cycled: "Cycled past the stops",
} satisfies Record<Schemas["MockUpOpen"], string>;

const CORNERS = [
  ["left_front", "Left front"],
  ["right_front", "Right front"],
  ["left_rear", "Left rear"],
  ["right_rear", "Right rear"],
] as const;

/** Corner heights, the mock-up's gate, what is drilled. */
export function Making({ worked }: { worked: WorkResult }) {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  const unit = job.rig?.sheet_unit ?? "in";
  return (
    <>
      {worked.mock_up && <MockUp says={worked.mock_up} asks={worked.mock_up_asks ?? []} />}
      <Drills worked={worked} />
      {worked.cuts.length > 0 && <Cuts cuts={worked.cuts} />}
      {(["corners_before", "corners_after"] as const).map((at) => (
        <Fold
          keep
          key={at}
          title={at === "corners_before" ? "Corner heights before" : "Corner heights afterwards"}
        >
          <div className="grid grid-cols-2 gap-2">
            {CORNERS.map(([field, label]) => (
              <TapeField
                key={field}
                job={view.id}
                pointer={`/bolt_up/${at}/${field}`}
                label={label}
                unit={unit}
                value={job.bolt_up?.[at]?.[field]}
                onCommit={(entry) => change(setWork((work) => ({ [at]: { ...work[at], [field]: entry } })))}
              />
            ))}
          </div>
        </Fold>
      ))}
      {worked.corners && (
        <p>
          <Figure>{say(worked.corners, units)}</Figure>
        </p>
      )}
    </>
  );
}

/** The gate before anything is drilled, cut or welded. */
function MockUp({ says, asks }: { says: Phrase; asks: Schemas["MockUpOpen"][] }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const stands = asks.every((field) => job.bolt_up?.mock_up?.[field]);
  return (
    <section className="grid gap-1">
      <h4 className="font-semibold">Before you drill, cut or weld</h4>
      {asks.map((field) => (
        <Tick
          key={field}
          label={MOCK_UP[field]}
          value={job.bolt_up?.mock_up?.[field] ? true : undefined}
          onPick={(reported) =>
            change(setWork((work) => ({ mock_up: { ...work.mock_up, [field]: reported === true } })))
          }
        />
      ))}
      {stands ? (
        <p>
          <Figure>{say(says, units)}</Figure>
        </p>
      ) : (
        <Notice kind="question">
          <Figure>{say(says, units)}</Figure>
        </Notice>
      )}
    </section>
  );
}

function Drills({ worked }: { worked: WorkResult }) {
  const { view, job, change } = useJob();
  const units = useSettings((s) => s.units);
  const unit = job.rig?.sheet_unit ?? "in";
  const drills = job.bolt_up?.drills ?? [];
  return (
    <section className="grid gap-1" data-drills>
      <h4 className="font-semibold">Holes to drill</h4>
      <Rows
        items={drills}
        name={(drill) => drill.name || "this hole"}
        add="Add a hole"
        onAdd={() =>
          change(setWork({ drills: [...drills, { id: newId("hole"), name: `hole ${drills.length + 1}` }] }))
        }
        onSet={(items) => change(setWork({ drills: items }))}
      >
        {(drill, index, put) => (
          <div className="grid gap-x-2 sm:grid-cols-2">
            <TextField
              job={view.id}
              pointer={`/bolt_up/drills/${index}/name`}
              label="Hole"
              value={drill.name ?? ""}
              required
              onCommit={(name) => put({ name })}
            />
            <TapeField
              job={view.id}
              pointer={`/bolt_up/drills/${index}/size`}
              label="Size"
              unit={unit}
              value={drill.size}
              onCommit={(size) => put({ size })}
            />
            {worked.drills[index] && (
              <p className="text-[16px] leading-snug sm:col-span-2">
                <Figure>{say(worked.drills[index].says, units)}</Figure>
              </p>
            )}
          </div>
        )}
      </Rows>
    </section>
  );
}

function Cuts({ cuts }: { cuts: WorkResult["cuts"] }) {
  const { view } = useJob();
  return (
    <section className="grid gap-1" data-cuts>
      <h4 className="font-semibold">To cut</h4>
      <ul className="grid">
        {cuts.map((cut) => (
          <li
            key={cut.name}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-2 border-line border-b py-1"
          >
            <span className="leading-snug">
              <b>{cut.name}.</b> {cut.says}
            </span>
            <Link
              className="inline-flex min-h-11 items-center underline"
              to={`/jobs/${view.id}/${cut.stage}`}
            >
              Open {cut.stage}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
