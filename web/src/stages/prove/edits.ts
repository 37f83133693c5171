/** Edits of what was looked at, driven and agreed afterwards. */
import type { Job, Schemas } from "../../api/client";

export type Proof = Schemas["Proof"];

export type Gate = Schemas["Gate"];

/** Writes why a job is settled over one thing, with that thing as it reads now; an empty reason is none. */
export const setReason = (gate: Gate, because: string) =>
  setProof((proof) => {
    const others = (proof.reasons ?? []).filter(({ key }) => key !== gate.key);
    const reason = { key: gate.key, read: gate.says.in, because };
    return { reasons: because.trim() === "" ? others : [...others, reason] };
  });

export const setProof =
  (part: Partial<Proof> | ((proof: Proof) => Partial<Proof>)) =>
  (job: Job): Job => {
    const proof = job.proof ?? {};
    return { ...job, proof: { ...proof, ...(typeof part === "function" ? part(proof) : part) } };
  };
