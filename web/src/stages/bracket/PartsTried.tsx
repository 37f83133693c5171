import { Hand, Plus, Trash2 } from "lucide-react";
import { Link } from "react-router";
import type { Part, Schemas } from "../../api/client";
import { setBracketing } from "../../job/edits";
import { InstalledHere } from "../../job/InstalledHere";
import { planPart } from "../../job/installs";
import { useJob } from "../../job/useJob";
import { PartPicture } from "../../parts/PartPicture";
import { sketchOf } from "../../parts/sketch";
import { useLibrary } from "../../parts/useLibrary";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { BracketInput } from "./BracketInput";
import { FirstBracket } from "./FirstBracket";
import { LISTS, type Tried, useHeld, useLookedAt, withPart } from "./usePlanned";

type Bracketing = Schemas["Bracketing"];
const NAMES = { bar: "bar", bracket: "bracket", joint: "joint", drag_link: "drag-link part" } as const;

type Brace = Extract<Part, { kind: "brace" }>;

/** Only these are tried here; what else a library keeps is used in other stages. */
const isTried = (part: Part): part is Tried => part.kind in LISTS;

const ENDS = optionsOf<Schemas["BracketEnd"] | "either">({
  either: "either eye",
  frame: "frame eye",
  axle: "axle eye",
});

/** Which eye a joint goes in: those of one eye are not counted at the other. */
function JointEnd({ index }: { index: number }) {
  const { job, change } = useJob();
  const joints = job.bracket?.joints ?? [];
  const pick = (end: Schemas["BracketEnd"] | "either") =>
    change(
      setBracketing({
        joints: joints.map((joint, at) =>
          at === index ? { ...joint, end: end === "either" ? undefined : end } : joint,
        ),
      }),
    );
  return (
    <Choice
      label="Goes in"
      pointer={`/bracket/joints/${index}/end`}
      value={joints[index]?.end ?? "either"}
      options={ENDS}
      onPick={pick}
    />
  );
}

/** Parts tried in this job, each as it was when it was taken in. */
export function PartsTried() {
  const { job, change } = useJob();
  const { parts: library } = useLibrary();
  const form: Bracketing = job.bracket ?? {};
  const { part: held, hold } = useHeld();
  const look = useLookedAt((state) => state.look);
  const take = (part: Tried) => {
    change(withPart(part));
    hold(null);
  };
  const tried = (Object.keys(LISTS) as (keyof typeof LISTS)[]).flatMap((kind) =>
    (form[LISTS[kind]] ?? []).map((part, index) => ({ kind, index, name: part.name })),
  );
  const used = library.filter(({ retired }) => !retired).map(({ id, part }) => ({ id, part }));
  const offered = used.flatMap(({ id, part }) =>
    isTried(part) && !tried.some((t) => t.kind === part.kind && t.name === part.name) ? [{ id, part }] : [],
  );
  const braces = used.map(({ part }) => part).filter((part): part is Brace => part.kind === "brace");
  return (
    <section className="grid gap-2">
      <ul>
        {tried.map(({ kind, index, name }) => (
          <li
            key={`${kind}${name}`}
            className="flex flex-wrap items-center gap-2 border-line border-b py-0.5"
          >
            <span className="flex-1">
              {name} <span className="text-muted">{NAMES[kind]}</span>
            </span>
            <Button
              look="quiet"
              aria-label={`Remove ${name}`}
              onClick={() => {
                const list = LISTS[kind];
                change(setBracketing({ [list]: (form[list] ?? []).filter((_, at) => at !== index) }));
              }}
            >
              <Trash2 size={18} aria-hidden />
            </Button>
            {kind === "joint" && (
              <div className="basis-full pb-1">
                <JointEnd index={index} />
              </div>
            )}
          </li>
        ))}
      </ul>
      {form.brace && <InstalledHere part="brace" label="The brace gets installed in this job" />}
      {form.brace ? (
        <p className="flex items-center gap-2 border-line border-b">
          <span className="flex-1">
            {form.brace.name} <span className="text-muted">brace</span>
          </span>
          <Button
            look="quiet"
            aria-label={`Remove ${form.brace.name}`}
            onClick={() =>
              change((old) => planPart("brace", undefined)(setBracketing({ brace: undefined })(old)))
            }
          >
            <Trash2 size={18} aria-hidden />
          </Button>
        </p>
      ) : (
        braces.map(({ kind: _, ...brace }) => (
          <p key={brace.name} className="flex items-center gap-2 border-line border-b py-1">
            <span className="flex-1">
              {brace.name} <span className="text-muted">brace</span>
            </span>
            <Button
              onClick={() => change((old) => planPart("brace", true)(setBracketing({ brace })(old)))}
              aria-label={`Add ${brace.name}`}
            >
              <Plus size={18} aria-hidden />
              Add
            </Button>
          </p>
        ))
      )}
      <FirstBracket />
      <BracketInput onAdd={(bracket) => take({ kind: "bracket", ...bracket })} />
      <Fold title={`From the library (${offered.length})`}>
        <ul>
          {offered.map(({ id, part }) => (
            <Offered
              key={id}
              part={part}
              held={held?.name === part.name && held.kind === part.kind}
              onHold={(on) => {
                look(null);
                hold(on ? part : null);
              }}
              onTake={() => take(part)}
            />
          ))}
        </ul>
        <Link className="inline-flex min-h-11 items-center underline" to="/parts">
          Open the parts library
        </Link>
      </Fold>
    </section>
  );
}

type OfferedProps = { part: Tried; held: boolean; onHold: (on: boolean) => void; onTake: () => void };

/** A part of the library: held against this axle to see what it would do, or taken in. */
function Offered({ part, held, onHold, onTake }: OfferedProps) {
  return (
    <li className={`grid gap-1 border-line border-b py-2 ${held ? "bg-tape" : ""}`} data-offered={part.name}>
      <div className="overflow-hidden">
        <PartPicture sketch={sketchOf(part)} k={0.2} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="min-w-0 flex-1 leading-tight">
          {part.name} <span className="text-muted">{NAMES[part.kind]}</span>
        </span>
        {(part.kind === "bar" || part.kind === "bracket") && (
          <Button
            aria-pressed={held}
            aria-label={`${held ? "Take away" : "Try on"} ${part.name}`}
            onClick={() => onHold(!held)}
          >
            <Hand size={18} aria-hidden />
            {held ? "Take away" : "Try on"}
          </Button>
        )}
        <Button onClick={onTake} aria-label={`Add ${part.name}`}>
          <Plus size={18} aria-hidden />
          Add
        </Button>
      </div>
    </li>
  );
}
