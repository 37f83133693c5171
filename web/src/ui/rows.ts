/** Rows that come and go, told apart by their ids, or their names where nothing points at them. Pure, no React. */

type Row = { id?: string; name?: string };

/** A key for each row: its id, else its name, with a number behind it where two have one name. */
export const rowKeys = (rows: readonly Row[]): string[] => {
  const own = rows.map(({ id, name }) => id || name || "");
  return own.map((key, at) => {
    const before = own.slice(0, at).filter((other) => other === key).length;
    return before > 0 ? `${key} ${before + 1}` : key;
  });
};

/** Where the row of a key is now; -1 where it was taken out. */
export const placeOf = (rows: readonly Row[], key: string): number => rowKeys(rows).indexOf(key);

/** Rows with a part of one of them changed, wherever it is by now; as they are where it was taken out. */
export function withRow<T extends Row>(rows: readonly T[], key: string, part: Partial<T>): T[] {
  const place = placeOf(rows, key);
  return rows.map((row, at) => (at === place ? { ...row, ...part } : row));
}

/** Rows without one of them; as they are where it was taken out already. */
export function withoutRow<T extends Row>(rows: readonly T[], key: string): T[] {
  const place = placeOf(rows, key);
  return rows.filter((_, at) => at !== place);
}
