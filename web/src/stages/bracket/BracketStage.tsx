import { Download } from "lucide-react";
import type { PlanOption, PlanResult, School } from "../../api/client";
import { degrees, distance, fine, say, sideways } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { choosePlan, setBracketing, setChosen } from "../job/edits";
import { useJob } from "../job/useJob";
import { BoltInputs } from "./BoltInputs";
import { BoltTold } from "./BoltTold";
import { Checks } from "./Checks";
import { ConversionInputs } from "./ConversionInputs";
import { FitInputs } from "./FitInputs";
import { Legs } from "./Legs";
import { OptionTable } from "./OptionTable";
import { PartsTried } from "./PartsTried";
import { COLOURS, DASHES } from "./SchoolPlot";
import { lookedAt, useLookedAt, usePlanned } from "./usePlanned";

const TARGETS = [
  { value: "level_driven", label: "level as driven" },
  { value: "level_mid_travel", label: "level mid-travel" },
  { value: "parallel_to_drag_link", label: "like the drag link" },
] as const;

const AIMS = [
  { value: "centred", label: "set to centre it" },
  { value: "as_the_old_one", label: "as the old one" },
] as const;

/** The angle put right: the answer, the holes, the schools, what moves with it. */
export function BracketStage() {
  const { job, change } = useJob();
  const units = useSettings((s) => s.units);
  const plan = usePlanned();
  const key = useLookedAt((s) => s.key);
  if (!plan) return <Answer says="Planning…" />;
  const here = lookedAt(plan, key, job.setups?.plans?.chosen);
  return (
    <>
      <Answer says={say(plan.says, units)}>
        <p>
          <Figure>{say(plan.because, units)}</Figure>
        </p>
      </Answer>
      {plan.missing
        .filter((fault) => fault.code !== "no_bar")
        .map((fault) => (
          <Notice key={fault.pointer} kind={fault.code === "missing" ? "question" : "refused"}>
            {fault.message}
          </Notice>
        ))}
      {plan.legs.length > 0 && <Legs settings={plan.legs} />}
      {plan.conversion.length > 0 && <Checks title="The conversion, checked" checks={plan.conversion} />}
      {plan.conversion.length > 0 && <ConversionInputs />}
      {here && <OptionTable plan={plan} here={here} />}
      {here && <Looked option={here} />}
      {plan.schools.length > 0 && <Schools plan={plan} />}
      {plan.options.length > 0 && (
        <Choice
          label="What the angle is aimed at"
          value={job.bracket?.target ?? "level_driven"}
          options={TARGETS.filter((t) => t.value !== "parallel_to_drag_link" || job.hardpoints?.steering)}
          onPick={(target) => change(setBracketing({ target }))}
        />
      )}
      {plan.exact_says.in && (
        <p>
          <Figure>{say(plan.exact_says, units)}</Figure>
        </p>
      )}
      <WorkingOut working={plan.working} />
      {plan.other_heights.map((says) => (
        <p key={says.in}>
          <Figure>{say(says, units)}</Figure>
        </p>
      ))}
      {plan.fit.length > 0 && <Checks title="Before anything is welded" checks={plan.fit} />}
      {plan.bolt && plan.bolt.checks.length > 0 && <BoltTold bolt={plan.bolt} />}
      <PartsTried />
      <FitInputs />
      <BoltInputs />
      <Templates />
      {plan.assumptions.length > 0 && (
        <Fold title={`Assumed, because nobody has measured it (${plan.assumptions.length})`}>
          <ul className="grid list-disc gap-1 pl-5">
            {plan.assumptions.map((assumption) => (
              <li key={assumption.pointer}>
                <Figure>{say(assumption.says, units)}</Figure>
              </li>
            ))}
          </ul>
        </Fold>
      )}
      <p className="text-[15px] text-muted">{plan.leaves_out}</p>
    </>
  );
}

/** The option looked at: what it does, what it loads, why it fails, and choosing it. */
function Looked({ option }: { option: PlanOption }) {
  const { job, change } = useJob();
  const { units } = useSettings();
  const { look } = useLookedAt();
  const { loads } = option;
  const rows: [string, string][] = [
    ["length, eye to eye", fine(option.length_mm, units)],
    [
      "at full droop, full bump",
      `${sideways(option.at_full_droop_mm, units)}, ${sideways(option.at_full_bump_mm, units)}`,
    ],
    ...(option.least_gap_mm === undefined
      ? []
      : ([["least room of the bar", distance(option.least_gap_mm, units)]] as [string, string][])),
    ...(option.worst_tilt_deg === undefined
      ? []
      : ([["most tilt of its joints", degrees(option.worst_tilt_deg)]] as [string, string][])),
    ...(option.bump_steer_deg === undefined
      ? []
      : ([["most bump steer", degrees(option.bump_steer_deg)]] as [string, string][])),
    ...(option.drag_link_difference_deg === undefined
      ? []
      : ([
          [
            option.plan.drag_link
              ? `bar against drag link, with the ${option.plan.drag_link}`
              : "bar against drag link",
            degrees(option.drag_link_difference_deg),
          ],
        ] as [string, string][])),
    ["moment into the axle tube", `${loads.axle_moment_ratio.toFixed(1)} times`],
    ["moment into the frame rail", `${loads.frame_moment_ratio.toFixed(1)} times`],
    ["load of the bar, estimated", say(loads.bar_says, units)],
    ...(loads.attachment_says
      ? ([["on each attachment", say(loads.attachment_says, units)]] as [string, string][])
      : []),
    ["roll centre to centre of gravity", distance(loads.lever_mm, units)],
  ];
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
        <Figure>{`A left turn at half a g ${say(loads.jacking_says, units)}.`}</Figure>
      </p>
      {option.chosen ? (
        <>
          <Choice
            label="The bar's length is"
            value={job.setups?.plans?.chosen?.length ?? "centred"}
            options={AIMS}
            onPick={(length) => change(setChosen({ length }))}
          />
          <Button onClick={() => change(choosePlan(undefined))}>Let go of this plan</Button>
        </>
      ) : (
        <Button
          look="strong"
          onClick={() => {
            change(choosePlan(option.plan));
            look(null);
          }}
        >
          Choose this plan
        </Button>
      )}
    </section>
  );
}

function Schools({ plan }: { plan: PlanResult }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  const row = (school: School) => (
    <li
      key={school.school}
      className="grid gap-1 border-line border-b py-2 last:border-b-0"
      data-school={school.school}
    >
      <div className="flex items-center gap-2">
        <svg width={34} height={8} aria-hidden>
          <line
            x1={0}
            x2={34}
            y1={4}
            y2={4}
            stroke={COLOURS[school.school]}
            strokeWidth={2.6}
            strokeDasharray={DASHES[school.school]}
          />
        </svg>
        <b>{school.name}</b>
        <span className="text-muted">{school.option.name}</span>
      </div>
      <p className="leading-snug">
        <Figure>{say(school.says, units)}</Figure>
      </p>
      {school.at_hand && !school.option.chosen && (
        <Button className="justify-self-start" onClick={() => change(choosePlan(school.option.plan))}>
          Choose {school.name}
        </Button>
      )}
    </li>
  );
  return (
    <section>
      <h3 className="font-semibold text-[20px] leading-tight">The schools, side by side</h3>
      <ul>{plan.schools.map(row)}</ul>
      {plan.longer_says && (
        <p className="text-muted">
          <Figure>{say(plan.longer_says, units)}</Figure>
        </p>
      )}
      <Fold title="Their sideways motion, as a table">
        <CurveTable schools={plan.schools} />
      </Fold>
    </section>
  );
}

function CurveTable({ schools }: { schools: readonly School[] }) {
  const units = useSettings((s) => s.units);
  const rows = [40, 30, 20, 10, 0];
  return (
    <table className="w-full text-left text-[15px]">
      <thead>
        <tr className="border-ink border-b">
          <th scope="col" className="py-1 font-semibold">
            school
          </th>
          {rows.map((row) => (
            <th scope="col" key={row} className="font-semibold">
              {row === 40 ? "full bump" : row === 0 ? "full droop" : ""}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {schools.map((school) => (
          <tr key={school.school} className="border-line border-b">
            <td className="py-1">{school.name}</td>
            {rows.map((row) => (
              <td key={row}>
                <Figure>{sideways(school.curve[row]?.y_mm ?? 0, units)}</Figure>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Drill templates of the brackets tried. */
function Templates() {
  const { view } = useJob();
  const now = usePlanned()?.brackets ?? [];
  if (now.length === 0) return null;
  return (
    <Fold title="Drill templates, one to one">
      <p className="text-[15px] text-muted">
        Print without scaling and measure the check bar before anything is drilled.
      </p>
      {now.map((name) => (
        <div key={name} className="flex flex-wrap items-center gap-2 border-line border-b py-1.5">
          <span className="flex-1">{name}</span>
          {(["svg", "dxf"] as const).map((format) => (
            <a
              key={format}
              className="inline-flex min-h-11 items-center gap-1 underline"
              href={`/api/v1/jobs/${view.id}/templates/holes?format=${format}&of=${encodeURIComponent(name)}`}
              download
            >
              <Download size={16} aria-hidden />
              {format.toUpperCase()}
            </a>
          ))}
        </div>
      ))}
    </Fold>
  );
}
