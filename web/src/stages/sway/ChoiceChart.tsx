import { scaleLinear } from "d3-scale";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

type Vehicle = Schemas["VehicleResult"];

const SIZE = { width: 392, height: 250, left: 44, right: 12, top: 12, bottom: 38 };
const NUMBERS = ["1", "2", "3", "4", "5", "6", "7"];

/** Road roll against trail articulation: every choice a point that can be picked. */
export function ChoiceChart({ vehicle }: { vehicle: Vehicle }) {
  const [picked, pick] = useState<string | null>(null);
  const shown = vehicle.choices.map((choice, index) => ({ choice, number: NUMBERS[index] ?? "" }));
  const placed = shown.filter(
    ({ choice }) => choice.road_deg_per_g !== undefined && choice.trail_deg !== undefined,
  );
  const here =
    shown.find(({ choice }) => choice.choice === picked) ??
    shown.find(({ choice }) => choice.here) ??
    shown[0];
  const most = (pickFrom: (c: Vehicle["choices"][number]) => number | undefined) =>
    Math.max(1, ...placed.map(({ choice }) => pickFrom(choice) ?? 0)) * 1.15;
  const x = scaleLinear([0, most((c) => c.road_deg_per_g)], [SIZE.left, SIZE.width - SIZE.right]);
  const y = scaleLinear([0, most((c) => c.trail_deg)], [SIZE.height - SIZE.bottom, SIZE.top]);
  // Choices that come to the same stand beside each other.
  const beside = (index: number) => {
    const a = placed[index]?.choice;
    const same = placed
      .slice(0, index)
      .filter(
        ({ choice }) =>
          Math.abs((choice.road_deg_per_g ?? 0) - (a?.road_deg_per_g ?? 0)) < 0.05 &&
          Math.abs((choice.trail_deg ?? 0) - (a?.trail_deg ?? 0)) < 0.2,
      );
    return same.length * 22;
  };
  return (
    <section className="grid gap-1">
      <h3 className="font-semibold text-[20px] leading-tight">Road against trail</h3>
      <div className="relative">
        <svg
          viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
          className="w-full border-[1.5px] border-ink bg-paper"
          role="img"
          aria-label="Body roll on the road against flex on the trail for each choice; figures in the list below"
          data-chart
        >
          <Axes x={x} y={y} />
          {placed.map(({ choice, number }, index) => (
            <Point
              key={choice.choice}
              at={[x(choice.road_deg_per_g ?? 0) + beside(index), y(choice.trail_deg ?? 0)]}
              number={number}
              on={choice.choice === here?.choice.choice}
              there={choice.here}
            />
          ))}
        </svg>
        {placed.map(({ choice, number }, index) => (
          <button
            key={choice.choice}
            type="button"
            aria-label={`${number}, ${choice.name}`}
            aria-pressed={choice.choice === here?.choice.choice}
            className="absolute h-11 w-11 -translate-x-1/2 -translate-y-1/2 cursor-pointer rounded-full"
            style={{
              left: `${((x(choice.road_deg_per_g ?? 0) + beside(index)) / SIZE.width) * 100}%`,
              top: `${(y(choice.trail_deg ?? 0) / SIZE.height) * 100}%`,
            }}
            data-point={choice.name}
            onClick={() => pick(choice.choice)}
          />
        ))}
      </div>
      <Choices shown={shown} here={here?.choice.choice} onPick={pick} />
    </section>
  );
}

type Scale = ReturnType<typeof scaleLinear<number, number>>;

/** Degrees of both axes, and what they are. */
function Axes({ x, y }: { x: Scale; y: Scale }) {
  return (
    <g>
      {x.ticks(5).map((value) => (
        <g key={`x${value}`}>
          <line
            x1={x(value)}
            x2={x(value)}
            y1={SIZE.top}
            y2={SIZE.height - SIZE.bottom}
            stroke="var(--line)"
          />
          <text
            x={x(value)}
            y={SIZE.height - SIZE.bottom + 15}
            textAnchor="middle"
            fontSize={13}
            fill="var(--ink)"
          >
            {value}°
          </text>
        </g>
      ))}
      {y.ticks(4).map((value) => (
        <g key={`y${value}`}>
          <line
            x1={SIZE.left}
            x2={SIZE.width - SIZE.right}
            y1={y(value)}
            y2={y(value)}
            stroke="var(--line)"
          />
          <text x={SIZE.left - 5} y={y(value) + 4} textAnchor="end" fontSize={13} fill="var(--ink)">
            {value}°
          </text>
        </g>
      ))}
      <text
        x={(SIZE.left + SIZE.width) / 2}
        y={SIZE.height - 6}
        textAnchor="middle"
        fontSize={14}
        fill="var(--ink)"
      >
        body roll on the road, ° per g ▸
      </text>
      <text
        transform={`translate(13 ${SIZE.height / 2 - 10}) rotate(-90)`}
        textAnchor="middle"
        fontSize={14}
        fill="var(--ink)"
      >
        flex on the trail ▸
      </text>
    </g>
  );
}

type PointProps = { at: readonly [number, number]; number: string; on: boolean; there: boolean };

/** One choice; what is there has a heavier edge. */
function Point({ at: [cx, cy], number, on, there }: PointProps) {
  return (
    <g transform={`translate(${cx} ${cy})`}>
      <circle
        r={11}
        fill={on ? "var(--marker)" : "var(--slate)"}
        stroke="var(--ink)"
        strokeWidth={there ? 3 : 1.5}
      />
      <text
        y={5}
        textAnchor="middle"
        fontSize={14}
        fontWeight={700}
        fill={on ? "var(--on-marker)" : "var(--ink)"}
      >
        {number}
      </text>
    </g>
  );
}

type ChoicesProps = {
  shown: readonly { choice: Vehicle["choices"][number]; number: string }[];
  here: string | undefined;
  onPick: (name: string) => void;
};

/** Every choice in words; the one that is picked in full. */
function Choices({ shown, here, onPick }: ChoicesProps) {
  const units = useSettings((s) => s.units);
  return (
    <ul data-choices>
      {shown.map(({ choice, number }) => {
        const on = choice.choice === here;
        return (
          <li key={choice.choice} className="border-line border-b last:border-b-0">
            <button
              type="button"
              aria-pressed={on}
              className="grid min-h-11 w-full grid-cols-[26px_minmax(0,1fr)] gap-2 py-1.5 text-left leading-tight"
              data-choice={choice.name}
              onClick={() => onPick(choice.choice)}
            >
              <b>{number}</b>
              <span>
                <span className={on ? "font-semibold" : ""}>
                  {choice.name}
                  {choice.here ? ", current setup" : ""}
                </span>
                {on && (
                  <span className="block">
                    <Figure>{say(choice.says, units)}</Figure>
                    {choice.assumed > 0 && (
                      <span className="text-muted">
                        {" "}
                        Depends on {choice.assumed} typical value{choice.assumed === 1 ? "" : "s"}, listed
                        below.
                      </span>
                    )}
                  </span>
                )}
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
