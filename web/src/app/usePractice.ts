import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, client, type Schemas } from "../api/client";

export type Act = Schemas["Act"];
export type Debriefing = Schemas["Debriefing"];

export const isPractice = (job: string) => job.startsWith("practice-");

/** A lesson under way, and what is done to its vehicle. */
export function usePractice(job: string) {
  const queries = useQueryClient();
  const key = ["practice", job];
  const params = { path: { job } };
  const { data, error } = useQuery({
    queryKey: key,
    retry: false,
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/practice/{job}", { params }));
      if ("data" in result) return result.data;
      throw new Error("problem" in result ? result.problem.detail : "No answer yet.");
    },
  });
  const act = useMutation({
    mutationFn: async (body: Act) => {
      const result = await answer(client.POST("/api/v1/practice/{job}/act", { params, body }));
      if ("data" in result) queries.setQueryData(key, result.data);
    },
  });
  const done = useMutation({
    mutationFn: async () => {
      const result = await answer(client.POST("/api/v1/practice/{job}/done", { params }));
      if ("data" in result) return result.data;
      throw new Error("problem" in result ? result.problem.detail : "No answer yet.");
    },
  });
  return { lesson: data, gone: error?.message, act: act.mutate, done };
}
