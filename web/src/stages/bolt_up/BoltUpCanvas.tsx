import { useRef } from "react";
import { ElevationView } from "../../elevation/ElevationView";
import { useSize } from "../../elevation/useSize";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { BracketOrder } from "./BracketOrder";
import { type FastenerLine, openStep, useOpenStep, useWorked } from "./useWorked";

/** The bay wall of stage Bolt-up: the open step, big enough to read from under the vehicle, with its bolt. */
export function BoltUpCanvas() {
  const { job, results } = useJob();
  const worked = useWorked();
  const units = useSettings((s) => s.units);
  const key = useOpenStep((s) => s.key);
  const open = worked && openStep(worked, key);
  const { bar } = results;
  const axle = (
    <ElevationView
      elevation={results.elevation}
      sweep={bar?.sweep ?? []}
      steeringSide={job.rig?.steering_side}
      hasPlan={bar?.correction !== undefined}
      planName={bar?.correction?.set ? "as set" : "plan"}
    />
  );
  if (!worked || !open) {
    return (
      <section
        aria-label="The open step"
        className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] gap-2 p-4 max-md:hidden"
      >
        <p className="text-[21px]">
          {worked ? "No step is open. Press one to show it here in large type." : "Planning the work…"}
        </p>
        {axle}
      </section>
    );
  }
  const { step, number } = open;
  const lines = [...step.tightens, ...step.starts]
    .map((fastener) => worked.fasteners.find((line) => line.key === fastener))
    .filter((line) => line !== undefined);
  const line = lines[0];
  const head = job.bolt_up?.fasteners?.find((form) => form.key === line?.key)?.head;
  return (
    <section
      aria-label="The open step"
      className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)_auto] gap-2 p-4 max-md:hidden"
    >
      <div className="grid grid-cols-[auto_minmax(0,1fr)] items-start gap-4">
        <span className="grid size-20 place-content-center rounded-full bg-strip font-bold text-[44px] text-on-strip">
          {number}
        </span>
        <div>
          <h3 className="text-balance font-bold text-[30px] leading-tight">
            <Figure>{say(step.does, units)}</Figure>
          </h3>
          <p className="mt-1 text-[19px] text-muted">{step.stands_says}</p>
          {step.how && (
            <p className="mt-2 max-w-[60ch] text-[21px] leading-snug">
              <Figure>{say(step.how, units)}</Figure>
            </p>
          )}
        </div>
      </div>
      {line ? (
        <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto] gap-2">
          <BoltPicture line={line} head={head} />
          <BracketOrder worked={worked} open={step.key} />
        </div>
      ) : (
        axle
      )}
      <ol className="flex flex-wrap gap-1.5" aria-label="Where the work is" data-dots>
        {worked.steps.map((other, index) => (
          <li
            key={other.key}
            className={`grid size-8 place-content-center rounded-full border-2 font-semibold text-[15px] ${
              other.key === step.key
                ? "border-ink bg-marker text-on-marker"
                : other.state === "done" || other.state === "changed"
                  ? "border-ink bg-ink text-slate"
                  : other.state === "stopped"
                    ? "border-axle text-axle"
                    : "border-line text-muted"
            }`}
          >
            {index + 1}
          </li>
        ))}
      </ol>
    </section>
  );
}

function scaleSays(bolt: FastenerLine["drawn"]): string {
  if (bolt.measured) return "to scale, as measured";
  // Of a bracket's bolts there is nothing to measure but their thread.
  return bolt.between_mm > 0
    ? "not to scale: measure the bracket ears and the bolt on the Bracket screen"
    : "not to scale";
}

const MARGIN = 40;
/** Room beside the bolt for what its wrenches are called, in bolt diameters. */
const WRENCH = 3.2;

/** A bolt through two ears, from above: head, washers, ears, what is between, nut, wrenches. */
function BoltPicture({ line, head }: { line: FastenerLine; head: string | undefined }) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(box);
  const bolt = line.drawn;
  const under = bolt.washer_mm * 2 + bolt.ear_mm * 2 + bolt.between_mm + bolt.nut_height_mm;
  const headHeight = bolt.diameter_mm * 0.65;
  const whole = headHeight + Math.max(under, bolt.length_mm) + bolt.diameter_mm * WRENCH * 2;
  const tall = Math.max(bolt.head_mm, bolt.nut_mm) * 3.6;
  const scale = Math.min((width - 2 * MARGIN) / whole, (height - 2 * MARGIN) / tall);
  const middle = height / 2;
  const left = (width - whole * scale) / 2 + bolt.diameter_mm * WRENCH * scale;
  let x = left + headHeight * scale;
  const block = (mm: number, across: number, fill: string, name: string) => {
    const at = x;
    x += mm * scale;
    return (
      <rect
        key={name}
        x={at}
        y={middle - (across * scale) / 2}
        width={mm * scale}
        height={across * scale}
        fill={fill}
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
    );
  };
  const ear = tall * 0.86;
  const stack = [
    block(bolt.washer_mm, bolt.diameter_mm * 2, "var(--slate)", "washer"),
    block(bolt.ear_mm, ear, "var(--frame-soft)", "ear"),
    block(bolt.between_mm, bolt.diameter_mm * 2.6, "var(--axle-soft)", "eye"),
    block(bolt.ear_mm, ear, "var(--frame-soft)", "far ear (far side of bracket)"),
    block(bolt.washer_mm, bolt.diameter_mm * 2, "var(--slate)", "far washer"),
    block(bolt.nut_height_mm, bolt.nut_mm, "var(--marker)", "nut"),
  ];
  const end = left + (headHeight + bolt.length_mm) * scale;
  const shank = (bolt.diameter_mm * scale) / 2;
  const label = "fill-ink text-[17px]";
  return (
    <div ref={box} className="min-h-0 overflow-hidden" data-bolt={line.key}>
      {width > 0 && height > 0 && scale > 0 && (
        <svg width={width} height={height} className="block">
          <title>{`The ${line.name}, drawn from its side`}</title>
          {stack}
          <rect
            x={left + headHeight * scale}
            y={middle - shank}
            width={Math.max(0, end - left - headHeight * scale)}
            height={shank * 2}
            fill="none"
            stroke="var(--ink)"
            strokeDasharray="6 4"
          />
          <rect
            x={left}
            y={middle - (bolt.head_mm * scale) / 2}
            width={headHeight * scale}
            height={bolt.head_mm * scale}
            fill="var(--marker)"
            stroke="var(--ink)"
            strokeWidth={2}
          />
          <text x={left - 8} y={middle + 6} textAnchor="end" className={label}>
            {head ? `head, ${head}` : "head"}
          </text>
          <text x={left - 8} y={middle + 28} textAnchor="end" className={`${label} font-semibold`}>
            {bolt.head_wrench}
          </text>
          <text x={Math.max(end, x) + 8} y={middle + 6} className={label}>
            nut
          </text>
          <text x={Math.max(end, x) + 8} y={middle + 28} className={`${label} font-semibold`}>
            {bolt.nut_wrench ?? "self-locking"}
          </text>
          <text x={width / 2} y={height - 10} textAnchor="middle" className="fill-muted text-[15px]">
            {scaleSays(bolt)}
          </text>
        </svg>
      )}
    </div>
  );
}
