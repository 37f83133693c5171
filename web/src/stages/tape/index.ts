/** What the work screen takes of this stage. */
export { TapeDetail } from "./TapeDetail";
export { TapeStage } from "./TapeStage";
