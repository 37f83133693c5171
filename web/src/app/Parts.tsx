import { useQueryClient } from "@tanstack/react-query";
import { Download, LayoutGrid, Plus, Rows3, Search, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import type { PartView } from "../api/client";
import { say } from "../measure/format";
import { PartForm, type Row } from "../parts/PartForm";
import { useLibrary } from "../parts/useLibrary";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSettings } from "../ui/settings";
import { Modal } from "./Modal";
import type { PartDeeds } from "./PartCard";
import { PartRack } from "./PartRack";
import { PartTable } from "./PartTable";
import { importParts, retirePart, saveRow, takeSamples } from "./partCalls";

/** The parts library: the rack on the bay wall, or the same as a table. */
export function Parts() {
  const { parts: library, damaged } = useLibrary();
  const units = useSettings((s) => s.units);
  const queries = useQueryClient();
  const [search, setSearch] = useState("");
  const [retired, showRetired] = useState(false);
  const [table, asTable] = useState(false);
  const [edited, edit] = useState<{ seen?: PartView; like?: PartView; row: Row } | null>(null);
  const [fault, setFault] = useState("");
  const wanted = search.trim().toLowerCase();
  const shown = library
    .filter((view) => retired || !view.retired)
    .filter((view) =>
      `${view.row.name} ${view.row.kind} ${say(view.says, units)}`.toLowerCase().includes(wanted),
    );
  const after = async (call: Promise<string>) => {
    const trouble = await call;
    setFault(trouble);
    await queries.invalidateQueries({ queryKey: ["parts"] });
    return trouble === "";
  };
  const deeds: PartDeeds = {
    onChange: (view) => edit({ seen: view, like: view, row: { ...view.row } }),
    onCopy: (view) => edit({ like: view, row: { ...view.row, name: `${view.row.name}, copy` } }),
    onRetire: (view) => void after(retirePart(view, !view.retired)),
  };
  const Shown = table ? PartTable : PartRack;
  return (
    <div className="grid h-full grid-rows-[auto_1fr]">
      <header className="flex flex-wrap items-center gap-3 border-ink border-b-2 px-4 py-2">
        <Link to="/" aria-label="Back to the jobs" className="grid min-h-11 min-w-11 place-content-center">
          <LayoutGrid size={20} aria-hidden />
        </Link>
        <h1 className="font-bold text-[24px] leading-none">Parts library</h1>
        <label className="ml-auto flex min-w-40 flex-1 items-center gap-2 border-[1.5px] border-ink bg-slate px-2 sm:max-w-72">
          <Search size={18} aria-hidden />
          <span className="sr-only">Find a part</span>
          <input
            className="min-h-11 w-full min-w-0 bg-transparent outline-none!"
            placeholder="find a part"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </label>
      </header>
      <main className="overflow-y-auto p-4">
        <div className="mx-auto max-w-[1240px]">
          <div className="mb-3 flex flex-wrap gap-2">
            <Button look="strong" onClick={() => edit({ row: { kind: "bracket", name: "" } })}>
              <Plus size={18} aria-hidden />
              New part
            </Button>
            <InAndOut onFile={(file) => void after(importParts(file))} />
            <Button aria-pressed={table} onClick={() => asTable(!table)}>
              {table ? <LayoutGrid size={18} aria-hidden /> : <Rows3 size={18} aria-hidden />}
              {table ? "Show as drawings" : "Show as a table"}
            </Button>
            <Button aria-pressed={retired} onClick={() => showRetired(!retired)}>
              {retired ? "Hide retired parts" : "Show retired parts"}
            </Button>
            {library.length === 0 && (
              <Button onClick={() => void after(takeSamples())}>Load the made-up sample parts</Button>
            )}
          </div>
          {damaged && (
            <Notice kind="refused">
              Parts that cannot be read, and are not shown: {damaged}. The others are fine. Run derecho check
              for details; a backup may still have them.
            </Notice>
          )}
          {fault && !edited && <Notice kind="refused">{fault}</Notice>}
          <Shown parts={shown} deeds={deeds} />
          {shown.length === 0 && <p className="mt-3 text-muted">No part by that name.</p>}
        </div>
      </main>
      {edited && (
        <Modal open onOpenChange={() => edit(null)} title={edited.seen ? "Change a part" : "A new part"}>
          <PartForm
            row={edited.row}
            seen={edited.like}
            fault={fault}
            onClose={() => edit(null)}
            onSave={(row) => void after(saveRow(edited.seen, row)).then((kept) => kept && edit(null))}
          />
        </Modal>
      )}
    </div>
  );
}

/** Files of parts in and out. */
function InAndOut({ onFile }: { onFile: (file: File) => void }) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => file.current?.click()}>
        <Upload size={18} aria-hidden />
        Import parts
      </Button>
      <input
        ref={file}
        type="file"
        accept=".csv,.json,text/csv,application/json"
        aria-label="Parts file"
        className="sr-only"
        onChange={(event) => {
          const picked = event.target.files?.[0];
          if (picked) onFile(picked);
          event.target.value = "";
        }}
      />
      {(["csv", "json"] as const).map((format) => (
        <a
          key={format}
          className="inline-flex min-h-11 items-center gap-2 border-[1.5px] border-ink bg-slate px-3"
          href={`/api/v1/parts/export?format=${format}`}
          download
        >
          <Download size={18} aria-hidden />
          {format.toUpperCase()}
        </a>
      ))}
    </>
  );
}
