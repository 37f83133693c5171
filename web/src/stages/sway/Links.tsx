import type { Phrase, Schemas, SwayLinks } from "../../api/client";
import { type Round, useStance } from "../../elevation/stance";
import { planSway, setSway } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { swayPoseAt } from "../../job/useSwayed";
import { useWheels } from "../../job/useWheels";
import { degrees, rollRate, say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";

const ROUNDS = [
  { value: "heave", label: "up and down" },
  { value: "cross", label: "crossed up" },
] as const satisfies readonly { value: Round; label: string }[];

const TARGETS = optionsOf<Schemas["SwayTarget"]>({
  level_driven: "level at driven height",
  level_mid_travel: "level at mid-travel",
  own_angle: "at your own angle",
  trailing_arm: "in line with the lower arms",
});

/** The lengths that answer each aim, the pose nearest to a straight line, and the bar where the stick stands. */
export function Links({ links, fits }: { links: SwayLinks; fits: readonly Phrase[] }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const { round, setRound, setWheels } = useStance();
  const [left = 0, right = 0] = links.to_straight_at_mm;
  return (
    <>
      <Targets links={links} />
      <Choice
        label="Size the links for"
        pointer="/sway/target"
        value={job.sway?.target ?? "level_driven"}
        options={TARGETS}
        onPick={(target) => change(setSway({ target }))}
      />
      <button
        type="button"
        className="min-h-11 border-line border-y py-1.5 text-left leading-tight"
        data-worst
        onClick={() => setWheels(left, right)}
      >
        <Figure>{`Closest to going straight at ${say(links.most_at, units)}: show it`}</Figure>
      </button>
      <Choice label="Cycle" value={round === "around" ? "cross" : round} options={ROUNDS} onPick={setRound} />
      <Here links={links} />
      {fits.map((words) => (
        <p key={words.in}>
          <Figure>{say(words, units)}</Figure>
        </p>
      ))}
      <WorkingOut working={links.working} />
    </>
  );
}

/** A length the core gave, as it would be typed. */
const millimetres = (mm: number) => ({ text: mm.toFixed(1), unit: "mm" as const });

function Targets({ links }: { links: SwayLinks }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <ul className="grid">
      {links.targets.map((target) => (
        <li
          key={target.name}
          className="grid grid-cols-[minmax(0,1fr)_auto] gap-2 border-line border-b py-1.5"
          data-target={target.name}
        >
          <span className={target.chosen ? "font-semibold" : ""}>
            {target.name}: <Figure>{say(target.says, units)}</Figure>
            {target.chosen && target.rod_says && (
              <span className="block font-normal" data-rod>
                <Figure>{say(target.rod_says, units)}</Figure>
              </span>
            )}
          </span>
          <span className={`text-right ${target.works ? "text-muted" : "font-semibold text-axle"}`}>
            {target.works ? "works" : "does not work"}
            {target.works && (links.sized || Math.abs(target.link_mm - links.link_mm) > 0.5) && (
              <Button
                look="quiet"
                onClick={() =>
                  change(planSway({ ...job.setups?.plans?.sway, link: millimetres(target.link_mm) }))
                }
              >
                Use this
              </Button>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The bar in the pose the stick stands at. */
function Here({ links }: { links: SwayLinks }) {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const crossed = useStance((s) => s.crossed);
  const pose = swayPoseAt(links, useWheels(results), crossed !== null);
  if (!pose) return null;
  return (
    <p data-here>
      {pose.twist_deg === undefined || pose.roll_rate_nm_per_deg === undefined ? (
        "Out of reach here: the bar does nothing."
      ) : (
        <Figure>{`Here the bar is twisted ${degrees(pose.twist_deg)} and resists roll with ${rollRate(pose.roll_rate_nm_per_deg, units)}.`}</Figure>
      )}
    </p>
  );
}
