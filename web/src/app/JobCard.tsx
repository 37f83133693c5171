import { Link } from "react-router";
import type { JobLine } from "../api/client";
import { EndView } from "../elevation/EndView";
import { fit } from "../elevation/picture";
import { isPast, say } from "../measure/format";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { STAGE_NAMES } from "./stages";

const SIZE = { width: 260, height: 128 };

/** A job as a card: a small elevation, where it stands, what waits. */
export function JobCard({ line }: { line: JobLine }) {
  return line.card ? <Drawn line={line} card={line.card} /> : <Unreadable line={line} />;
}

/** A job whose document cannot be read: it is there, and its history may hold more. */
function Unreadable({ line }: { line: JobLine }) {
  return (
    <li className="grid content-start gap-2 border-[1.5px] border-axle bg-slate px-3 py-2" data-job={line.id}>
      <h2 className="font-bold text-[21px] leading-tight">{line.title}</h2>
      <p role="alert">
        This job can't be read. Nothing was changed; an older version in its history may be readable.
      </p>
      <Link className="flex min-h-11 items-center underline" to={`/jobs/${line.id}/rig`}>
        Open it to see why
      </Link>
    </li>
  );
}

function Drawn({ line, card }: { line: JobLine; card: NonNullable<JobLine["card"]> }) {
  const { units, face } = useSettings();
  const picture = fit(card.elevation, SIZE.width, SIZE.height, face, 4);
  return (
    <li>
      <Link
        to={`/jobs/${line.id}/${nextStage(line)}`}
        className="settle grid h-full grid-rows-[auto_auto_1fr_auto] border-[1.5px] border-ink bg-slate hover:bg-tape"
        data-job={line.id}
      >
        <svg
          viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
          className="w-full border-line border-b bg-paper"
          aria-hidden
        >
          <EndView
            elevation={card.elevation}
            picture={picture}
            posed={{ travel: 0, axle: card.elevation.axle_offset_mm }}
            mini
          />
        </svg>
        <div className="px-3 pt-2">
          <h2 className="font-bold text-[21px] leading-tight">{line.title}</h2>
          <p className="text-[15px] text-muted leading-tight">{card.vehicle}</p>
        </div>
        <div className="px-3 py-2">
          <p className="font-semibold text-[18px] leading-snug">
            <Figure>{say(card.says, units)}</Figure>
          </p>
          {card.waits && (
            <p className="mt-1 leading-snug">
              <span className="bg-marker px-1.5 py-0.5 font-semibold text-on-marker">next</span>{" "}
              {say(card.waits, units)}
            </p>
          )}
          {card.due?.slice(0, 1).map((due) => (
            <p key={due.day} className="mt-1 leading-snug" data-due={due.day}>
              <span
                className={`px-1.5 py-0.5 font-semibold ${isPast(due.day) ? "bg-axle text-slate" : "border border-ink"}`}
              >
                {isPast(due.day) ? "overdue" : "due"} {due.day}
              </span>{" "}
              {say(due.says, units)}
            </p>
          ))}
        </div>
        <StageStrip stages={card.stages.filter((stage) => stage.needed)} />
      </Link>
    </li>
  );
}

type Stages = NonNullable<JobLine["card"]>["stages"];

/** The stages of a card in one row or two, without a hole. */
function StageStrip({ stages }: { stages: Stages }) {
  const columns = stages.length > 5 ? Math.ceil(stages.length / 2) : stages.length;
  const left = (columns - (stages.length % columns)) % columns;
  const looks = {
    settled: "bg-strip text-on-strip",
    needs_look: "bg-axle-soft",
    begun: "bg-slate",
    nothing: "bg-slate",
  };
  return (
    <ol
      className="grid gap-px border-line border-t bg-line text-center text-[14px]"
      style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
    >
      {stages.map((stage, index) => (
        <li
          key={stage.stage}
          className={`py-1 ${looks[stage.progress]}`}
          style={index === stages.length - 1 ? { gridColumn: `span ${left + 1}` } : undefined}
        >
          {STAGE_NAMES[stage.stage]}
          <span className="sr-only">: {stage.progress.replace("_", " ")}</span>
        </li>
      ))}
    </ol>
  );
}

/** Where work goes on: the first stage that is not settled. */
function nextStage(line: JobLine): string {
  const stages = line.card?.stages.filter((stage) => stage.needed);
  return stages?.find((stage) => stage.progress !== "settled")?.stage ?? "prove";
}
