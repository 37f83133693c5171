/** Edits of what was looked at, driven and agreed afterwards. */
import type { Job, Schemas } from "../../api/client";

export type Proof = Schemas["Proof"];

export type Finding = Schemas["Finding"];

/** Writes why a job is closed over one finding, with the finding as it reads now; an empty reason is none. */
export const setReason = (finding: Pick<Finding, "key" | "says">, because: string) =>
  setProof((proof) => {
    const others = (proof.reasons ?? []).filter(({ key }) => key !== finding.key);
    const reason = { key: finding.key, read: finding.says.in, because };
    return { reasons: because.trim() === "" ? others : [...others, reason] };
  });

export const setProof =
  (part: Partial<Proof> | ((proof: Proof) => Partial<Proof>)) =>
  (job: Job): Job => {
    const proof = job.proof ?? {};
    return { ...job, proof: { ...proof, ...(typeof part === "function" ? part(proof) : part) } };
  };
