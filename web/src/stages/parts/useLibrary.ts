import { useQuery } from "@tanstack/react-query";
import { answer, client, type PartView } from "../../api/client";

/** The parts library. */
export function useLibrary(): readonly PartView[] {
  const { data } = useQuery({
    queryKey: ["parts"],
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/parts"));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data ?? [];
}
