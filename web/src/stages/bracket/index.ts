/** What the work screen takes of this stage. */

export { ApproachPlot } from "./ApproachPlot";
export { BracketDetail } from "./BracketDetail";
export { BracketStage } from "./BracketStage";
export { HoleGhosts } from "./HoleGhosts";
