import type { Job, Results, Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { Tick } from "../../ui/Tick";
import { Checks } from "../bracket/Checks";
import { setProof } from "./edits";

type LookKind = Schemas["LookKind"];

const LABELS: Record<LookKind, string> = {
  wheel_straight: "Steering wheel straight (adjust at the drag link)",
  toe: "Toe is right",
  sensors: "Stability-control sensors re-zeroed, or none fitted",
  lines: "Brake lines and wiring free at full droop and full lock",
  wheel_nuts: "Wheel nuts torqued",
  pins_level: "Disconnect pins go in and out on level ground",
  stowed_clear: "Stowed sway link clear through a full cycle",
  clear: "Clear of everything from full bump to full droop, at full lock too",
};

/** How many of them nobody looked at yet. */
export const openOf = (job: Job, { settling }: Results) =>
  settling.looks.filter(({ kind }) => job.proof?.looked_at?.[kind] === undefined).length;

/** What is looked at again once the work is done. */
export function LookedAt() {
  const { view, job, results, change } = useJob();
  const looked = job.proof?.looked_at ?? {};
  const set = (part: Partial<typeof looked>) =>
    change(setProof((proof) => ({ looked_at: { ...proof.looked_at, ...part } })));
  const units = useSettings((s) => s.units);
  const open = openOf(job, results);
  const unit = job.rig?.sheet_unit ?? "in";
  const { compared, looks } = results.settling;
  return (
    <section>
      <h3 className="font-semibold text-[20px] leading-tight">{`Look at it again${open > 0 ? ` (${open} to look at)` : ": all looked at"}`}</h3>
      <div data-looked-at>
        {looks.map(({ kind, says }) => (
          <div key={kind} data-pointer={`/proof/looked_at/${kind}`}>
            <Tick
              label={LABELS[kind]}
              value={looked[kind]}
              yes="good"
              no="not yet"
              onPick={(answer) => set({ [kind]: answer })}
            />
            {says && (
              <p className="pb-1">
                <Figure>{say(says, units)}</Figure>
              </p>
            )}
          </div>
        ))}
      </div>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <AngleField
          job={view.id}
          pointer="/proof/looked_at/bar_angle"
          label="Bar's angle now"
          value={looked.bar_angle}
          onCommit={(bar_angle) => set({ bar_angle })}
        />
        {job.sway?.kind && job.sway.kind !== "none" && (
          <>
            <TapeField
              job={view.id}
              pointer="/proof/looked_at/left_link"
              label="Left sway link as set"
              unit={unit}
              value={looked.left_link}
              onCommit={(left_link) => set({ left_link })}
            />
            <TapeField
              job={view.id}
              pointer="/proof/looked_at/right_link"
              label="Right sway link as set"
              unit={unit}
              value={looked.right_link}
              onCommit={(right_link) => set({ right_link })}
            />
          </>
        )}
      </div>
      {compared.length > 0 && <Checks title="Compared with the prediction" checks={compared} />}
    </section>
  );
}
