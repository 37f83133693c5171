import { useJob } from "../../job/useJob";
import { setWork } from "./edits";
import type { WorkResult } from "./useWorked";

/** Everything that must lie on the bench before it begins. */
export function Tools({ worked }: { worked: WorkResult }) {
  const { change } = useJob();
  const flip = (key: string, there: boolean) =>
    change(
      setWork((work) => ({
        tools: there ? [...(work.tools ?? []), key] : (work.tools ?? []).filter((known) => known !== key),
      })),
    );
  if (worked.tools.length === 0) return <p className="text-muted">No tools yet.</p>;
  return (
    <ul className="grid" data-tools>
      {worked.tools.map((tool) => (
        <li key={tool.key} className="border-line border-b">
          <label className="flex min-h-12 items-center gap-3 py-1">
            <input
              type="checkbox"
              className="size-7 shrink-0 accent-marker"
              checked={tool.there}
              onChange={(event) => flip(tool.key, event.target.checked)}
            />
            <span className="leading-tight">
              <b>{tool.name}</b>
              <span className="block text-[15px] text-muted">{tool.says}</span>
            </span>
          </label>
        </li>
      ))}
    </ul>
  );
}
