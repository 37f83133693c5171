import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { create } from "zustand";
import { answer, client, type Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";

export type WorkResult = Schemas["WorkResult"];
export type StepLine = Schemas["StepLine"];
export type FastenerLine = Schemas["FastenerLine"];

/** The plan of work of the job in view, worked out by the server; what was there stays until the new is. */
export function useWorked(): WorkResult | undefined {
  const { view } = useJob();
  const { data } = useQuery({
    queryKey: ["work", view.id, view.revision],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryFn: async () => {
      const result = await answer(client.POST("/api/v1/compute/work", { body: view.document }));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}

/** How long steps take in this shop, by what is on record: minutes by a step's key. */
export function useStepTimes(): ReadonlyMap<string, number> | undefined {
  const { data } = useQuery({
    queryKey: ["step times"],
    staleTime: 60_000,
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/step-times"));
      return new Map("data" in result ? result.data.map((time) => [time.key, time.minutes]) : []);
    },
  });
  return data;
}

/** The time of a step; holes are all of one kind. */
export const timeOf = (times: ReadonlyMap<string, number>, key: string) =>
  times.get(key.startsWith("drill/") ? "drill" : key);

/** The step that is open, by its key; null is the next one. */
export const useOpenStep = create<{ key: string | null; look: (key: string | null) => void }>()((set) => ({
  key: null,
  look: (key) => set({ key }),
}));

/** The open step, and its place in the order. */
export function openStep(worked: WorkResult, key: string | null): { step: StepLine; number: number } | null {
  const wanted = worked.steps.some((step) => step.key === key) ? key : (worked.next ?? null);
  const index = worked.steps.findIndex((step) => step.key === wanted);
  const step = worked.steps[index];
  return step ? { step, number: index + 1 } : null;
}
