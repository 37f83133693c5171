/** Edits of what was looked at, driven and agreed afterwards. */
import type { Job, Schemas } from "../../api/client";

export type Proof = Schemas["Proof"];

export const setProof =
  (part: Partial<Proof> | ((proof: Proof) => Partial<Proof>)) =>
  (job: Job): Job => {
    const proof = job.proof ?? {};
    return { ...job, proof: { ...proof, ...(typeof part === "function" ? part(proof) : part) } };
  };
