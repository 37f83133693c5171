import { useEffect, useState } from "react";
import type { Part, PartView, TapeEntry } from "../api/client";
import { Button } from "../ui/Button";
import { drafts } from "../ui/drafts";
import { useSettings } from "../ui/settings";
import { TapeField } from "../ui/TapeField";
import { FIELDS, type Field, KIND_NAMES } from "./fields";
import { type HoleRow, HoleRows } from "./HoleRows";
import { PartPicture } from "./PartPicture";
import { holesText, withUnit } from "./rows";
import { type Sketch, sketchOf } from "./sketch";

export type Row = Record<string, string>;

type PartFormProps = {
  row: Row;
  /** The part it begins from, where there is one. */
  seen?: PartView | undefined;
  fault: string;
  onSave: (row: Row) => void;
  onClose: () => void;
};

const LOOK = "min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2 text-ink";

const entryOf = (part: Part | undefined, name: string): TapeEntry | undefined => {
  const value: unknown = part && (part as { [field: string]: unknown })[name];
  return typeof value === "object" && value !== null && "text" in value ? (value as TapeEntry) : undefined;
};

const NEW_HOLES: HoleRow[] = [{ name: "hole 1" }, { name: "hole 2" }];

/** A part beside its own picture: every length typed as on a tape, every hole a row that moves the hole drawn. */
export function PartForm({ row: first, seen, fault, onSave, onClose }: PartFormProps) {
  const [row, setRow] = useState(first);
  const [lengths, setLengths] = useState<Record<string, TapeEntry | undefined>>({});
  const unit = useUnit();
  const began = seen?.part;
  const [holes, setHoles] = useState<HoleRow[]>(
    began && "holes" in began && began.holes ? [...began.holes] : NEW_HOLES,
  );
  const kind = (row.kind ?? "bracket") as Part["kind"];
  const like = began?.kind === kind ? began : undefined;
  useEffect(() => () => drafts.dropUnder("library", "/part/"), []);
  const put = (name: string, text: string) => setRow({ ...row, [name]: text });
  const save = () => {
    const reported = Object.entries(lengths).map(([name, entry]) => [name, entry ? withUnit(entry) : ""]);
    onSave({
      ...row,
      kind,
      ...Object.fromEntries(reported),
      ...(kind === "bracket" && { holes: holesText(holes) }),
    });
  };
  return (
    <form
      className="grid gap-3"
      data-part-form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <div className="grid min-h-24 place-content-center overflow-x-auto border-[1.5px] border-ink bg-paper">
        <PartPicture sketch={sketchNow(row, kind, like, lengths, holes)} k={0.5} />
      </div>
      <div className="grid gap-x-3 gap-y-2 sm:grid-cols-2">
        <label className="text-[15px] text-muted">
          Kind
          <select className={LOOK} value={kind} onChange={(event) => put("kind", event.target.value)}>
            {Object.entries(KIND_NAMES).map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <Plain field={{ name: "name", label: "Name" }} row={row} onPut={put} />
      </div>
      {kind === "bracket" && <HoleRows rows={holes} unit={unit} onPut={setHoles} />}
      <div className="grid gap-x-3 gap-y-2 sm:grid-cols-2">
        {FIELDS[kind].map((field: Field) =>
          field.length ? (
            <Length
              key={field.name}
              field={field}
              value={field.name in lengths ? lengths[field.name] : entryOf(like, field.name)}
              onPut={(entry) => setLengths({ ...lengths, [field.name]: entry })}
            />
          ) : (
            <Plain key={field.name} field={field} row={row} onPut={put} />
          ),
        )}
        <Plain field={{ name: "note", label: "Note" }} row={row} onPut={put} />
      </div>
      {fault && (
        <p role="alert" className="text-axle">
          {fault}
        </p>
      )}
      <div className="flex gap-2">
        <Button type="submit" look="strong">
          Save this part
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </form>
  );
}

/** The part as it is typed so far. */
function sketchNow(
  row: Row,
  kind: Part["kind"],
  like: Part | undefined,
  lengths: Record<string, TapeEntry | undefined>,
  holes: readonly HoleRow[],
): Sketch {
  const begun = like ? sketchOf(like).mm : {};
  const typed = Object.entries(lengths).flatMap(([name, entry]) =>
    entry?.mm === undefined ? [] : [[name, entry.mm]],
  );
  return {
    kind,
    mm: { ...begun, ...Object.fromEntries(typed) },
    holes: holes.flatMap((hole) =>
      hole.up ? [{ name: hole.name, up: hole.up.mm ?? 0, outward: hole.outward?.mm ?? 0 }] : [],
    ),
    end: row.end === "frame" ? "frame" : "axle",
    adjuster: row.adjuster ?? "",
  };
}

const useUnit = () => useSettings((s) => s.units);

type LengthProps = {
  field: Field;
  value: TapeEntry | undefined;
  onPut: (entry: TapeEntry | undefined) => void;
};

function Length({ field: { name, label }, value, onPut }: LengthProps) {
  const unit = useUnit();
  return (
    <TapeField
      job="library"
      pointer={`/part/${name}`}
      label={label}
      signed
      unit={unit}
      value={value}
      onCommit={onPut}
    />
  );
}

type PlainProps = { field: Field; row: Row; onPut: (name: string, text: string) => void };

/** A choice, or words that are kept as they are typed. */
function Plain({ field: { name, label, hint, choices }, row, onPut }: PlainProps) {
  const empty = name === "adjuster" ? "cut and welded to length" : "not known";
  return (
    <div className="text-[15px] text-muted">
      <label htmlFor={`part-${name}`}>{label}</label>
      {choices ? (
        <select
          id={`part-${name}`}
          className={LOOK}
          value={row[name] ?? choices[0]}
          onChange={(event) => onPut(name, event.target.value)}
        >
          {choices.map((choice) => (
            <option key={choice} value={choice}>
              {choice === "" ? empty : choice.replaceAll("_", " ")}
            </option>
          ))}
        </select>
      ) : (
        <input
          id={`part-${name}`}
          className={LOOK}
          value={row[name] ?? ""}
          onChange={(event) => onPut(name, event.target.value)}
        />
      )}
      {hint && <span className="text-[14px]">{hint}</span>}
    </div>
  );
}
