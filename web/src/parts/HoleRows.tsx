import { Plus, X } from "lucide-react";
import type { TapeEntry, Unit } from "../api/client";
import { Button } from "../ui/Button";
import { TapeField } from "../ui/TapeField";

export type HoleRow = {
  name: string;
  up?: TapeEntry | undefined;
  outward?: TapeEntry | undefined;
  forward?: TapeEntry | undefined;
};

const FIELDS = [
  ["up", "up"],
  ["outward", "outward"],
  ["forward", "forward"],
] as const;

type HoleRowsProps = { rows: readonly HoleRow[]; unit: Unit; onPut: (rows: HoleRow[]) => void };

/** Each hole a row: how far it moves the eye. Down, inward and back have a minus sign. */
export function HoleRows({ rows, unit, onPut }: HoleRowsProps) {
  const put = (at: number, part: Partial<HoleRow>) =>
    onPut(rows.map((row, index) => (index === at ? { ...row, ...part } : row)));
  return (
    <fieldset className="grid gap-1" data-hole-rows={rows.length}>
      <legend className="mb-1 text-[15px] text-muted">
        Holes, from the old hole; down, inward and back have a minus sign
      </legend>
      {rows.map((row, at) => (
        <div
          key={at}
          className="grid grid-cols-[repeat(3,minmax(0,1fr))_auto] items-start gap-1.5 max-sm:items-end sm:grid-cols-[repeat(4,minmax(0,1fr))_auto]"
        >
          <label className="text-[15px] text-muted max-sm:col-span-4">
            Hole {at + 1}
            <input
              className="mt-1 min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2 text-ink"
              aria-label={`name of hole ${at + 1}`}
              value={row.name}
              onChange={(event) => put(at, { name: event.target.value })}
            />
          </label>
          {FIELDS.map(([field, label]) => (
            <TapeField
              key={field}
              job="library"
              pointer={`/part/holes/${at}/${field}`}
              label={`${label}, hole ${at + 1}`}
              signed
              unit={unit}
              value={row[field]}
              onCommit={(entry) => put(at, { [field]: entry })}
            />
          ))}
          <Button
            look="quiet"
            className="mt-6"
            aria-label={`remove hole ${at + 1}`}
            onClick={() => onPut(rows.filter((_, index) => index !== at))}
          >
            <X size={18} aria-hidden />
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={() => onPut([...rows, { name: `hole ${rows.length + 1}` }])}>
          <Plus size={18} aria-hidden />
          Add another hole
        </Button>
      </div>
    </fieldset>
  );
}
