/** What the work screen takes of this stage. */

export { CycleCanvas } from "./CycleCanvas";
export { CycleStage } from "./CycleStage";
