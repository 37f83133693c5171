/** What the work screen takes of this stage. */
export { CycleStage } from "./CycleStage";
export { CycleWall } from "./CycleWall";
