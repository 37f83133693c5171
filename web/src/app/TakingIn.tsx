import { useQuery } from "@tanstack/react-query";
import { answer, client } from "../api/client";

const AGAIN_MS = 500;

/** How far a zip of jobs that is taken in is. */
export function TakingIn() {
  const { data } = useQuery({
    queryKey: ["taking in"],
    refetchInterval: AGAIN_MS,
    gcTime: 0,
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/shop.zip/progress"));
      return "data" in result ? result.data : null;
    },
  });
  return (
    <p role="status" className="font-semibold" data-taking-in>
      {data && data.of > 0
        ? `${data.done.toLocaleString("en-GB")} of ${data.of.toLocaleString("en-GB")} job files looked through…`
        : "The zip is sent…"}
    </p>
  );
}
