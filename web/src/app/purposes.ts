import type { Schemas } from "../api/client";
import { optionsOf } from "../ui/Choice";

export type Purpose = Schemas["Purpose"];

/** What can be to be done, in the words of whoever brings the vehicle. */
export const PURPOSES = optionsOf<Schemas["Purpose"]>({
  centre_axle: "Center the axle after a lift or drop",
  level_bar: "Fix the track bar (Panhard rod) angle",
  clear_something: "Fix something that hits",
  fit_sway_links: "Size sway links",
  choose_sway_bar: "Choose a sway bar or quick disconnect",
  convert_to_y_link: "Convert to a Y-link",
  swap_bar: "Install a new track bar",
  check_work: "Check someone else's work",
});

const ABOUT_THE_BAR: readonly Purpose[] = [
  "centre_axle",
  "level_bar",
  "clear_something",
  "swap_bar",
  "check_work",
];

/** Whether the work turns on where the track bar is bolted to the frame. */
export const inputsForTheEye = (toDo: readonly Purpose[]) =>
  toDo.some((purpose) => ABOUT_THE_BAR.includes(purpose));

const WITHOUT_READINGS: readonly Purpose[] = ["fit_sway_links", "choose_sway_bar", "swap_bar"];

/** The screen that a new job begins on, and the field there: readings on both sides, unless the work needs none first. */
export const beginsWith = (toDo: readonly Purpose[]) =>
  toDo.some((purpose) => !WITHOUT_READINGS.includes(purpose))
    ? ({ stage: "tape", field: "/sheets/0/left/0" } as const)
    : toDo.includes("swap_bar")
      ? ({ stage: "bar", field: "/setups/found/bar/length" } as const)
      : ({ stage: "sway", field: "/sway/kind" } as const);
