/** What the work screen takes of this stage. */
export { BracketDetail } from "./BracketDetail";
export { BracketStage } from "./BracketStage";
export { HoleGhosts } from "./HoleGhosts";
export { SchoolPlot } from "./SchoolPlot";
