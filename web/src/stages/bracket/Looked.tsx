import type { PlanOption, Schemas, Unit } from "../../api/client";
import { choosePlan, setChosen } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { degrees, distance, fine, say, sideways } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { useHeld, useLookedAt } from "./usePlanned";

const AIMS = optionsOf<Schemas["LengthAim"]>({
  centred: "set to center the axle",
  as_the_old_one: "same as the old one",
  as_the_maker_had_it: "its stock length",
});

/** What an option does and loads, name and figure. */
function figuresOf(option: PlanOption, units: Unit): [string, string][] {
  const { loads } = option;
  return [
    ["length, eye to eye", fine(option.length_mm, units)],
    [
      "at full droop, full bump",
      `${sideways(option.at_full_droop_mm, units)}, ${sideways(option.at_full_bump_mm, units)}`,
    ],
    ...(option.least_gap_mm === undefined
      ? []
      : ([["tightest clearance of the bar", distance(option.least_gap_mm, units)]] as [string, string][])),
    ...(option.worst_tilt_deg === undefined
      ? []
      : ([["most misalignment at its joints", degrees(option.worst_tilt_deg)]] as [string, string][])),
    ...(option.bump_steer_deg === undefined
      ? []
      : ([["worst bump steer", degrees(option.bump_steer_deg)]] as [string, string][])),
    ...(option.drag_link_difference_deg === undefined
      ? []
      : ([
          [
            option.goes_with
              ? `bar against drag link, with the ${option.goes_with}`
              : "bar against drag link",
            degrees(option.drag_link_difference_deg),
          ],
        ] as [string, string][])),
    ["bending load on the axle tube", `${loads.axle_moment_ratio.toFixed(1)} times`],
    ["bending load on the frame rail", `${loads.frame_moment_ratio.toFixed(1)} times`],
    ["load in the bar, estimated", say(loads.bar_says, units)],
    ...(loads.attachment_says
      ? ([["at each mount", say(loads.attachment_says, units)]] as [string, string][])
      : []),
    ["roll center to center of gravity", distance(loads.lever_mm, units)],
  ];
}

/** The option looked at: what it does, what it loads, why it fails, and choosing it. */
export function Looked({ option }: { option: PlanOption }) {
  const { job, change } = useJob();
  const { units } = useSettings();
  const { look } = useLookedAt();
  const held = useHeld((s) => s.part !== null);
  const rows = figuresOf(option, units);
  return (
    <section className="grid gap-2 border-[1.5px] border-ink bg-paper p-3" data-looked>
      <h3 className="font-semibold text-[20px] leading-tight">
        {option.name}, {option.bar}
      </h3>
      {option.fails.map((reason) => (
        <Notice key={reason.in} kind="refused">
          <Figure>{say(reason, units)}</Figure>
        </Notice>
      ))}
      {option.minds.map((mind) => (
        <Notice key={mind.in} kind="warning">
          <Figure>{say(mind, units)}</Figure>
        </Notice>
      ))}
      <dl className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 gap-y-1 text-[16px]">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-muted">{name}</dt>
            <dd className="text-right font-semibold">
              <Figure>{value}</Figure>
            </dd>
          </div>
        ))}
      </dl>
      <p className="text-[16px] text-muted">
        <Figure>{`In a 0.5 g left turn it ${say(option.loads.jacking_says, units)}.`}</Figure>
      </p>
      {option.chosen ? (
        <>
          <Choice
            label="Set the bar length"
            value={job.setups?.plans?.chosen?.length ?? "centred"}
            options={AIMS}
            onPick={(length) => change(setChosen({ length }))}
          />
          <Button onClick={() => change(choosePlan(undefined))}>Drop this plan</Button>
        </>
      ) : (
        <Button
          look="strong"
          disabled={held}
          onClick={() => {
            change(choosePlan(option.plan));
            look(null);
          }}
        >
          {held ? "Add the part you are trying before you choose" : "Choose this plan"}
        </Button>
      )}
    </section>
  );
}
