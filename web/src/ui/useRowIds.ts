import { useRef } from "react";
import { rowKeys } from "./rows";

let made = 0;

/**
 * An id for each row that stays while the row is there: through a new name, and through rows above it that come and
 * go. By it a field stays the field of its row.
 */
export function useRowIds(rows: readonly { id?: string; name?: string }[]): string[] {
  const known = useRef<{ keys: string[]; ids: string[] }>({ keys: [], ids: [] });
  const keys = rowKeys(rows);
  const { keys: before, ids } = known.current;
  const changed = keys.filter((key, at) => key !== before[at]).length;
  const renamed = keys.length === before.length && changed === 1;
  if (changed > 0 || keys.length !== before.length) {
    const anew = () => keys.map((key) => ids[before.indexOf(key)] ?? `row ${made++}`);
    known.current = { keys, ids: renamed ? ids : anew() };
  }
  return known.current.ids;
}
