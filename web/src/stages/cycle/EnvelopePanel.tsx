import type { Limit, SetupCycle } from "../../api/client";
import { poseAt, type Wheels } from "../../elevation/cyclePose";
import { EnvelopeMap, KIND_COLOURS } from "../../elevation/EnvelopeMap";
import { type Round, useStance } from "../../elevation/stance";
import { useJob } from "../../job/useJob";
import { useWheels } from "../../job/useWheels";
import { degrees, distance, sideways } from "../../measure/format";
import { Choice } from "../../ui/Choice";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

const ROUNDS = [
  { value: "heave", label: "up and down" },
  { value: "cross", label: "crossed up" },
  { value: "around", label: "all around" },
] as const satisfies readonly { value: Round; label: string }[];

/** Left against right wheel travel as a map, with the figures of the pose in view. */
export function Envelope({ setup }: { setup: SetupCycle }) {
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
      <Choice label="Cycle" value={round} options={ROUNDS} onPick={setRound} />
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
      <li className="text-muted">darker is closer, hatched is over the limit</li>
    </ul>
  );
}

/** The figures of the pose in view. */
function PoseFigures({ setup, wheels }: { setup: SetupCycle; wheels: Wheels }) {
  const { job } = useJob();
  const units = useSettings((s) => s.units);
  const pose = poseAt(setup, wheels);
  if (!pose) {
    return <p data-pose>Out of reach: the control arms won't let the axle go there.</p>;
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
    ["roll center", distance(pose.roll_centre_mm, units)],
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
          <dt className="text-muted">closest to its limit</dt>
          <dd className={pose.level === "free" ? "" : "font-semibold text-axle"}>{limit.name}</dd>
        </div>
      )}
    </dl>
  );
}
