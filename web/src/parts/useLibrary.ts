import { useQuery } from "@tanstack/react-query";
import { answer, client, type PartView } from "../api/client";

type Library = { parts: readonly PartView[]; damaged: string | null };

/** The parts library, and the ids of parts that cannot be read. */
export function useLibrary(): Library {
  const { data } = useQuery({
    queryKey: ["parts"],
    queryFn: async (): Promise<Library> => {
      const call = client.GET("/api/v1/parts");
      const result = await answer(call);
      if (!("data" in result)) throw new Error("the program does not answer");
      const { response } = await call;
      return { parts: result.data, damaged: response.headers.get("X-Damaged-Parts") };
    },
  });
  return data ?? { parts: [], damaged: null };
}
