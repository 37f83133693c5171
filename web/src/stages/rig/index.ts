/** What the work screen takes of this stage. */
export { RigDetail } from "./RigDetail";
export { RigStage } from "./RigStage";
