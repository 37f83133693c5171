import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { create } from "zustand";
import { answer, type CycleResult, client, type Job, type Schemas } from "../api/client";
import { useJob } from "./useJob";

type Trial = Schemas["PlanForm"];

/** Holes tried while an eye is in the hand; null is what the job says. */
export const useTrial = create<{ trial: Trial | null; set: (trial: Trial | null) => void }>()((set) => ({
  trial: null,
  set: (trial) => set({ trial }),
}));

/** The axle of the job in view, cycled by the server; what was there stays until the new is. */
export function useCycled(): CycleResult | undefined {
  const { view } = useJob();
  const trial = useTrial((s) => s.trial);
  const { data } = useQuery({
    queryKey: ["cycle", view.id, view.revision, trial],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    // An envelope is large: only the last few are worth keeping.
    gcTime: 20_000,
    queryFn: async () => {
      const body: Job = trial
        ? {
            ...view.document,
            setups: { ...view.document.setups, plans: { ...view.document.setups?.plans, trial } },
          }
        : view.document;
      const result = await answer(client.POST("/api/v1/compute/cycle", { body }));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}
