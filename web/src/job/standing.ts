/** What of the register counts towards closing a job. Which finding that is the core decided; here it is picked. */
import type { Results, Schemas, StageName } from "../api/client";

type Finding = Schemas["Finding"];

/** What has to be put right or accepted before a job is closed. */
export const countsOf = (findings: readonly Finding[]) =>
  findings.filter((finding) => finding.weight !== "comfort" && finding.verdict !== "close");

/** Whether somebody accepted it with a reason. */
export const isAccepted = (finding: Finding) => finding.acceptable && finding.accepted !== undefined;

/** What of a screen stands in the way of closing the job: what fails there, and once it is proved what is open there too.
 * What is off the vehicle is meant to be while the work goes on. */
export const standingIn = ({ findings, status }: Pick<Results, "findings" | "status">, stage: StageName) =>
  countsOf(findings).filter(
    (finding) =>
      finding.stage === stage &&
      !isAccepted(finding) &&
      (status.state === "proved" || (finding.verdict === "fails" && finding.kind !== "still_off")),
  );
