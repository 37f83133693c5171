/** Rows that come and go, told apart by their names and not by their numbers. Pure, no React. */

type Named = { name: string };

/** A key for each row: its name, with a number behind it where two have one name. */
export const rowKeys = (rows: readonly Named[]): string[] =>
  rows.map(({ name }, at) => {
    const before = rows.slice(0, at).filter((row) => row.name === name).length;
    return before > 0 ? `${name} ${before + 1}` : name;
  });

/** Where the row of a key is now; -1 where it was taken out. */
export const placeOf = (rows: readonly Named[], key: string): number => rowKeys(rows).indexOf(key);

/** Rows with a part of one of them changed, wherever it is by now; as they are where it was taken out. */
export function withRow<T extends Named>(rows: readonly T[], key: string, part: Partial<T>): T[] {
  const place = placeOf(rows, key);
  return rows.map((row, at) => (at === place ? { ...row, ...part } : row));
}
