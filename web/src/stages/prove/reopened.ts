/** Why a closed job is open again: what its record says otherwise than it does now. Picked, not judged. */
import type { Job, Results, Schemas } from "../../api/client";
import { isAccepted } from "../../job/standing";

type Phrase = Schemas["Phrase"];

/** What was so when it was closed, and what is now; `before` is left out of what is new. */
export type Difference = { before?: Phrase; now: Phrase };

const same = (a: Phrase | undefined, b: Phrase | undefined) => a?.in === b?.in && a?.mm === b?.mm;

/** The record holds the results as they were, of whichever version closed it. */
type Recorded = {
  prove?: { says?: Phrase };
  stages?: { stage: string; headline: Phrase }[];
  findings?: { key: string }[];
};

export function whyReopened(job: Job, results: Results): Difference[] {
  if (!job.settled || results.settled_stands !== false) return [];
  const then = job.settled.results as Recorded;
  const found: Difference[] = [];
  const now = results.prove?.says;
  if (now && then.prove?.says && !same(now, then.prove.says)) found.push({ before: then.prove.says, now });
  const known = new Set(then.findings?.map(({ key }) => key));
  for (const finding of results.findings) {
    const stands = finding.weight !== "comfort" && finding.verdict !== "close" && !isAccepted(finding);
    if (stands && !known.has(finding.key)) found.push({ now: finding.says });
  }
  if (found.length > 0) return found;
  return results.stages.flatMap(({ stage, headline }) => {
    const before = then.stages?.find((other) => other.stage === stage)?.headline;
    return before && !same(before, headline) ? [{ before, now: headline }] : [];
  });
}
