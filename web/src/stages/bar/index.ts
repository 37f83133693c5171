/** What the work screen takes of this stage. */
export { BarDetail } from "./BarDetail";
export { BarStage } from "./BarStage";
