import { useState } from "react";
import type { Part } from "../../api/client";
import { Button } from "../../ui/Button";

type Field = { name: string; label: string; hint?: string; choices?: readonly string[] };

const HANDS = ["", "right", "left"] as const;
const LENGTH = "with its unit, such as 30 1/2 in";
const JOINTS = ["rubber", "polyurethane", "spherical", "spherical_high_misalignment"] as const;

/** The fields of each kind of part, as its columns in a table. */
const FIELDS = {
  bar: [
    { name: "adjuster", label: "Adjuster", choices: ["", "fixed", "one_end", "turnbuckle"] },
    { name: "made_min", label: "Shortest", hint: LENGTH },
    { name: "made_max", label: "Longest", hint: LENGTH },
    { name: "thread", label: "Thread, frame end or only one", hint: "such as 1-1/4-12" },
    { name: "hand", label: "It is cut", choices: HANDS },
    { name: "second_thread", label: "Thread, axle end", hint: "as the other where empty" },
    { name: "second_hand", label: "It is cut, axle end", choices: HANDS },
    { name: "shank", label: "Thread on each shank", hint: LENGTH },
    { name: "tapped_depth", label: "Depth in the body", hint: LENGTH },
    { name: "seat", label: "Threads sit in", choices: ["steel", "welded_adapter", "aluminium"] },
    { name: "least_engagement", label: "Least thread in, by its maker", hint: LENGTH },
    {
      name: "end_style",
      label: "Through a one-end bar's eye",
      choices: ["through_bolt", "ball_stud", "one_way_up"],
    },
    { name: "frame_joint", label: "Frame joint", choices: JOINTS },
    { name: "axle_joint", label: "Axle joint", choices: JOINTS },
    { name: "outside", label: "Outside diameter", hint: LENGTH },
    { name: "wall", label: "Wall; solid where empty", hint: LENGTH },
    {
      name: "material",
      label: "Material",
      choices: ["seamless_tube", "welded_tube", "chrome_moly_tube", "cold_rolled_solid", "forged"],
    },
    { name: "bend", label: "Bend out of the line", hint: LENGTH },
  ],
  bracket: [
    { name: "end", label: "End", choices: ["axle", "frame"] },
    { name: "holes", label: "Holes", hint: "hole 1: 2 in; hole 2: 3 in, outward 1/2 in" },
    { name: "attachment", label: "Held by", choices: ["bolt_on", "weld_on"] },
    { name: "attachment_spacing", label: "Between its attachments", hint: LENGTH },
    { name: "comes_off_first", label: "What comes off first" },
  ],
  joint: [
    { name: "joint", label: "Joint", choices: JOINTS },
    { name: "width", label: "Width between the ears", hint: LENGTH },
    { name: "bolt", label: "Bolt", hint: LENGTH },
    { name: "thread", label: "Thread" },
  ],
  drag_link: [
    { name: "raises_axle_end", label: "Raises the axle end by", hint: LENGTH },
    { name: "drops_pitman_end", label: "Drops the pitman end by", hint: LENGTH },
  ],
  brace: [
    { name: "below_rail", label: "Holds the bracket so far below the rail", hint: LENGTH },
    { name: "length", label: "Between its bolts", hint: LENGTH },
  ],
  shim: [{ name: "thickness", label: "Thickness", hint: LENGTH }],
  sway_bar: [
    { name: "outside", label: "Outside diameter", hint: LENGTH },
    { name: "bore", label: "Bore; solid where empty", hint: LENGTH },
    { name: "active_length", label: "Length that twists", hint: LENGTH },
    { name: "arm", label: "Arm, axis to the link's eye", hint: LENGTH },
  ],
  sway_link: [
    { name: "made_min", label: "Shortest", hint: LENGTH },
    { name: "made_max", label: "Longest", hint: LENGTH },
    { name: "thread", label: "Thread" },
  ],
  disconnect: [
    { name: "thread", label: "Stud's thread", hint: "such as 1/2-20" },
    { name: "nut_thread", label: "Nut's thread" },
  ],
  fastener: [
    { name: "thread", label: "Thread", hint: "such as 9/16-18" },
    {
      name: "grade",
      label: "Marked on its head",
      choices: ["", "grade_5", "grade_8", "8.8", "10.9", "12.9"],
    },
    { name: "length", label: "Length under its head", hint: LENGTH },
    {
      name: "nut",
      label: "Its nut",
      choices: ["", "plain", "nylon_insert", "crushed", "flanged", "tab", "captive", "welded", "castle"],
    },
    { name: "nut_thread", label: "The nut's thread" },
    {
      name: "treatment",
      label: "Its thread is",
      choices: ["", "dry", "threadlocker", "oiled", "anti_seize"],
    },
    { name: "torque", label: "Torque, as its maker gives it", hint: "such as 120 lb-ft" },
  ],
  kit: [
    { name: "holds", label: "What is in it", hint: "2 × spacer; 1 × crush sleeve" },
    {
      name: "fasteners",
      label: "Fasteners, each in its place",
      hint: "frame/main: 9/16-18, grade_8, nylon_insert, 120 lb-ft; frame/side: …",
    },
    { name: "order", label: "The maker's order, by steps", hint: "frame/by-hand; frame/main; frame/side" },
  ],
} satisfies Record<Part["kind"], readonly Field[]>;

const KINDS = {
  bar: "Bar",
  bracket: "Bracket",
  joint: "Joint or spacer",
  drag_link: "Drag-link part",
  brace: "Brace",
  shim: "Shim",
  sway_bar: "Sway bar",
  sway_link: "Sway link",
  disconnect: "Disconnect",
  fastener: "Fastener",
  kit: "Kit",
} satisfies Record<Part["kind"], string>;

export type Row = Record<string, string>;

type PartFormProps = { row: Row; fault: string; onSave: (row: Row) => void; onClose: () => void };

/** A part as the row of a table: every field typed as it would stand in the file. */
export function PartForm({ row: first, fault, onSave, onClose }: PartFormProps) {
  const [row, setRow] = useState(first);
  const kind = (row.kind ?? "bracket") as Part["kind"];
  const fields: readonly Field[] = [
    { name: "name", label: "Called" },
    ...FIELDS[kind],
    { name: "note", label: "Note" },
  ];
  const look = "min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2 text-ink";
  const put = (name: string, text: string) => setRow({ ...row, [name]: text });
  return (
    <form
      className="grid gap-2"
      data-part-form
      onSubmit={(event) => {
        event.preventDefault();
        onSave(row);
      }}
    >
      <label className="text-[15px] text-muted">
        Kind
        <select className={look} value={kind} onChange={(event) => put("kind", event.target.value)}>
          {Object.entries(KINDS).map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <div className="grid gap-x-3 gap-y-2 sm:grid-cols-2">
        {fields.map(({ name, label, hint, choices }) => (
          <div key={name} className="text-[15px] text-muted">
            <label htmlFor={`part-${name}`}>{label}</label>
            {choices ? (
              <select
                id={`part-${name}`}
                className={look}
                value={row[name] ?? choices[0]}
                onChange={(event) => put(name, event.target.value)}
              >
                {choices.map((choice) => (
                  <option key={choice} value={choice}>
                    {choice === ""
                      ? name === "adjuster"
                        ? "cut and welded to length"
                        : "not known"
                      : choice.replaceAll("_", " ")}
                  </option>
                ))}
              </select>
            ) : (
              <input
                id={`part-${name}`}
                className={look}
                value={row[name] ?? ""}
                onChange={(event) => put(name, event.target.value)}
              />
            )}
            {hint && <span className="text-[14px]">{hint}</span>}
          </div>
        ))}
      </div>
      {fault && (
        <p role="alert" className="text-axle">
          {fault}
        </p>
      )}
      <div className="flex gap-2">
        <Button type="submit" look="strong">
          Keep this part
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </form>
  );
}
