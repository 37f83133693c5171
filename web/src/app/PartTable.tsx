import { useState } from "react";
import type { PartView } from "../api/client";
import { say } from "../measure/format";
import { KIND_NAMES } from "../parts/fields";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { PartButtons, type PartDeeds } from "./PartCard";

const SORTS = ["name", "kind", "says"] as const;
type Sort = (typeof SORTS)[number];

const cell = (view: PartView, sort: Sort): string =>
  sort === "says" ? view.says.in : (view.row[sort] ?? "");

/** The same parts as a table one can sort. */
export function PartTable({ parts, deeds }: { parts: readonly PartView[]; deeds: PartDeeds }) {
  const units = useSettings((s) => s.units);
  const [sort, setSort] = useState<Sort>("kind");
  const sorted = [...parts].sort(
    (a, b) => cell(a, sort).localeCompare(cell(b, sort)) || cell(a, "name").localeCompare(cell(b, "name")),
  );
  return (
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
            <span className="sr-only">actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sorted.map((view) => (
          <tr key={view.id} className="border-line border-b" data-part={view.row.name}>
            <td className="py-1 pr-3 font-semibold">
              {view.row.name}
              {view.retired && <span className="font-normal text-muted"> retired</span>}
            </td>
            <td className="pr-3">{KIND_NAMES[view.part.kind].toLowerCase()}</td>
            <td className="pr-3 text-muted">
              <Figure>{say(view.says, units)}</Figure>
            </td>
            <td>
              <PartButtons view={view} deeds={deeds} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
