/** Edits of what was looked at, driven and agreed afterwards. */
import type { Job, Schemas } from "../../api/client";

export type Proof = Schemas["Proof"];

export type Finding = Schemas["Finding"];

type Accepted = { because: string; by?: string | undefined; at: string };

/** Accepts one finding, as it reads now: why, by whom, when. An empty reason takes it back. */
export const accept = (finding: Pick<Finding, "key">, said: string, { because, by, at }: Accepted) =>
  setProof((proof) => {
    const others = (proof.acceptances ?? []).filter(({ key }) => key !== finding.key);
    const who = by ?? proof.by;
    const accepted = { key: finding.key, said, because, ...(who && { by: who }), at };
    return { acceptances: because.trim() === "" ? others : [...others, accepted] };
  });

type Round = Schemas["Round"];
type EyeOff = Schemas["EyeOff"];
type End = Schemas["BracketEnd"];

/** Where in the adjustments an eye was moved last. */
export function lastMove(job: Job, end: End) {
  const rounds = job.setups?.rounds ?? [];
  for (let round = rounds.length - 1; round >= 0; round -= 1) {
    const moved = (rounds[round]?.moved ?? []).findLastIndex((eye) => eye.end === end);
    const eye = rounds[round]?.moved?.[moved];
    if (eye) return { round, moved, eye };
  }
  return undefined;
}

const changeRound =
  (place: number, part: (round: Round) => Partial<Round>) =>
  (job: Job): Job => {
    const rounds = (job.setups?.rounds ?? []).map((round, at) =>
      at === place ? { ...round, ...part(round) } : round,
    );
    return { ...job, setups: { ...job.setups, rounds } };
  };

/** Where an eye really sits that was moved in an adjustment; what is left empty is as planned. */
export const setOff = (place: number, moved: number, off: EyeOff) =>
  changeRound(place, (round) => ({
    moved: (round.moved ?? []).map((eye, at) =>
      at === moved ? { ...eye, off: { ...eye.off, ...off } } : eye,
    ),
  }));

/** What made the axle move otherwise than predicted; nothing where it is not known. */
export const setCause = (place: number, cause: Round["cause"] | undefined) =>
  changeRound(place, () => ({ cause }));

export const setDragLink = (place: number, drag_link_length: Round["drag_link_length"]) =>
  changeRound(place, () => ({ drag_link_length }));

export const setProof =
  (part: Partial<Proof> | ((proof: Proof) => Partial<Proof>)) =>
  (job: Job): Job => {
    const proof = job.proof ?? {};
    return { ...job, proof: { ...proof, ...(typeof part === "function" ? part(proof) : part) } };
  };
