import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen, Moon, Search, Sun } from "lucide-react";
import { useCallback, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Job, type Problem } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSettings } from "../ui/settings";
import { BayTools } from "./BayTools";
import { JobGrid } from "./JobGrid";
import { PurposeChoice } from "./PurposeChoice";
import type { Purpose } from "./purposes";
import { RemovedDialog } from "./RemovedDialog";
import { takeShop } from "./shopCalls";
import { TakingIn } from "./TakingIn";
import { UnsentJobs } from "./Unsent";
import { useBay } from "./useBay";

const newJob = (unit: "in" | "mm", toDo: Purpose[] = []): Job => ({
  format: "derecho-job",
  version: 1,
  title: "New job",
  rig: { sheet_unit: unit },
  ...(toDo.length > 0 && { to_do: toDo }),
});

/** The jobs in hand, what waits, and the samples. */
export function Bay() {
  const [search, setSearch] = useState("");
  const [trouble, setTrouble] = useState<Problem | null>(null);
  const [taking, setTaking] = useState(false);
  const [removedShown, showRemoved] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const scroller = useRef<HTMLElement>(null);
  const units = useSettings((s) => s.units);
  const { jobs, lines, total } = useBay(search);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = jobs;
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  const make = useMutation({
    mutationFn: ({ job }: { job: Job; to: "start" | "rig" }) =>
      answer(client.POST("/api/v1/jobs", { body: job })),
    onSuccess: (result, { to }) => {
      if ("data" in result) navigate(`/jobs/${result.data.id}/${to}`);
      if ("problem" in result) setTrouble(result.problem);
      void queries.invalidateQueries({ queryKey: ["jobs"] });
    },
  });
  const takeFile = async (picked: File | undefined) => {
    if (!picked) return;
    if (picked.name.endsWith(".zip")) {
      setTaking(true);
      const result = await takeShop(picked);
      setTaking(false);
      if ("silent" in result) setTrouble(silentShop);
      else setTrouble("problem" in result ? result.problem : null);
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      return;
    }
    try {
      make.mutate({ job: JSON.parse(await picked.text()) as Job, to: "rig" });
    } catch {
      setTrouble(notJson(picked.name));
    }
  };
  const empty = jobs.data !== undefined && total === 0 && search === "";
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
      <BayHeader search={search} onSearch={setSearch} />
      <main ref={scroller} className="relative overflow-y-auto px-4 py-4">
        <div className="mx-auto grid max-w-[1240px] gap-4">
          <BayTools
            onNew={() => make.mutate({ job: newJob(units), to: "start" })}
            onFile={(file) => void takeFile(file)}
            onRemoved={() => showRemoved(true)}
          />
          <UnsentJobs />
          {taking && <TakingIn />}
          {trouble && <Trouble problem={trouble} />}
          {jobs.isError && (
            <Notice kind="refused">
              No answer from the program. Is it still running? This page keeps trying.
            </Notice>
          )}
          {empty && (
            <Invitation onPick={(purpose) => make.mutate({ job: newJob(units, [purpose]), to: "start" })} />
          )}
          {jobs.data && lines.length === 0 && !empty && <p>No job by that name.</p>}
          {total > 0 && (
            <p className="-mb-2 text-muted" data-how-many role="status">
              {total === 1 ? "1 job" : `${total.toLocaleString("en-GB")} jobs`}, most urgent first
            </p>
          )}
          <JobGrid lines={lines} scroller={scroller} onEnd={more} />
          <Samples />
        </div>
      </main>
      <RemovedDialog open={removedShown} onOpenChange={showRemoved} />
    </div>
  );
}

const silentShop: Problem = {
  type: "",
  title: "",
  status: 0,
  code: "no_answer",
  detail:
    "No answer from the program. Either all jobs in the zip were imported or none: check the list below, and send it again if they are missing.",
};

const notJson = (name: string): Problem => ({
  type: "",
  title: "",
  status: 400,
  code: "not_json",
  detail: `${name} is not a job file. Choose a file ending in .derecho.json.`,
});

type BayHeaderProps = { search: string; onSearch: (text: string) => void };

function BayHeader({ search, onSearch }: BayHeaderProps) {
  const { units, flipUnits, theme, flipTheme } = useSettings();
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-2 border-ink border-b-2 px-4 py-2">
      <h1 className="font-bold text-[26px] leading-none tracking-tight">Derecho</h1>
      <span className="hidden text-muted md:inline">
        Center the axle and fix the track bar (Panhard rod) angle after a lift or drop
      </span>
      <div className="flex min-w-40 items-center gap-2 border-[1.5px] border-ink bg-slate px-2 max-sm:order-last max-sm:w-full sm:ml-auto sm:w-72">
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
          onChange={(event) => onSearch(event.target.value)}
        />
      </div>
      <span className="flex gap-2 max-sm:ml-auto">
        <Button onClick={flipUnits} aria-label={`Units: ${units === "in" ? "inches" : "mm"}. Switch`}>
          {units === "in" ? "inches" : "mm"}
        </Button>
        <Button onClick={flipTheme}>
          {theme === "paper" ? <Moon size={18} aria-hidden /> : <Sun size={18} aria-hidden />}
          <span className="max-sm:sr-only">{theme === "paper" ? "Dark" : "Light"}</span>
        </Button>
      </span>
    </header>
  );
}

function Trouble({ problem }: { problem: Problem }) {
  return (
    <Notice kind="refused">
      {problem.detail}{" "}
      {problem.errors
        ?.slice(0, 5)
        .map((fault) => `${fault.pointer}: ${fault.message}`)
        .join(" ")}
    </Notice>
  );
}

/** An empty bay asks what the first job is for. */
function Invitation({ onPick }: { onPick: (purpose: Purpose) => void }) {
  return (
    <section className="grid gap-3" data-invitation>
      <div>
        <h2 className="font-bold text-[34px] leading-none">No jobs yet. What needs doing?</h2>
        <p className="mt-1.5 text-[18px] text-muted">
          Pick one to start a job, or open a sample below to see how it works.
        </p>
      </div>
      <PurposeChoice picked={[]} onPick={onPick} />
    </section>
  );
}

function Samples() {
  const navigate = useNavigate();
  const { data } = useQuery({
    queryKey: ["samples"],
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/samples"));
      return "data" in result ? result.data : [];
    },
  });
  const open = useMutation({
    mutationFn: (name: string) =>
      answer(client.POST("/api/v1/samples/{name}/open", { params: { path: { name } } })),
    onSuccess: (result) => "data" in result && navigate(`/jobs/${result.data.id}/tape`),
  });
  if (!data || data.length === 0) return null;
  return (
    <section className="border-line border-t pt-3">
      <h2 className="mb-2 font-semibold">Sample jobs (made up)</h2>
      <ul className="flex flex-wrap gap-2">
        {data.map((sample) => (
          <li key={sample.name}>
            <Button onClick={() => open.mutate(sample.name)}>
              <FolderOpen size={18} aria-hidden />
              {sample.title}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
