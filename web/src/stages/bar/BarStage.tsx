import type { Job, Results, Schemas } from "../../api/client";
import { Missing } from "../../job/Missing";
import { ReadNext } from "../../job/ReadNext";
import { missingAt } from "../../job/signs";
import { useJob } from "../../job/useJob";
import { degrees, say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { bad, good, measure, mind, plain, type Sign } from "../../ui/sign";
import { usePlanned } from "../bracket/usePlanned";
import { AdjusterInputs } from "./AdjusterInputs";
import { BarAnswer } from "./BarAnswer";
import { BarComparisons } from "./BarComparisons";
import { BarInputs } from "./BarInputs";
import { Builder } from "./Builder";
import { NewBar } from "./NewBar";
import { Bench, OtherWays } from "./OnTheBench";
import { LengthSet, SetIt } from "./SetIt";
import { Stands, Workings } from "./Stands";
import { ThreadEnds } from "./ThreadEnds";

type BarResult = Schemas["BarResult"];

/** Angle, arc, length, turns and flats. */
export function BarStage() {
  const { job, results } = useJob();
  const units = useSettings((s) => s.units);
  const plan = usePlanned();
  const { bar } = results;
  const sections = [
    ...(job.to_do?.includes("swap_bar") ? [newBarSection(job, results)] : []),
    ...(bar ? [setSection(bar)] : []),
    standsSection(results),
    ...(results.no_bar ? [] : [othersSection(plan?.bars.length ?? 0)]),
    ...(bar ? [workingSection(bar)] : []),
  ];
  return (
    <>
      <BarAnswer bar={bar} />
      {!results.no_bar && <Missing faults={results.bar_missing} />}
      {bar?.warnings.map((warning) => (
        <Notice key={warning.in} kind="warning">
          <Figure>{say(warning, units)}</Figure>
        </Notice>
      ))}
      {bar?.eye_check?.too_much && (
        <Notice kind="warning">
          <Figure>{say(bar.eye_check.says, units)}</Figure>
        </Notice>
      )}
      <ReadNext result={results.sheets.findLast((sheet) => sheet.current && sheet.kind === "centring")} />
      <Sections label="Bar results" of="bar" sections={sections} />
    </>
  );
}

function signOfSetting({ correction, built }: BarResult): Sign {
  if (!correction) return built ? plain("built bar") : plain("no length yet");
  if (correction.decide_first) return mind("decide first");
  if (correction.set) return correction.set.thread_broken ? bad("thread") : good("set");
  if (correction.covered === false) return bad("does not reach");
  return correction.setting || correction.bar ? plain("to set") : measure("choose how");
}

function newBarSection({ setups }: Job, { bar_missing: missing }: Results): Section {
  const chosen = setups?.plans?.chosen?.bar;
  return {
    value: "new",
    label: "New bar",
    sign: chosen ? plain("entered") : measure("enter it"),
    wanted: (chosen ? 0 : 1) + missingAt(missing, "/setups/found/bar/length").length,
    inputs: <NewBar />,
  };
}

function setSection(bar: BarResult): Section {
  const { correction } = bar;
  // Nothing is set before it is chosen what.
  const toSet = correction?.decide_first ? undefined : correction;
  return {
    value: "set",
    label: "Set it",
    sign: signOfSetting(bar),
    wanted: correction && !correction.setting && !correction.bar ? 1 : 0,
    results: (toSet || bar.built) && (
      <>
        {toSet?.setting?.bench && <Bench steps={toSet.setting.bench.says} />}
        {toSet && <OtherWays ways={toSet.other_ways} />}
        {toSet?.setting && <ThreadEnds setting={toSet.setting} />}
        {toSet && <SetIt correction={toSet} />}
        {bar.built && <LengthSet round={bar.built} />}
      </>
    ),
    inputs: <AdjusterInputs />,
  };
}

function standsSection({ bar, bar_missing: missing, no_bar: none }: Results): Section {
  return {
    value: "stands",
    label: "As found",
    sign: bar
      ? !bar.angle_measured
        ? plain("no angle")
        : bar.need.need === "recommended"
          ? mind(degrees(bar.found.angle_deg))
          : plain(degrees(bar.found.angle_deg))
      : none
        ? plain("none")
        : measure(),
    wanted: missingAt(missing, "/setups/found/bar").length,
    results: bar && <Stands bar={bar} />,
    inputs: <BarInputs />,
  };
}

function othersSection(bars: number): Section {
  return {
    value: "others",
    label: "Other bars",
    sign: plain(bars > 0 ? `${bars} compared` : "none"),
    results: bars > 0 && <BarComparisons />,
    inputs: <Builder />,
  };
}

function workingSection(bar: BarResult): Section {
  return { value: "working", label: "Working", sign: plain("formulas"), results: <Workings bar={bar} /> };
}
