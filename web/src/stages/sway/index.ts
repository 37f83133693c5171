/** What the work screen takes of this stage. */

export { SwayCanvas } from "./SwayCanvas";
export { SwayStage } from "./SwayStage";
