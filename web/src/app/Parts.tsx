import { useQueryClient } from "@tanstack/react-query";
import { Copy, Download, LayoutGrid, Pencil, Plus, RotateCcw, Search, Trash2, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import type { PartView } from "../api/client";
import { PartForm, type Row } from "../stages/bracket/PartForm";
import { useLibrary } from "../stages/bracket/useLibrary";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { Modal } from "./Modal";
import { importParts, retirePart, saveRow, takeSamples } from "./partCalls";

const KINDS = {
  bar: "bar",
  bracket: "bracket",
  joint: "joint",
  drag_link: "drag link",
  brace: "brace",
  shim: "shim",
  sway_bar: "sway bar",
  sway_link: "sway link",
  disconnect: "disconnect",
  fastener: "fastener",
  kit: "kit",
} satisfies Record<PartView["part"]["kind"], string>;
const SORTS = ["name", "kind", "says"] as const;
type Sort = (typeof SORTS)[number];

/** The parts library: what there is to choose from, its own view. */
export function Parts() {
  const library = useLibrary();
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [search, setSearch] = useState("");
  const [sort, setSort] = useState<Sort>("kind");
  const [retired, showRetired] = useState(false);
  const [edited, edit] = useState<{ seen?: PartView; row: Row } | null>(null);
  const [fault, setFault] = useState("");
  const wanted = search.trim().toLowerCase();
  const shown = library
    .filter((view) => retired || !view.retired)
    .filter((view) => `${view.row.name} ${view.row.kind} ${view.says}`.toLowerCase().includes(wanted))
    .sort(
      (a, b) => cell(a, sort).localeCompare(cell(b, sort)) || cell(a, "name").localeCompare(cell(b, "name")),
    );
  const after = async (call: Promise<string>) => {
    const trouble = await call;
    setFault(trouble);
    await queries.invalidateQueries({ queryKey: ["parts"] });
    return trouble === "";
  };
  return (
    <div className="grid h-full grid-rows-[auto_1fr]">
      <header className="flex flex-wrap items-center gap-3 border-ink border-b-2 px-4 py-2">
        <Link to="/" aria-label="Back to the bay" className="grid min-h-11 min-w-11 place-content-center">
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
        <div className="mb-3 flex flex-wrap gap-2">
          <Button look="strong" onClick={() => edit({ row: { kind: "bracket", name: "" } })}>
            <Plus size={18} aria-hidden />
            New part
          </Button>
          <Button onClick={() => file.current?.click()}>
            <Upload size={18} aria-hidden />
            Take parts in
          </Button>
          <input
            ref={file}
            type="file"
            accept=".csv,.json,text/csv,application/json"
            aria-label="A file of parts"
            className="sr-only"
            onChange={(event) => {
              const picked = event.target.files?.[0];
              if (picked) void after(importParts(picked));
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
          <Button aria-pressed={retired} onClick={() => showRetired(!retired)}>
            {retired ? "Hide retired parts" : "Show retired parts"}
          </Button>
          {library.length === 0 && (
            <Button onClick={() => void after(takeSamples())}>Take the made-up sample parts</Button>
          )}
        </div>
        {fault && !edited && <Notice kind="refused">{fault}</Notice>}
        <table className="w-full max-w-[1100px] border-collapse text-left" data-parts>
          <thead>
            <tr className="border-ink border-b-2">
              {SORTS.map((name) => (
                <th key={name} scope="col" aria-sort={sort === name ? "ascending" : "none"}>
                  <button type="button" className="min-h-11 font-semibold" onClick={() => setSort(name)}>
                    {name === "says" ? "what it is" : name}
                  </button>
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">what to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((view) => (
              <tr key={view.id} className="border-line border-b" data-part={view.row.name}>
                <td className="py-1 pr-3 font-semibold">
                  {view.row.name}
                  {view.retired && <span className="font-normal text-muted"> retired</span>}
                </td>
                <td className="pr-3">{KINDS[view.part.kind]}</td>
                <td className="pr-3 text-muted">{view.says}</td>
                <td className="whitespace-nowrap text-right">
                  <Button
                    look="quiet"
                    aria-label={`Change ${view.row.name}`}
                    onClick={() => edit({ seen: view, row: { ...view.row } })}
                  >
                    <Pencil size={18} aria-hidden />
                  </Button>
                  <Button
                    look="quiet"
                    aria-label={`Copy ${view.row.name}`}
                    onClick={() => edit({ row: { ...view.row, name: `${view.row.name}, copy` } })}
                  >
                    <Copy size={18} aria-hidden />
                  </Button>
                  <Button
                    look="quiet"
                    aria-label={view.retired ? `Bring ${view.row.name} back` : `Retire ${view.row.name}`}
                    onClick={() => void after(retirePart(view, !view.retired))}
                  >
                    {view.retired ? <RotateCcw size={18} aria-hidden /> : <Trash2 size={18} aria-hidden />}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown.length === 0 && <p className="mt-3 text-muted">No part is called so.</p>}
      </main>
      {edited && (
        <Modal open onOpenChange={() => edit(null)} title={edited.seen ? "Change a part" : "A new part"}>
          <PartForm
            row={edited.row}
            fault={fault}
            onClose={() => edit(null)}
            onSave={(row) => void after(saveRow(edited.seen, row)).then((kept) => kept && edit(null))}
          />
        </Modal>
      )}
    </div>
  );
}

function cell(view: PartView, sort: Sort): string {
  return sort === "says" ? view.says : (view.row[sort] ?? "");
}
