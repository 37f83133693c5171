import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { create } from "zustand";
import { answer, client, type PlanForm, type PlanOption, type PlanResult } from "../../api/client";
import { useJob } from "../job/useJob";

/** The plan of the job in view, worked out by the server; what was there stays until the new is. */
export function usePlanned(): PlanResult | undefined {
  const { view } = useJob();
  const { data } = useQuery({
    queryKey: ["plan", view.id, view.revision],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryFn: async () => {
      const result = await answer(client.POST("/api/v1/compute/plan", { body: view.document }));
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
  let told = 0;
  while (ranks.has(told + 1)) told += 1;
  const left = plan.options_in_all - told;
  const more = async () => {
    const { document: body, revision } = view;
    const result = await answer(
      client.POST("/api/v1/compute/plan", { body, params: { query: { from: told } } }),
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
  // The answer may still be that to the choice before: a key pressed meanwhile goes on from this one.
  const wanted = key ?? (chosen && keyOf({ plan: chosen }));
  return options.find((o) => keyOf(o) === wanted) ?? options[plan?.pick ?? 0];
}
