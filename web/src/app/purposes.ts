import type { Schemas } from "../api/client";

export type Purpose = Schemas["Purpose"];

/** What can be to be done, in the words of whoever brings the vehicle. */
export const PURPOSES = [
  { value: "centre_axle", label: "Centre the axle" },
  { value: "level_bar", label: "Level the bar" },
  { value: "clear_something", label: "Clear something it touches" },
  { value: "fit_sway_links", label: "Fit sway links" },
  { value: "choose_sway_bar", label: "Choose a sway bar or disconnect" },
  { value: "convert_to_y_link", label: "Convert to a Y-link" },
  { value: "check_work", label: "Check somebody's work" },
] as const satisfies readonly { value: Purpose; label: string }[];

const ABOUT_THE_BAR: readonly Purpose[] = ["centre_axle", "level_bar", "clear_something", "check_work"];

/** Whether the work turns on where the track bar is bolted to the frame. */
export const asksForTheEye = (toDo: readonly Purpose[]) =>
  toDo.some((purpose) => ABOUT_THE_BAR.includes(purpose));

/** Whether it begins with readings on both sides. */
export const beginsWithTheTape = (toDo: readonly Purpose[]) =>
  toDo.some((purpose) => purpose !== "fit_sway_links" && purpose !== "choose_sway_bar");
