/** What the work screen takes of this stage. */
export { SwayStage } from "./SwayStage";
export { SwayWall } from "./SwayWall";
