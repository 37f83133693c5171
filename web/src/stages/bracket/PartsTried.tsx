import { Plus, Trash2 } from "lucide-react";
import { Link } from "react-router";
import type { Part, Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { setBracketing } from "../job/edits";
import { useJob } from "../job/useJob";
import { BracketInput } from "./BracketInput";
import { useLibrary } from "./useLibrary";

type Bracketing = Schemas["Bracketing"];
const LISTS = { bar: "bars", bracket: "brackets", joint: "joints", drag_link: "drag_links" } as const;
const NAMES = { bar: "bar", bracket: "bracket", joint: "joint", drag_link: "drag-link part" } as const;

type Tried = Extract<Part, { kind: keyof typeof LISTS }>;
type Brace = Extract<Part, { kind: "brace" }>;

/** Only these are tried here; what else a library keeps is used in other stages. */
const isTried = (part: Part): part is Tried => part.kind in LISTS;

/** Parts tried in this job, each as it was when it was taken in. */
export function PartsTried() {
  const { job, change } = useJob();
  const library = useLibrary();
  const form: Bracketing = job.bracket ?? {};
  const take = (part: Tried) => {
    const { kind, ...plain } = part;
    const list = LISTS[kind];
    change(setBracketing({ [list]: [...(form[list] ?? []), plain] }));
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
          <li key={`${kind}${name}`} className="flex items-center gap-2 border-line border-b">
            <span className="flex-1">
              {name} <span className="text-muted">{NAMES[kind]}</span>
            </span>
            <Button
              look="quiet"
              aria-label={`Take ${name} out`}
              onClick={() => {
                const list = LISTS[kind];
                change(setBracketing({ [list]: (form[list] ?? []).filter((_, at) => at !== index) }));
              }}
            >
              <Trash2 size={18} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      {form.brace ? (
        <p className="flex items-center gap-2 border-line border-b">
          <span className="flex-1">
            {form.brace.name} <span className="text-muted">brace</span>
          </span>
          <Button
            look="quiet"
            aria-label={`Take ${form.brace.name} out`}
            onClick={() => change(setBracketing({ brace: undefined }))}
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
            <Button onClick={() => change(setBracketing({ brace }))} aria-label={`Try ${brace.name}`}>
              <Plus size={18} aria-hidden />
              Try
            </Button>
          </p>
        ))
      )}
      <BracketInput onAdd={(bracket) => take({ kind: "bracket", ...bracket })} />
      <Fold title={`From the library (${offered.length})`}>
        <ul>
          {offered.map(({ id, part }) => (
            <li key={id} className="flex items-center gap-2 border-line border-b py-1">
              <span className="flex-1">
                {part.name} <span className="text-muted">{NAMES[part.kind]}</span>
              </span>
              <Button onClick={() => take(part)} aria-label={`Try ${part.name}`}>
                <Plus size={18} aria-hidden />
                Try
              </Button>
            </li>
          ))}
        </ul>
        <Link className="inline-flex min-h-11 items-center underline" to="/parts">
          Open the parts library
        </Link>
      </Fold>
    </section>
  );
}
