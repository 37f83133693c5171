/** What the work screen takes of this stage. */

export { BoltUpCanvas } from "./BoltUpCanvas";
export { BoltUpStage } from "./BoltUpStage";
