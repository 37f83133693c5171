import { Download } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useStance } from "../../elevation/stance";
import { Missing } from "../../job/Missing";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";

/** How near arms and links come to what is around them, and what must be cut. */
export function Room({ room }: { room: Schemas["RoomResult"] }) {
  const { view } = useJob();
  const units = useSettings((s) => s.units);
  const setWheels = useStance((s) => s.setWheels);
  const tight = room.gaps.filter((gap) => !gap.clear);
  const rest = room.gaps.filter((gap) => gap.clear);
  const line = (gap: Schemas["SwayGap"]) => (
    <li key={gap.thing} className="border-line border-b last:border-b-0">
      <button
        type="button"
        className={`min-h-11 w-full py-1.5 text-left leading-tight ${gap.clear ? "" : "font-semibold text-axle"}`}
        onClick={() => setWheels(gap.at_mm[0] ?? 0, gap.at_mm[1] ?? 0, gap.thing)}
      >
        <Figure>{`${gap.clear ? "" : "Hits or nearly: "}${say(gap.says, units)}`}</Figure>
      </button>
    </li>
  );
  return (
    <section className="grid gap-1" data-room>
      <Missing faults={room.missing} />
      {tight.length > 0 ? (
        <ul>{tight.map(line)}</ul>
      ) : (
        <p>
          <Figure>{say(room.says, units)}</Figure>
        </p>
      )}
      {rest.length > 0 && (
        <Fold title={`Clearance to each (${rest.length}); choose one to see it`}>
          <ul>{rest.map(line)}</ul>
        </Fold>
      )}
      {room.cuts.map((cut) => (
        <div key={cut.panel} data-cut={cut.panel}>
          <p>
            <Figure>{say(cut.says, units)}</Figure>
          </p>
          {cut.cut_mm &&
            (["svg", "dxf"] as const).map((format) => (
              <a
                key={format}
                className="mr-4 inline-flex min-h-11 items-center gap-1.5 underline"
                href={`/api/v1/jobs/${view.id}/templates/panel?format=${format}&of=${encodeURIComponent(cut.panel)}`}
                download
              >
                <Download size={18} aria-hidden />
                {format.toUpperCase()} template
              </a>
            ))}
        </div>
      ))}
    </section>
  );
}
