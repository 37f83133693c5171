import { Download } from "lucide-react";
import { useJob } from "../../job/useJob";
import { Fold } from "../../ui/Fold";
import { usePlanned } from "./usePlanned";

/** Drill templates of the brackets tried. */
export function Templates() {
  const { view } = useJob();
  const now = usePlanned()?.brackets ?? [];
  if (now.length === 0) return null;
  return (
    <Fold title="Drill templates, full size">
      <p className="text-[15px] text-muted">Print at 100 % and measure the check line before you drill.</p>
      {now.map(({ id, end, name }) => (
        <div key={`${end}${id}`} className="flex flex-wrap items-center gap-2 border-line border-b py-1.5">
          <span className="flex-1">{name}</span>
          {(["svg", "dxf"] as const).map((format) => (
            <a
              key={format}
              className="inline-flex min-h-11 items-center gap-1 underline"
              href={`/api/v1/jobs/${view.id}/templates/holes?format=${format}&of=${encodeURIComponent(id)}&end=${end}`}
              download
            >
              <Download size={16} aria-hidden />
              {format.toUpperCase()}
            </a>
          ))}
        </div>
      ))}
    </Fold>
  );
}
