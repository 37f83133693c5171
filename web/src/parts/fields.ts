/** The fields of each kind of part, as its columns in a table. */
import type { Part, Schemas } from "../api/client";

/** Every value of a type, in an order of choice: a new one of the library does not compile until it is here. */
const every = <T extends string>(values: Record<T, true>): T[] => Object.keys(values) as T[];

export type Field = {
  name: string;
  label: string;
  hint?: string;
  choices?: readonly string[];
  /** It is typed as a length. */
  length?: boolean;
};

const HANDS = ["", ...every<Schemas["Hand"]>({ right: true, left: true })];
const JOINTS = every<Schemas["JointKind"]>({
  rubber: true,
  polyurethane: true,
  spherical: true,
  spherical_high_misalignment: true,
});

export const FIELDS = {
  bar: [
    {
      name: "adjuster",
      label: "Adjuster",
      choices: ["", ...every<Schemas["AdjusterKind"]>({ fixed: true, one_end: true, turnbuckle: true })],
    },
    { name: "made_min", label: "Shortest", length: true },
    { name: "made_max", label: "Longest", length: true },
    { name: "thread", label: "Thread, frame end (or the only end)", hint: "such as 1-1/4-12" },
    { name: "hand", label: "Right- or left-hand", choices: HANDS },
    { name: "second_thread", label: "Thread, axle end", hint: "same as the other end if empty" },
    { name: "second_hand", label: "It is cut, axle end", choices: HANDS },
    { name: "shank", label: "Thread on each shank", length: true },
    { name: "tapped_depth", label: "Depth in the body", length: true },
    {
      name: "seat",
      label: "Screws into",
      choices: every<Schemas["ThreadSeat"]>({ steel: true, welded_adapter: true, aluminium: true }),
    },
    { name: "least_engagement", label: "Minimum thread engaged, per manufacturer", length: true },
    {
      name: "end_style",
      label: "One-end bar bolts up with",
      choices: every<Schemas["EndStyle"]>({ through_bolt: true, ball_stud: true, one_way_up: true }),
    },
    { name: "frame_joint", label: "Frame joint", choices: JOINTS },
    { name: "axle_joint", label: "Axle joint", choices: JOINTS },
    { name: "outside", label: "Outside diameter", length: true },
    { name: "wall", label: "Wall; empty = solid", length: true },
    {
      name: "material",
      label: "Material",
      choices: every<Schemas["Material"]>({
        seamless_tube: true,
        welded_tube: true,
        chrome_moly_tube: true,
        chrome_moly_solid: true,
        cold_rolled_solid: true,
        forged: true,
      }),
    },
    { name: "bend", label: "Bend offset from straight", length: true },
  ],
  bracket: [
    {
      name: "end",
      label: "Axle or frame end",
      choices: every<Schemas["BracketEnd"]>({ axle: true, frame: true }),
    },
    {
      name: "attachment",
      label: "Bolted or welded",
      choices: every<Schemas["Attachment"]>({ bolt_on: true, weld_on: true }),
    },
    { name: "attachment_spacing", label: "Distance between its mounts", length: true },
    { name: "comes_off_first", label: "What comes off first" },
  ],
  joint: [
    { name: "joint", label: "Joint", choices: JOINTS },
    {
      name: "end",
      label: "Axle or frame end; empty = either",
      choices: ["", ...every<Schemas["BracketEnd"]>({ axle: true, frame: true })],
    },
    { name: "width", label: "Width between the ears", length: true },
    { name: "bolt", label: "Bolt", length: true },
    { name: "thread", label: "Thread" },
  ],
  drag_link: [
    { name: "raises_axle_end", label: "Raises the axle end by", length: true },
    { name: "drops_pitman_end", label: "Drops the pitman end by", length: true },
  ],
  brace: [
    { name: "below_rail", label: "Holds the bracket this far below the rail", length: true },
    { name: "length", label: "Between its bolts", length: true },
  ],
  shim: [{ name: "thickness", label: "Thickness", length: true }],
  sway_bar: [
    { name: "outside", label: "Outside diameter", length: true },
    { name: "bore", label: "Bore; empty = solid", length: true },
    { name: "active_length", label: "Active (twisting) length", length: true },
    { name: "arm", label: "Arm length, bar center to sway link hole", length: true },
  ],
  sway_link: [
    { name: "made_min", label: "Shortest", length: true },
    { name: "made_max", label: "Longest", length: true },
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
      label: "Head marking",
      choices: [
        "",
        ...every<Schemas["Grade"]>({ grade_5: true, grade_8: true, "8.8": true, "10.9": true, "12.9": true }),
      ],
    },
    { name: "length", label: "Bolt length under the head", length: true },
    {
      name: "nut",
      label: "Its nut",
      choices: [
        "",
        ...every<Schemas["NutKind"]>({
          plain: true,
          nylon_insert: true,
          crushed: true,
          flanged: true,
          tab: true,
          captive: true,
          welded: true,
          castle: true,
        }),
      ],
    },
    { name: "nut_thread", label: "The nut's thread" },
    {
      name: "treatment",
      label: "Its thread is",
      choices: [
        "",
        ...every<Schemas["ThreadTreatment"]>({
          dry: true,
          threadlocker: true,
          oiled: true,
          anti_seize: true,
        }),
      ],
    },
    { name: "torque", label: "Torque, per manufacturer", hint: "such as 120 lb-ft" },
  ],
  kit: [
    { name: "holds", label: "What is in it", hint: "2 × spacer; 1 × crush sleeve" },
    {
      name: "fasteners",
      label: "Fasteners, each with where it goes",
      hint: "frame/main: 9/16-18, grade_8, nylon_insert, 120 lb-ft; frame/side: …",
    },
    {
      name: "order",
      label: "Manufacturer's sequence, by steps",
      hint: "frame/by-hand; frame/main; frame/side",
    },
  ],
} satisfies Record<Part["kind"], readonly Field[]>;

export const KIND_NAMES = {
  bar: "Bar",
  bracket: "Bracket",
  joint: "Joint or spacer",
  drag_link: "Drag link part",
  brace: "Brace",
  shim: "Shim",
  sway_bar: "Sway bar",
  sway_link: "Sway link",
  disconnect: "Disconnect",
  fastener: "Fastener",
  kit: "Kit",
} satisfies Record<Part["kind"], string>;
