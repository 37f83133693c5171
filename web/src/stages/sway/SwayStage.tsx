import { Download } from "lucide-react";
import type { Schemas, SwayLinks, SwayResult } from "../../api/client";
import { type Round, useStance } from "../../elevation/stance";
import { degrees, rollRate, say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { Checks } from "../bracket/Checks";
import { useWheels } from "../cycle/CycleWall";
import { planSway, setSway } from "../job/edits";
import { useJob } from "../job/useJob";
import { ChoiceChart } from "./ChoiceChart";
import { OldBar } from "./OldBar";
import { PlannedLink } from "./PlannedLink";
import { SwayInputs } from "./SwayInputs";
import { swayPoseAt, useSwayed } from "./useSwayed";

const ROUNDS = [
  { value: "heave", label: "up and down" },
  { value: "cross", label: "cross-axled" },
] as const satisfies readonly { value: Round; label: string }[];

const TARGETS = [
  { value: "level_driven", label: "level as driven" },
  { value: "level_mid_travel", label: "level mid-travel" },
  { value: "own_angle", label: "an angle of your own" },
  { value: "trailing_arm", label: "in line with the lower arms" },
] as const;

/** Arms, links, holes, the road against the trail, and which way to disconnect. */
export function SwayStage() {
  const units = useSettings((s) => s.units);
  const swayed = useSwayed();
  const { round, setRound } = useStance();
  if (!swayed) return <Answer says="Swinging the arms…" />;
  const { links, vehicle } = swayed;
  return (
    <>
      <Answer says={say(swayed.says, units)}>
        {links && (
          <p data-window>
            <Figure>{say(links.window_says, units)}</Figure>
          </p>
        )}
      </Answer>
      {swayed.missing.map((fault) => (
        <Notice key={fault.pointer} kind={fault.code === "missing" ? "question" : "refused"}>
          {fault.message}
        </Notice>
      ))}
      <PlannedLink />
      {links && <Links links={links} />}
      {links && (
        <Choice
          label="Cycle goes"
          value={round === "around" ? "cross" : round}
          options={ROUNDS}
          onPick={setRound}
        />
      )}
      {links && <Here links={links} />}
      {swayed.holes.length > 0 && <Holes swayed={swayed} />}
      <WorkingOut working={swayed.bar_working} />
      {swayed.fit_says.map((words) => (
        <p key={words.in}>
          <Figure>{say(words, units)}</Figure>
        </p>
      ))}
      {swayed.splined && <Splined splined={swayed.splined} />}
      {vehicle && vehicle.choices.length > 0 && <ChoiceChart vehicle={vehicle} />}
      {swayed.other_end && <FromOtherEnd from={swayed.other_end} />}
      {vehicle && (
        <p data-weighs>
          <Figure>{say(vehicle.says, units)}</Figure>
        </p>
      )}
      {vehicle && <WorkingOut working={vehicle.working} />}
      {vehicle?.suggests.in && (
        <p data-suggests>
          <Figure>{say(vehicle.suggests, units)}</Figure>
        </p>
      )}
      {swayed.room && <Room room={swayed.room} />}
      {swayed.checks.length > 0 && <Checks title="Disconnects and bolts" checks={swayed.checks} />}
      <OldBar swayed={swayed} />
      <SwayInputs />
      {swayed.assumptions.length > 0 && <Assumed assumptions={swayed.assumptions} />}
    </>
  );
}

/** A length the core gave, as it would be typed. */
const millimetres = (mm: number) => ({ text: mm.toFixed(1), unit: "mm" as const });

function Links({ links }: { links: SwayLinks }) {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const [left = 0, right = 0] = links.to_straight_at_mm;
  return (
    <section className="grid gap-2">
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
              {target.works && Math.abs(target.link_mm - links.link_mm) > 0.5 && (
                <Button
                  look="quiet"
                  onClick={() =>
                    change(planSway({ ...job.setups?.plans?.sway, link: millimetres(target.link_mm) }))
                  }
                >
                  Plan it
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      <Choice
        label="Links are sized to"
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
        <Figure>{`Nearest to a straight line at ${say(links.most_at, units)}: show it`}</Figure>
      </button>
      <WorkingOut working={links.working} />
    </section>
  );
}

/** The mark of figures that rest on what nobody measured. */
function RestsOn({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p className="text-[15px] text-muted">
      Rests on {count} usual figure{count === 1 ? "" : "s"} that nobody measured, listed below.
    </p>
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
        "Here a link does not close: the bar gives nothing."
      ) : (
        <Figure>{`Here the bar is twisted by ${degrees(pose.twist_deg)} and gives ${rollRate(pose.roll_rate_nm_per_deg, units)} of roll.`}</Figure>
      )}
    </p>
  );
}

function Splined({ splined }: { splined: Schemas["SplinedResult"] }) {
  const units = useSettings((s) => s.units);
  return (
    <section className="grid gap-1" data-splined>
      <h3 className="font-semibold text-[20px] leading-tight">A splined bar for it</h3>
      <p className="font-semibold">
        <Figure>{say(splined.says, units)}</Figure>
      </p>
      <p>
        <Figure>{say(splined.because, units)}</Figure>
      </p>
      <RestsOn count={splined.assumed} />
      {splined.missing.map((fault) => (
        <Notice key={fault.pointer} kind="question">
          {fault.message}
        </Notice>
      ))}
      {splined.options.length > 0 && (
        <Fold title={`Every bar and arm that can be had (${splined.options.length})`}>
          <ul>
            {splined.options.map((option, index) => (
              <li
                key={index}
                className={`border-line border-b py-1.5 leading-tight ${option.suggested ? "font-semibold" : option.fits ? "" : "text-muted"}`}
              >
                <Figure>{`${option.suggested ? "Suggested: " : option.fits ? "" : "Does not fit: "}${say(option.says, units)}`}</Figure>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

function Room({ room }: { room: Schemas["RoomResult"] }) {
  const { view } = useJob();
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const tight = room.gaps.filter((gap) => !gap.clear);
  const rest = room.gaps.filter((gap) => gap.clear);
  const line = (gap: Schemas["SwayGap"]) => (
    <li key={gap.thing} className="border-line border-b last:border-b-0">
      <button
        type="button"
        className={`min-h-11 w-full py-1.5 text-left leading-tight ${gap.clear ? "" : "font-semibold text-axle"}`}
        onClick={() => setWheels(gap.at_mm[0] ?? 0, gap.at_mm[1] ?? 0)}
      >
        <Figure>{`${gap.clear ? "" : "Touches or nearly: "}${say(gap.says, units)}`}</Figure>
      </button>
    </li>
  );
  return (
    <section className="grid gap-1" data-room>
      <h3 className="font-semibold text-[20px] leading-tight">Room for arms and links</h3>
      {tight.length > 0 ? (
        <ul>{tight.map(line)}</ul>
      ) : (
        <p>
          <Figure>{say(room.says, units)}</Figure>
        </p>
      )}
      {rest.length > 0 && (
        <Fold title={`How near they come to each (${rest.length}); pick one to see it`}>
          <ul>{rest.map(line)}</ul>
        </Fold>
      )}
      {room.cuts.map((cut) => (
        <div key={cut.panel} data-cut={cut.panel}>
          <Figure>{say(cut.says, units)}</Figure>
          {cut.cut_mm &&
            (["svg", "dxf"] as const).map((format) => (
              <a
                key={format}
                className="mr-4 inline-flex min-h-11 items-center gap-1.5 underline"
                href={`/api/v1/jobs/${view.id}/templates/panel?format=${format}&of=${encodeURIComponent(cut.panel)}`}
                download
              >
                <Download size={18} aria-hidden />
                {format.toUpperCase()} template
              </a>
            ))}
        </div>
      ))}
    </section>
  );
}

function Holes({ swayed }: { swayed: SwayResult }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <section>
      <h3 className="font-semibold text-[20px] leading-tight">Holes of the arm</h3>
      <RestsOn count={swayed.holes[0]?.assumed ?? 0} />
      <ul data-holes>
        {swayed.holes.map((hole, index) => (
          <li key={index} className="border-line border-b last:border-b-0">
            <button
              type="button"
              aria-pressed={hole.in_use}
              className={`min-h-11 w-full px-1 py-1.5 text-left leading-tight ${hole.in_use ? "bg-marker text-on-marker" : ""}`}
              data-arm-hole={index}
              onClick={() => change(setSway({ hole: index }))}
            >
              <Figure>{say(hole.says, units)}</Figure>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function FromOtherEnd({ from }: { from: Schemas["FromOtherEnd"] }) {
  const units = useSettings((s) => s.units);
  return (
    <div data-other-end={from.figures.length}>
      <p>{say(from.says, units)}</p>
      <Fold title={`What it takes from there (${from.figures.length})`}>
        <ul className="grid list-disc gap-1 pl-5">
          {from.figures.map((figure) => (
            <li key={figure.pointer}>
              {figure.name}: <b>{figure.there}</b>
            </li>
          ))}
        </ul>
        <p className="mt-2 text-muted">To keep them in this job, take them over in stage Rig.</p>
      </Fold>
    </div>
  );
}

function Assumed({ assumptions }: { assumptions: readonly Schemas["Assumption"][] }) {
  const units = useSettings((s) => s.units);
  return (
    <Fold title={`Assumed, because nobody has measured it (${assumptions.length})`}>
      <ul className="grid list-disc gap-1 pl-5">
        {assumptions.map((assumption) => (
          <li key={assumption.pointer}>
            <Figure>{say(assumption.says, units)}</Figure>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">Every rate and roll of this stage rests on these.</p>
    </Fold>
  );
}
