import type { CycleResult, SetupCycle } from "../../api/client";
import { useStance } from "../../elevation/stance";
import { Assumed } from "../../job/Assumed";
import { Missing } from "../../job/Missing";
import { useCycled } from "../../job/useCycled";
import { useJob } from "../../job/useJob";
import { useWheels } from "../../job/useWheels";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { bad, good, mind, plain } from "../../ui/sign";
import { Envelope } from "./EnvelopePanel";
import { Holes } from "./EyeHoles";
import { HeaveTable } from "./HeaveTable";
import { HolesInput } from "./HolesInput";
import { Intervals } from "./Intervals";
import { lowered } from "./lowered";
import { Steering } from "./Steering";
import { Ways } from "./Ways";
import { WorstPoses } from "./WorstPoses";

/** What touches, binds, runs out or steers, over everything the axle can do. */
export function CycleStage() {
  const units = useSettings((s) => s.units);
  const cycle = useCycled();
  const { shown } = useStance();
  const { results } = useJob();
  if (!cycle) return <Answer says="Cycling the axle…" />;
  const setup = shown === "planned" && cycle.plan ? cycle.plan : cycle.found;
  const sections = [
    ...(setup ? [travelSection(cycle, setup), worstSection(setup), figuresSection(cycle)] : []),
    ...(setup?.steering ? [steeringSection(setup)] : []),
    holesSection(cycle),
    ...(results.bar || cycle.assumptions.length > 0 ? [sureSection(cycle)] : []),
  ];
  return (
    <>
      <Answer says={say(setup?.says ?? cycle.says, units)}>
        {cycle.plan && cycle.found && setup !== cycle.found && (
          <p className="text-muted">
            As found: <Figure>{lowered(say(cycle.found.says, units))}</Figure>.
          </p>
        )}
      </Answer>
      <Missing faults={cycle.missing} />
      {cycle.past_stops_say && (
        <p data-past-stops>
          <Figure>{say(cycle.past_stops_say, units)}</Figure>
        </p>
      )}
      {cycle.warnings.map((warning) => (
        <Notice key={warning.in} kind="warning">
          <Figure>{say(warning, units)}</Figure>
        </Notice>
      ))}
      <Sections label="Cycle results" of="cycle" sections={sections} />
    </>
  );
}

function travelSection(cycle: CycleResult, setup: SetupCycle): Section {
  const ended = setup.ways.filter((way) => way.ended_at_mm).length;
  return {
    value: "travel",
    label: "Travel",
    sign: ended > 0 ? mind(`${ended} of ${setup.ways.length} end early`) : good("full travel"),
    results: (
      <>
        <Envelope setup={setup} />
        <Ways cycle={cycle} setup={setup} />
      </>
    ),
  };
}

function worstSection(setup: SetupCycle): Section {
  const count = (level: "violated" | "near") => setup.limits.filter((limit) => limit.level === level).length;
  return {
    value: "worst",
    label: "Worst spots",
    sign:
      count("violated") > 0
        ? bad(`${count("violated")} over`)
        : count("near") > 0
          ? mind(`${count("near")} close`)
          : setup.not_judged_say
            ? plain("clear as measured")
            : good("all clear"),
    results: <WorstPoses setup={setup} />,
  };
}

function figuresSection(cycle: CycleResult): Section {
  return {
    value: "figures",
    label: "Figures",
    sign: plain("over the travel"),
    results: <HeaveFigures cycle={cycle} />,
  };
}

function HeaveFigures({ cycle }: { cycle: CycleResult }) {
  const { results } = useJob();
  const wheels = useWheels(results);
  return (
    <HeaveTable
      found={cycle.found}
      plan={cycle.plan}
      planName={cycle.plan_name || "plan"}
      travel={(wheels.left + wheels.right) / 2}
    />
  );
}

function steeringSection(setup: SetupCycle): Section {
  return {
    value: "steering",
    label: "Steering",
    sign: plain("drag link"),
    results: <Steering setup={setup} />,
  };
}

function holesSection(cycle: CycleResult): Section {
  const { length } = cycle.axle_holes;
  return {
    value: "holes",
    label: "Holes",
    sign: plain(length > 0 ? `${length} to try` : "none typed"),
    results: length > 0 && <Holes cycle={cycle} />,
    inputs: <HolesInput />,
  };
}

function sureSection(cycle: CycleResult): Section {
  const { length } = cycle.assumptions;
  return {
    value: "sure",
    label: "Accuracy",
    sign: length > 0 ? mind(`${length} assumed`) : plain("drawn"),
    results: (
      <>
        <Intervals />
        <Assumed
          assumptions={cycle.assumptions}
          rests="Every figure on this screen depends on these; those parts are drawn dashed."
        />
      </>
    ),
  };
}
