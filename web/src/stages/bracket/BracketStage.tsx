import type { PlanOption, PlanResult } from "../../api/client";
import { Assumed } from "../../job/Assumed";
import { dropKept } from "../../job/edits";
import { Missing } from "../../job/Missing";
import { signOfChecks } from "../../job/signs";
import { useJob } from "../../job/useJob";
import { degrees, say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { bad, good, measure, mind, plain } from "../../ui/sign";
import { Aim } from "./Aim";
import { Approaches } from "./Approaches";
import { BoltInputs } from "./BoltInputs";
import { BoltReported } from "./BoltTold";
import { Checks } from "./Checks";
import { ConversionInputs } from "./ConversionInputs";
import { FitInputs } from "./FitInputs";
import { HeldPart } from "./HeldPart";
import { Legs } from "./Legs";
import { Looked } from "./Looked";
import { OptionTable } from "./OptionTable";
import { PartsTried } from "./PartsTried";
import { Templates } from "./Templates";
import { lookedAt, useLookedAt, usePlanned } from "./usePlanned";

/** The angle put right: the answer, the holes, the approaches, what moves with it. */
export function BracketStage() {
  const { job } = useJob();
  const units = useSettings((s) => s.units);
  const plan = usePlanned();
  const key = useLookedAt((s) => s.key);
  if (!plan) return <Answer says="Planning…" />;
  const here = lookedAt(plan, key, job.setups?.plans?.chosen);
  const conversion = plan.conversion.length > 0;
  const sections = [
    ...(conversion ? [conversionSection(plan)] : []),
    ...(here || !conversion ? [holesSection(plan, here)] : []),
    ...(plan.options.length > 0 ? [aimSection(plan, here)] : []),
    ...(plan.approaches.length > 0 ? [approachesSection(plan)] : []),
    fitSection(plan),
    boltSection(plan),
  ];
  return (
    <>
      <Answer says={say(plan.says, units)}>
        <p>
          <Figure>{say(plan.because, units)}</Figure>
        </p>
      </Answer>
      <HeldPart />
      <GonePlans plan={plan} />
      <Missing faults={plan.missing.filter((fault) => fault.code !== "no_bar")} />
      <Sections label="Bracket results" of="bracket" sections={sections} />
    </>
  );
}

function conversionSection(plan: PlanResult): Section {
  return {
    value: "conversion",
    label: "Y-link",
    sign: signOfChecks(plan.conversion),
    wanted: plan.conversion.filter((check) => check.verdict === "open").length,
    results: (
      <>
        {plan.legs.length > 0 && <Legs settings={plan.legs} />}
        <Checks title="Conversion checks" checks={plan.conversion} />
      </>
    ),
    inputs: <ConversionInputs />,
  };
}

function holesSection(plan: PlanResult, here: PlanOption | undefined): Section {
  const sign = !here
    ? measure("none tried")
    : here.fails.length > 0
      ? bad("fails")
      : here.minds.length > 0
        ? mind("check")
        : good("fits");
  return {
    value: "holes",
    label: "Holes",
    sign,
    wanted: plan.brackets.length === 0 ? 1 : 0,
    results: here && (
      <>
        <OptionTable plan={plan} here={here} />
        <Looked option={here} />
      </>
    ),
    inputs: <PartsTried />,
  };
}

/** Kept plans that named what was taken out since: they are said, and can be taken out. */
function GonePlans({ plan }: { plan: PlanResult }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  return plan.gone?.map(({ place, says }) => (
    <Notice key={place} kind="warning">
      <Figure>{say(says, units)}</Figure>{" "}
      <Button onClick={() => change(dropKept(place))}>Take this plan out</Button>
    </Notice>
  ));
}

function aimSection(plan: PlanResult, here: PlanOption | undefined): Section {
  return {
    value: "aim",
    label: "Angle",
    sign: plain(here ? degrees(here.angle_deg) : "aim"),
    results: <Aim plan={plan} />,
  };
}

function approachesSection(plan: PlanResult): Section {
  return {
    value: "approaches",
    label: "Options",
    sign: plain(`${plan.approaches.length} compared`),
    results: <Approaches plan={plan} />,
  };
}

function fitSection(plan: PlanResult): Section {
  return {
    value: "fit",
    label: "Fit",
    sign: signOfChecks(plan.fit),
    wanted: plan.fit.filter((check) => check.verdict === "open").length,
    results: (plan.fit.length > 0 || plan.brackets.length > 0 || plan.assumptions.length > 0) && (
      <>
        {plan.fit.length > 0 && <Checks title="Before anything is welded" checks={plan.fit} />}
        <Templates />
        <Assumed assumptions={plan.assumptions} rests="The loads on this screen assume these." />
        <p className="text-[15px] text-muted">{plan.leaves_out}</p>
      </>
    ),
    inputs: <FitInputs />,
  };
}

function boltSection(plan: PlanResult): Section {
  const checks = plan.bolt?.checks ?? [];
  return {
    value: "bolt",
    label: "Bolt",
    sign: checks.length > 0 ? signOfChecks(checks) : measure(),
    wanted: checks.filter((check) => check.verdict === "open").length,
    results: plan.bolt && checks.length > 0 && <BoltReported bolt={plan.bolt} />,
    inputs: <BoltInputs />,
  };
}
