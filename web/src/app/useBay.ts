import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { answer, client, type JobLine } from "../api/client";

/** Jobs fetched at a time. */
const PAGE = 60;

/** Both ends of one vehicle stand side by side, where the first of them stands. */
function together(lines: JobLine[]): JobLine[] {
  const vehicles = new Map<string, JobLine[]>();
  for (const line of lines) {
    const name = line.card?.vehicle.trim().toLowerCase() || line.id;
    vehicles.set(name, [...(vehicles.get(name) ?? []), line]);
  }
  return [...vehicles.values()].flat();
}

/** The jobs that hold a text, most urgent first, a page after the other. */
export function useBay(search: string) {
  const jobs = useInfiniteQuery({
    queryKey: ["jobs", search],
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: async ({ pageParam: offset }) => {
      const query = { search, limit: PAGE, offset, order: "waiting_first" as const };
      const result = await answer(client.GET("/api/v1/jobs", { params: { query } }));
      if (!("data" in result)) throw new Error("no answer");
      return result.data;
    },
    getNextPageParam: (last, pages) => {
      const reported = pages.reduce((sum, page) => sum + page.jobs.length, 0);
      return last.jobs.length > 0 && reported < last.total ? reported : undefined;
    },
  });
  // Page by page, so that a card stays where it is when the next page comes.
  const lines = jobs.data?.pages.flatMap((page) => together(page.jobs)) ?? [];
  return { jobs, lines, total: jobs.data?.pages[0]?.total ?? 0 };
}
