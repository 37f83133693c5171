import type { Part } from "../../api/client";
import { useJob } from "../../job/useJob";
import { useLibrary } from "../../parts/useLibrary";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { ownKey, setFastener, setPart, setWork } from "./edits";
import type { WorkResult } from "./useWorked";

type Kit = Extract<Part, { kind: "kit" }>;

/** Kits of the library: their hardware, torques and order typed once, used in every job. */
export function UseKit({ worked }: { worked: WorkResult }) {
  const { change } = useJob();
  const kits = useLibrary()
    .parts.filter((view) => !view.retired)
    .map((view) => view.part)
    .filter((part): part is Kit => part.kind === "kit");
  if (kits.length === 0) return null;
  const take = (kit: Kit) =>
    change((old) => {
      let job = old;
      for (const { place, ...known } of kit.fasteners ?? []) {
        job = setFastener(place, { ...known, ...(known.torque && { source: "parts_sheet" as const }) })(job);
      }
      const planned = new Set(worked.parts.map((part) => part.name));
      for (const line of (kit.holds ?? []).filter((held) => !planned.has(held.name))) {
        const name = line.count > 1 ? `${line.name} (${line.count})` : line.name;
        if (job.bolt_up?.parts?.some((part) => part.name === name)) continue;
        job = setPart(ownKey(job.bolt_up?.parts), { name, state: "in_the_kit" })(job);
      }
      // The maker's steps in the maker's order, in the places the plan has for them.
      const keys = worked.steps.map((step) => step.key);
      const named = (kit.order ?? []).filter((key) => keys.includes(key));
      if (named.length > 1) {
        const rest = [...named];
        const order = keys.map((key) => (named.includes(key) ? (rest.shift() ?? key) : key));
        job = setWork({ order, makers_order: true })(job);
      }
      return job;
    });
  return (
    <Fold title={`Use a kit from the library (${kits.length})`}>
      <ul className="grid gap-1">
        {kits.map((kit) => (
          <li key={kit.name} className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-2">
            <span className="leading-tight">
              <b>{kit.name}</b>
              <span className="block text-[15px] text-muted">
                {(kit.holds ?? []).map((line) => `${line.count} × ${line.name}`).join(", ")}
                {kit.note && `; ${kit.note}`}
              </span>
            </span>
            <Button aria-label={`use the kit ${kit.name}`} onClick={() => take(kit)}>
              Use it
            </Button>
          </li>
        ))}
      </ul>
    </Fold>
  );
}
