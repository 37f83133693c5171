import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, client, type Schemas } from "../api/client";
import { useJob } from "./useJob";

/** Every reading of the job in view drawn within what it is good to; asked for where it is shown. */
export function useDrawn(): Schemas["Drawn"] | undefined {
  const { view } = useJob();
  const { data } = useQuery({
    queryKey: ["drawn", view.id, view.revision],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      const result = await answer(client.POST("/api/v1/compute/uncertainty", { body: view.document }));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}
