import { Crosshair } from "lucide-react";
import type { CycleResult, Limit, SetupCycle } from "../../api/client";
import { poseAt, type Wheels } from "../../elevation/cyclePose";
import { EnvelopeMap, KIND_COLOURS } from "../../elevation/EnvelopeMap";
import { type Round, useStance } from "../../elevation/stance";
import { degrees, distance, say, sideways } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";
import { setTrial, tried } from "../job/edits";
import { useJob } from "../job/useJob";
import { useWheels } from "./CycleWall";
import { HeaveTable } from "./HeaveTable";
import { HolesInput } from "./HolesInput";
import { Intervals } from "./Intervals";
import { useCycled } from "./useCycled";

const ROUNDS = [
  { value: "heave", label: "up and down" },
  { value: "cross", label: "cross-axled" },
  { value: "around", label: "all round" },
] as const satisfies readonly { value: Round; label: string }[];

/** What touches, binds, runs out or steers, over everything the axle can do. */
export function CycleStage() {
  const units = useSettings((s) => s.units);
  const cycle = useCycled();
  const { shown } = useStance();
  const { results } = useJob();
  const wheels = useWheels(results);
  if (!cycle) return <Answer says="Cycling the axle…" />;
  const setup = shown === "planned" && cycle.plan ? cycle.plan : cycle.found;
  return (
    <>
      <Answer says={say(setup?.says ?? cycle.says, units)}>
        {cycle.plan && cycle.found && setup !== cycle.found && (
          <p className="text-muted">
            As found: <Figure>{lowered(say(cycle.found.says, units))}</Figure>.
          </p>
        )}
      </Answer>
      {cycle.missing.map((fault) => (
        <Notice key={fault.pointer + fault.code} kind={fault.code === "missing" ? "question" : "refused"}>
          {fault.message}
        </Notice>
      ))}
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
      {setup && <Envelope setup={setup} />}
      {setup && <Ways cycle={cycle} setup={setup} />}
      {cycle.axle_holes.length > 0 && <Holes cycle={cycle} />}
      {setup && <WorstPoses setup={setup} />}
      {setup?.steering && <Steering setup={setup} />}
      {setup && (
        <HeaveTable
          found={cycle.found}
          plan={cycle.plan}
          planName={cycle.plan_name || "plan"}
          travel={(wheels.left + wheels.right) / 2}
        />
      )}
      <HolesInput />
      {results.bar && <Intervals />}
      <Assumed cycle={cycle} />
    </>
  );
}

function lowered(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}

function Envelope({ setup }: { setup: SetupCycle }) {
  const { results } = useJob();
  const wheels = useWheels(results);
  const { round, setRound, setWheels } = useStance();
  return (
    <section className="grid gap-2" aria-label="Left and right wheel travel">
      <div className="grid grid-cols-[minmax(0,1fr)_112px] gap-3 max-sm:grid-cols-1">
        <EnvelopeMap
          setup={setup}
          wheels={wheels}
          onMove={({ left, right }) => {
            useStance.getState().setPlaying(false);
            setWheels(left, right);
          }}
        />
        <PoseFigures setup={setup} wheels={wheels} />
      </div>
      <Legend setup={setup} />
      <Choice label="Cycle goes" value={round} options={ROUNDS} onPick={setRound} />
    </section>
  );
}

const KIND_NAMES = {
  tilt: "joints",
  wind_up: "joints",
  gap: "clearance",
  bind: "bind",
} satisfies Record<Limit["kind"], string>;

function Legend({ setup }: { setup: SetupCycle }) {
  const kinds = [...new Map(setup.limits.map((limit) => [KIND_NAMES[limit.kind], limit.kind])).entries()];
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-[15px]">
      {kinds.map(([name, kind]) => (
        <li key={name} className="flex items-center gap-1.5">
          <span
            className="inline-block size-3.5 border border-ink"
            style={{ background: KIND_COLOURS[kind] }}
          />
          {name} nearest
        </li>
      ))}
      <li className="text-muted">darker is nearer, hatched is over</li>
    </ul>
  );
}

/** The figures of the pose in view. */
function PoseFigures({ setup, wheels }: { setup: SetupCycle; wheels: Wheels }) {
  const { job } = useJob();
  const units = useSettings((s) => s.units);
  const pose = poseAt(setup, wheels);
  if (!pose) {
    return <p data-pose>Out of reach: the links do not let the axle go there.</p>;
  }
  const limit = setup.limits[pose.nearest ?? -1];
  const rear = job.rig?.end === "rear";
  const signed = (mm: number, more: string, less: string) =>
    Math.abs(mm) < 0.05 ? degrees(0) : `${degrees(mm)} ${mm > 0 ? more : less}`;
  const rows: [string, string][] = [
    ["sideways", sideways(pose.y_mm, units)],
    ["lean", signed(pose.roll_deg, "left up", "right up")],
    [rear ? "pinion" : "caster", signed(pose.pitch_deg, rear ? "down" : "less", rear ? "up" : "more")],
    ["axle points", signed(pose.yaw_deg, "left", "right")],
    ...(pose.steer_deg === undefined
      ? []
      : ([["wheels steer", signed(pose.steer_deg, "left", "right")]] as [string, string][])),
    ["roll centre", distance(pose.roll_centre_mm, units)],
    ...(setup.limits.some((l) => l.kind === "bind")
      ? ([["bind", distance(pose.bind_mm, units)]] as [string, string][])
      : []),
  ];
  return (
    <dl className="grid content-start gap-1 text-[15px] leading-tight max-sm:grid-cols-2" data-pose>
      {rows.map(([name, value]) => (
        <div key={name}>
          <dt className="text-muted">{name}</dt>
          <dd className="font-semibold">
            <Figure>{value}</Figure>
          </dd>
        </div>
      ))}
      {limit && (
        <div className="col-span-full">
          <dt className="text-muted">nearest limit</dt>
          <dd className={pose.level === "free" ? "" : "font-semibold text-axle"}>{limit.name}</dd>
        </div>
      )}
    </dl>
  );
}

/** What ends the travel first each way, before and after. */
function Ways({ cycle, setup }: { cycle: CycleResult; setup: SetupCycle }) {
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const other = setup === cycle.plan ? cycle.found : undefined;
  return (
    <section className="grid gap-1">
      <h3 className="font-semibold text-[20px] leading-tight">What ends the travel first</h3>
      <ul className="grid">
        {setup.ways.map((way, index) => {
          const [left = 0, right = 0] = way.ended_at_mm ?? way.end_mm;
          const before = other?.ways[index];
          const differs = before && say(before.says, units) !== say(way.says, units);
          return (
            <li key={way.way} className="border-line border-b last:border-b-0">
              <button
                type="button"
                className="grid min-h-11 w-full grid-cols-[112px_minmax(0,1fr)_20px] items-center gap-2 py-1.5 text-left leading-tight"
                data-way={way.way}
                onClick={() => setWheels(left, right)}
              >
                <span className="text-muted">{way.name}</span>
                <span>
                  <span className={way.ended_at_mm ? "font-semibold" : ""}>
                    <Figure>{say(way.says, units)}</Figure>
                  </span>
                  {differs && (
                    <span className="block text-[15px] text-muted">
                      as found: <Figure>{lowered(say(before.says, units))}</Figure>
                    </span>
                  )}
                </span>
                <Crosshair size={18} aria-hidden />
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The worst of each limit, one click from the drawing. */
function WorstPoses({ setup }: { setup: SetupCycle }) {
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const rank = { over: 0, close: 1, free: 2 } as const;
  const used = (limit: Limit) =>
    limit.kind === "gap" ? -limit.worst / Math.max(limit.close, 1) : limit.worst / limit.over;
  const sorted = [...setup.limits].sort((a, b) => rank[a.level] - rank[b.level] || used(b) - used(a));
  const row = (limit: Limit) => (
    <li key={limit.name} className="border-line border-b last:border-b-0">
      <button
        type="button"
        className="grid min-h-11 w-full grid-cols-[minmax(0,1fr)_auto_20px] items-center gap-2 py-1.5 text-left leading-tight"
        data-limit={limit.name}
        data-level={limit.level}
        onClick={() => setWheels(limit.worst_left_mm, limit.worst_right_mm)}
      >
        <span>
          {limit.name}
          <span className="block text-[15px] text-muted">
            <Figure>{`at ${say(limit.worst_place, units)}`}</Figure>
          </span>
        </span>
        <span className={`text-right ${limit.level === "free" ? "" : "font-semibold"}`}>
          <Figure>{say(limit.worst_says, units)}</Figure>
          {limit.level !== "free" && (
            <span className="block text-[15px] text-axle">{limit.level === "over" ? "over" : "close"}</span>
          )}
        </span>
        <Crosshair size={18} aria-hidden />
      </button>
    </li>
  );
  const shown = Math.max(4, sorted.filter((limit) => limit.level !== "free").length);
  return (
    <section className="grid gap-1">
      <h3 className="font-semibold text-[20px] leading-tight">Worst poses</h3>
      <ul>{sorted.slice(0, shown).map(row)}</ul>
      {sorted.length > shown && (
        <Fold title={`${sorted.length - shown} more, all free`}>
          <ul>{sorted.slice(shown).map(row)}</ul>
        </Fold>
      )}
    </section>
  );
}

/** The bracket's holes by name, for whoever does not grasp the eye. */
function Holes({ cycle }: { cycle: CycleResult }) {
  const { job, change } = useJob();
  const trial = job.setups?.plans?.trial;
  const options = cycle.axle_holes.map((hole) => ({
    value: hole.name || "-",
    label: hole.name || "the hole it is in",
  }));
  const chosen = cycle.axle_holes.find((hole) => hole.chosen)?.name;
  return (
    <Choice
      label="Axle eye in"
      value={chosen || "-"}
      options={options}
      onPick={(name) => {
        useStance.getState().setShown("planned");
        change(setTrial(tried(trial, "axle", name === "-" ? "" : name)));
      }}
      hint="Or take the eye in the drawing and move it. The bar is set to the length that centres the axle there."
    />
  );
}

function Steering({ setup }: { setup: SetupCycle }) {
  const units = useSettings((s) => s.units);
  const { steering } = setup;
  if (!steering) return null;
  return (
    <section className="grid gap-1.5" data-steering>
      <h3 className="font-semibold text-[20px] leading-tight">Steering</h3>
      {[steering.says, steering.match_says, steering.change_says].map((words) => (
        <p key={words.in}>
          <Figure>{say(words, units)}</Figure>
        </p>
      ))}
    </section>
  );
}

function Assumed({ cycle }: { cycle: CycleResult }) {
  const units = useSettings((s) => s.units);
  if (cycle.assumptions.length === 0) return null;
  return (
    <Fold title={`Assumed, because nobody has measured it (${cycle.assumptions.length})`}>
      <ul className="grid list-disc gap-1 pl-5" data-assumed>
        {cycle.assumptions.map((assumption) => (
          <li key={assumption.pointer}>
            <Figure>{say(assumption.says, units)}</Figure>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">
        Every figure of this stage rests on these; their links are drawn dashed. Measure them in stage Tape.
      </p>
    </Fold>
  );
}
