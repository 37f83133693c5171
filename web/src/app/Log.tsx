import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { ArrowLeft, Download, Search } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { say } from "../measure/format";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { Notice } from "../ui/Notice";
import { useSettings } from "../ui/settings";

type Kind = Schemas["LogKind"];

const KINDS = {
  setting: "set",
  torque: "torque",
  reading: "measured",
  deviation: "otherwise",
  reminder: "seen to",
  trail: "trail",
  defect: "defect",
  settled: "settled",
} satisfies Record<Kind, string>;

/** Everything that was set, tightened, read and noticed, over all jobs. */
export function Log() {
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState<Kind | "">("");
  const wanted = { search, ...(kind && { kind }) };
  const log = useInfiniteQuery({
    queryKey: ["log", search, kind],
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: async ({ pageParam: offset }) => {
      const result = await answer(client.GET("/api/v1/log", { params: { query: { ...wanted, offset } } }));
      if (!("data" in result)) throw new Error("no answer");
      return result.data;
    },
    getNextPageParam: (last, pages) => {
      const reported = pages.reduce((sum, page) => sum + page.lines.length, 0);
      return last.lines.length > 0 && reported < last.total ? reported : undefined;
    },
  });
  const lines = log.data?.pages.flatMap((page) => page.lines) ?? [];
  const total = log.data?.pages[0]?.total ?? 0;
  const csv = `/api/v1/log.csv?${new URLSearchParams(wanted)}`;
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
      <LogHeader search={search} onSearch={setSearch} kind={kind} onKind={setKind} csv={csv} />
      <main className="overflow-y-auto px-4 py-3">
        {log.isError && <Notice kind="refused">No answer from the program. Is it still running?</Notice>}
        {log.data && lines.length === 0 && <p>Nothing recorded that matches.</p>}
        <ul className="mx-auto grid max-w-[1240px]" data-log={log.data ? total : undefined}>
          {lines.map((line, index) => (
            <LogEntry key={`${line.id} ${index}`} line={line} />
          ))}
        </ul>
        <p className="mx-auto flex max-w-[1240px] flex-wrap items-center gap-3 py-3 text-muted" role="status">
          {!log.data
            ? "Searching the log…"
            : lines.length < total
              ? `${lines.length} of ${total} entries`
              : `${total} entries`}
          {log.hasNextPage && (
            <Button disabled={log.isFetchingNextPage} onClick={() => void log.fetchNextPage()}>
              Show more
            </Button>
          )}
        </p>
      </main>
    </div>
  );
}

type LogHeaderProps = {
  search: string;
  onSearch: (text: string) => void;
  kind: Kind | "";
  onKind: (kind: Kind | "") => void;
  csv: string;
};

function LogHeader({ search, onSearch, kind, onKind, csv }: LogHeaderProps) {
  const { units, flipUnits } = useSettings();
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-ink border-b-2 px-4 py-2">
      <Link to="/" aria-label="Back to the jobs" className="grid size-11 place-content-center">
        <ArrowLeft size={22} aria-hidden />
      </Link>
      <h1 className="font-bold text-[26px] leading-none">Log</h1>
      <div className="ml-auto flex min-w-40 flex-1 items-center gap-2 border-[1.5px] border-ink bg-slate px-2 sm:max-w-72">
        <Search size={18} aria-hidden />
        <label htmlFor="look" className="sr-only">
          Search the log
        </label>
        <input
          id="look"
          type="search"
          className="min-h-11 w-full min-w-0 bg-transparent"
          placeholder="vehicle, bolt, name or word"
          value={search}
          onChange={(event) => onSearch(event.target.value)}
        />
      </div>
      <select
        aria-label="Kind of entry"
        className="min-h-11 border-[1.5px] border-ink bg-slate px-2"
        value={kind}
        onChange={(event) => onKind(event.target.value as Kind | "")}
      >
        <option value="">everything</option>
        {Object.entries(KINDS).map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
      <Button onClick={flipUnits} aria-label={`Units: ${units === "in" ? "inches" : "mm"}. Switch`}>
        {units === "in" ? "inches" : "mm"}
      </Button>
      <a
        className="settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3"
        href={csv}
        download
      >
        <Download size={18} aria-hidden />
        Download as a table
      </a>
    </header>
  );
}

function LogEntry({ line }: { line: Schemas["LogLine"] }) {
  const units = useSettings((s) => s.units);
  return (
    <li
      className="grid items-baseline gap-x-4 border-line border-b py-2 sm:grid-cols-[186px_92px_220px_minmax(0,1fr)]"
      data-kind={line.entry.kind}
    >
      <span className="text-muted tabular-nums">
        {line.entry.at
          ? new Date(line.entry.at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" })
          : "no time recorded"}
      </span>
      <b>{KINDS[line.entry.kind]}</b>
      <Link className="underline" to={`/jobs/${line.id}/prove`}>
        {line.title}
      </Link>
      <span className="leading-snug">
        <Figure>{say(line.entry.says, units)}</Figure>
        {line.entry.by && <span className="text-muted">, {line.entry.by}</span>}
        {line.entry.kind === "settled" && (
          <>
            {". "}
            <a className="underline" href={`/api/v1/jobs/${line.id}/record.pdf`} data-record={line.id}>
              Record for the customer
            </a>
          </>
        )}
      </span>
    </li>
  );
}
