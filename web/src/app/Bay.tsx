import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import {
  Download,
  FolderOpen,
  GraduationCap,
  Moon,
  NotebookPen,
  Plus,
  Search,
  Sun,
  Upload,
  Wrench,
} from "lucide-react";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, client, type Job, type JobLine, type Problem } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSettings } from "../ui/settings";
import { JobCard } from "./JobCard";
import { takeShop } from "./shopCalls";

const EMPTY = (unit: "in" | "mm"): Job => ({
  format: "derecho-job",
  version: 1,
  title: "New job",
  rig: { sheet_unit: unit },
});

/** Both ends of one vehicle stand side by side, where the one that was saved last stands. */
function together(lines: JobLine[]): JobLine[] {
  const vehicles = new Map<string, JobLine[]>();
  for (const line of lines) {
    const name = line.card?.vehicle.trim().toLowerCase() || line.id;
    vehicles.set(name, [...(vehicles.get(name) ?? []), line]);
  }
  return [...vehicles.values()].flat();
}

/** Jobs fetched at a time. */
const PAGE = 60;

/** The jobs in hand, what waits, and the samples. */
export function Bay() {
  const [search, setSearch] = useState("");
  const [trouble, setTrouble] = useState<Problem | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const { units, flipUnits, theme, flipTheme } = useSettings();
  const jobs = useInfiniteQuery({
    queryKey: ["jobs", search],
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: async ({ pageParam: offset }) => {
      const query = { search, limit: PAGE, offset };
      const result = await answer(client.GET("/api/v1/jobs", { params: { query } }));
      if (!("data" in result)) throw new Error("no answer");
      return result.data;
    },
    getNextPageParam: (last, pages) => {
      const told = pages.reduce((sum, page) => sum + page.jobs.length, 0);
      return last.jobs.length > 0 && told < last.total ? told : undefined;
    },
  });
  const lines = together(jobs.data?.pages.flatMap((page) => page.jobs) ?? []);
  const total = jobs.data?.pages[0]?.total ?? 0;
  const samples = useQuery({
    queryKey: ["samples"],
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/samples"));
      return "data" in result ? result.data : [];
    },
  });
  const make = useMutation({
    mutationFn: (job: Job) => answer(client.POST("/api/v1/jobs", { body: job })),
    onSuccess: (result) => {
      if ("data" in result) navigate(`/jobs/${result.data.id}/rig`);
      if ("problem" in result) setTrouble(result.problem);
      void queries.invalidateQueries({ queryKey: ["jobs"] });
    },
  });
  const openSample = useMutation({
    mutationFn: (name: string) =>
      answer(client.POST("/api/v1/samples/{name}/open", { params: { path: { name } } })),
    onSuccess: (result) => "data" in result && navigate(`/jobs/${result.data.id}/tape`),
  });
  const importFile = async (picked: File | undefined) => {
    if (!picked) return;
    if (picked.name.endsWith(".zip")) {
      const result = await takeShop(picked);
      setTrouble("problem" in result ? result.problem : null);
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      return;
    }
    try {
      make.mutate(JSON.parse(await picked.text()) as Job);
    } catch {
      setTrouble({
        type: "",
        title: "",
        status: 400,
        code: "not_json",
        detail: `${picked.name} is no job file: it is not JSON. Pick a file ending in .derecho.json.`,
      });
    }
  };
  const empty = jobs.data !== undefined && total === 0 && search === "";
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-ink border-b-2 px-4 py-2">
        <h1 className="font-bold text-[26px] leading-none tracking-tight">Derecho</h1>
        <span className="hidden text-muted md:inline">the bay: jobs in hand</span>
        <div className="ml-auto flex min-w-40 flex-1 items-center gap-2 border-[1.5px] border-ink bg-slate px-2 sm:max-w-72">
          <Search size={18} aria-hidden />
          <label htmlFor="find" className="sr-only">
            Find a job
          </label>
          <input
            id="find"
            type="search"
            className="min-h-11 w-full min-w-0 bg-transparent"
            placeholder="find a job"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        <Button
          onClick={flipUnits}
          aria-label={`units: ${units === "in" ? "inches" : "millimetres"}, switch`}
        >
          {units === "in" ? "inches" : "mm"}
        </Button>
        <Button onClick={flipTheme}>
          {theme === "paper" ? <Moon size={18} aria-hidden /> : <Sun size={18} aria-hidden />}
          <span className="max-sm:sr-only">{theme === "paper" ? "Night bay" : "Paper"}</span>
        </Button>
      </header>
      <main className="overflow-y-auto px-4 py-4">
        <div className="mx-auto grid max-w-[1240px] gap-4">
          <div className="flex flex-wrap gap-2">
            <Button look="strong" onClick={() => make.mutate(EMPTY(units))}>
              <Plus size={18} aria-hidden />
              New job
            </Button>
            <Button onClick={() => file.current?.click()}>
              <Upload size={18} aria-hidden />
              Open job files
            </Button>
            <Link
              to="/parts"
              className="settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3 py-1.5 hover:bg-paper"
            >
              <Wrench size={18} aria-hidden />
              Parts library
            </Link>
            <Link
              to="/log"
              className="settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3 py-1.5 hover:bg-paper"
            >
              <NotebookPen size={18} aria-hidden />
              The log
            </Link>
            <Link
              to="/practice"
              className="settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3 py-1.5 hover:bg-paper"
            >
              <GraduationCap size={18} aria-hidden />
              Practice
            </Link>
            <a
              href="/api/v1/shop.zip"
              download
              className="settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3 py-1.5 hover:bg-paper"
            >
              <Download size={18} aria-hidden />
              All jobs as a zip
            </a>
            <input
              ref={file}
              type="file"
              accept=".json,.zip,application/json,application/zip"
              className="hidden"
              aria-label="Job file"
              onChange={(event) => void importFile(event.target.files?.[0])}
            />
          </div>
          {trouble && (
            <Notice kind="refused">
              {trouble.detail}{" "}
              {trouble.errors
                ?.slice(0, 5)
                .map((fault) => `${fault.pointer}: ${fault.message}`)
                .join(" ")}
            </Notice>
          )}
          {jobs.isError && (
            <Notice kind="refused">
              The program does not answer. Is it still running? This page tries again by itself.
            </Notice>
          )}
          {empty && (
            <p className="text-[20px]">
              The bay is empty. Start a new job, or open a sample to see how it goes.
            </p>
          )}
          {jobs.data && lines.length === 0 && !empty && <p>No job is called that.</p>}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-3">
            {lines.map((line) => (
              <JobCard key={line.id} line={line} />
            ))}
          </ul>
          {total > 0 && (
            <p className="flex flex-wrap items-center gap-3 text-muted" data-how-many role="status">
              {lines.length < total
                ? `${lines.length} of ${total} jobs`
                : total === 1
                  ? "1 job"
                  : `${total} jobs`}
              {jobs.hasNextPage && (
                <Button disabled={jobs.isFetchingNextPage} onClick={() => void jobs.fetchNextPage()}>
                  Show more
                </Button>
              )}
            </p>
          )}
          {samples.data && samples.data.length > 0 && (
            <section className="border-line border-t pt-3">
              <h2 className="mb-2 font-semibold">
                Samples, made up: the service trucks of a fire-lookout district
              </h2>
              <ul className="flex flex-wrap gap-2">
                {samples.data.map((sample) => (
                  <li key={sample.name}>
                    <Button onClick={() => openSample.mutate(sample.name)}>
                      <FolderOpen size={18} aria-hidden />
                      {sample.title}
                    </Button>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      </main>
    </div>
  );
}
