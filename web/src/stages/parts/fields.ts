/** The fields of each kind of part, as its columns in a table. */
import type { Part } from "../../api/client";

export type Field = {
  name: string;
  label: string;
  hint?: string;
  choices?: readonly string[];
  /** It is typed as a length. */
  length?: boolean;
};

const HANDS = ["", "right", "left"] as const;
const JOINTS = ["rubber", "polyurethane", "spherical", "spherical_high_misalignment"] as const;

export const FIELDS = {
  bar: [
    { name: "adjuster", label: "Adjuster", choices: ["", "fixed", "one_end", "turnbuckle"] },
    { name: "made_min", label: "Shortest", length: true },
    { name: "made_max", label: "Longest", length: true },
    { name: "thread", label: "Thread, frame end or only one", hint: "such as 1-1/4-12" },
    { name: "hand", label: "It is cut", choices: HANDS },
    { name: "second_thread", label: "Thread, axle end", hint: "as the other where empty" },
    { name: "second_hand", label: "It is cut, axle end", choices: HANDS },
    { name: "shank", label: "Thread on each shank", length: true },
    { name: "tapped_depth", label: "Depth in the body", length: true },
    { name: "seat", label: "Threads sit in", choices: ["steel", "welded_adapter", "aluminium"] },
    { name: "least_engagement", label: "Least thread in, by its maker", length: true },
    {
      name: "end_style",
      label: "Through a one-end bar's eye",
      choices: ["through_bolt", "ball_stud", "one_way_up"],
    },
    { name: "frame_joint", label: "Frame joint", choices: JOINTS },
    { name: "axle_joint", label: "Axle joint", choices: JOINTS },
    { name: "outside", label: "Outside diameter", length: true },
    { name: "wall", label: "Wall; solid where empty", length: true },
    {
      name: "material",
      label: "Material",
      choices: ["seamless_tube", "welded_tube", "chrome_moly_tube", "cold_rolled_solid", "forged"],
    },
    { name: "bend", label: "Bend out of the line", length: true },
  ],
  bracket: [
    { name: "end", label: "End", choices: ["axle", "frame"] },
    { name: "attachment", label: "Held by", choices: ["bolt_on", "weld_on"] },
    { name: "attachment_spacing", label: "Between its attachments", length: true },
    { name: "comes_off_first", label: "What comes off first" },
  ],
  joint: [
    { name: "joint", label: "Joint", choices: JOINTS },
    { name: "width", label: "Width between the ears", length: true },
    { name: "bolt", label: "Bolt", length: true },
    { name: "thread", label: "Thread" },
  ],
  drag_link: [
    { name: "raises_axle_end", label: "Raises the axle end by", length: true },
    { name: "drops_pitman_end", label: "Drops the pitman end by", length: true },
  ],
  brace: [
    { name: "below_rail", label: "Holds the bracket so far below the rail", length: true },
    { name: "length", label: "Between its bolts", length: true },
  ],
  shim: [{ name: "thickness", label: "Thickness", length: true }],
  sway_bar: [
    { name: "outside", label: "Outside diameter", length: true },
    { name: "bore", label: "Bore; solid where empty", length: true },
    { name: "active_length", label: "Length that twists", length: true },
    { name: "arm", label: "Arm, axis to the link's eye", length: true },
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
      label: "Marked on its head",
      choices: ["", "grade_5", "grade_8", "8.8", "10.9", "12.9"],
    },
    { name: "length", label: "Length under its head", length: true },
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

export const KIND_NAMES = {
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
