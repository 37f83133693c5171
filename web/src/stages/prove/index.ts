/** What the work screen takes of this stage. */
export { ProveDetail } from "./ProveDetail";
export { ProveStage } from "./ProveStage";
