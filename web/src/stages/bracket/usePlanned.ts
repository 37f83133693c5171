import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { create } from "zustand";
import {
  answer,
  client,
  type Job,
  type Part,
  type PlanForm,
  type PlanOption,
  type PlanResult,
} from "../../api/client";
import { newId } from "../../job/ids";
import { useJob } from "../../job/useJob";

/** The lists of a job's tried parts, by kind. */
export const LISTS = { bar: "bars", bracket: "brackets", joint: "joints", drag_link: "drag_links" } as const;
export type Tried = Extract<Part, { kind: keyof typeof LISTS }>;

/** A library's part as a row of a job, with ids that plans can point at. */
function asRow(part: Tried): Tried {
  switch (part.kind) {
    case "bracket": {
      const holes = (part.holes ?? []).map((hole) => ({ ...hole, id: newId("hole") }));
      return { ...part, id: newId("bracket"), holes };
    }
    case "bar":
    case "drag_link":
      return { ...part, id: newId(part.kind) };
    case "joint":
      return part;
  }
}

/** A part of the library held against this axle, without being taken in; it belongs to this window. */
export const useHeld = create<{ part: Tried | null; hold: (part: Tried | null) => void }>()((set) => ({
  part: null,
  hold: (part) => set({ part: part && asRow(part) }),
}));

/** By which plans point at a part; none for a joint, and for one that is in the library alone. */
const idOf = (part: Tried | null): string | undefined => (part && "id" in part ? part.id : undefined);

/** The job with a part among those it tries. */
export const withPart =
  (part: Tried) =>
  (job: Job): Job => {
    const { kind, ...row } = idOf(part) ? part : asRow(part);
    const list = LISTS[kind];
    return { ...job, bracket: { ...job.bracket, [list]: [...(job.bracket?.[list] ?? []), row] } };
  };

/** The plan of the job in view, worked out by the server; what was there stays until the new is. */
export function usePlanned(): PlanResult | undefined {
  const { view } = useJob();
  const held = useHeld((s) => s.part);
  const { data } = useQuery({
    queryKey: ["plan", view.id, view.revision, held?.kind, idOf(held) ?? held?.name],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryFn: async () => {
      const result = await answer(
        client.POST("/api/v1/compute/plan", { body: held ? withPart(held)(view.document) : view.document }),
      );
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}

/** Options that the plan has but did not tell with its first page; `more` fetches the next. */
export function useMoreOptions(plan: PlanResult) {
  const { view } = useJob();
  const [pages, setPages] = useState({ revision: view.revision, options: [] as PlanOption[] });
  const options = pages.revision === view.revision ? pages.options : [];
  // Pages follow each other; what is chosen or kept may stand beside them whatever its rank.
  const ranks = new Set([...plan.options, ...options].map((o) => o.rank));
  let reported = 0;
  while (ranks.has(reported + 1)) reported += 1;
  const left = plan.options_in_all - reported;
  const more = async () => {
    const { document: body, revision } = view;
    const result = await answer(
      client.POST("/api/v1/compute/plan", { body, params: { query: { from: reported } } }),
    );
    if ("data" in result) {
      const known = new Set([...plan.options, ...options].map(keyOf));
      setPages({
        revision,
        options: [...options, ...result.data.options.filter((o) => !known.has(keyOf(o)))],
      });
    }
  };
  return { options, left, more };
}

/** The option looked at, by its key; null is the chosen or best one. */
export const useLookedAt = create<{ key: string | null; look: (key: string | null) => void }>()((set) => ({
  key: null,
  look: (key) => set({ key }),
}));

const holeKey = (hole: PlanOption["plan"]["axle"]) => `${hole?.bracket ?? ""}|${hole?.hole ?? ""}`;

export const keyOf = ({ plan }: { plan: PlanForm }) =>
  `${holeKey(plan.axle)}|${holeKey(plan.frame)}|${plan.bar ?? ""}`;

/** The option looked at: taken up, else the one chosen in the job as it is now, else the one the answer speaks of. */
export function lookedAt(
  plan: PlanResult | undefined,
  key: string | null,
  chosen: PlanForm | undefined,
): PlanOption | undefined {
  const options = plan?.options ?? [];
  const held = idOf(useHeld.getState().part);
  if (held && key === null) {
    const of = options.filter(
      ({ plan: p }) => p.bar === held || p.axle?.bracket === held || p.frame?.bracket === held,
    );
    const best = of.sort((a, b) => a.rank - b.rank)[0];
    if (best) return best;
  }
  // The answer may still be that to the choice before: a key pressed meanwhile goes on from this one.
  const wanted = key ?? (chosen && keyOf({ plan: chosen }));
  return options.find((o) => keyOf(o) === wanted) ?? options[plan?.pick ?? 0];
}
