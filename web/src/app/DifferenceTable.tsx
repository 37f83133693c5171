import type { Job } from "../api/client";
import { differences } from "./differences";

/** Most that is shown at once. */
const MOST = 40;

/** What differs between two versions of a job, side by side. */
export function DifferenceTable({
  mine,
  theirs,
  names,
}: {
  mine: Job;
  theirs: Job;
  names: [string, string];
}) {
  const rows = differences(mine, theirs);
  if (rows.length === 0) return null;
  return (
    <table className="w-full text-left" data-differences>
      <thead>
        <tr className="border-ink border-b">
          <th scope="col" className="py-1 pr-2 font-semibold">
            what
          </th>
          <th scope="col" className="pr-2 font-semibold">
            {names[0]}
          </th>
          <th scope="col" className="font-semibold">
            {names[1]}
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.slice(0, MOST).map((row) => (
          <tr key={row.place} className="border-line border-b align-top">
            <td className="py-1 pr-2">{row.place}</td>
            <td className="pr-2 font-semibold">{row.mine}</td>
            <td className="font-semibold">{row.theirs}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
