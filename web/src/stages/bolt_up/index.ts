/** What the work screen takes of this stage. */
export { BoltUpStage } from "./BoltUpStage";
export { BoltUpWall } from "./BoltUpWall";
