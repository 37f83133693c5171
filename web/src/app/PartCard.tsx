import { Archive, Copy, Pencil, RotateCcw } from "lucide-react";
import type { PartView } from "../api/client";
import { say } from "../measure/format";
import { PartPicture } from "../parts/PartPicture";
import { sketchOf } from "../parts/sketch";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";

export type PartDeeds = {
  onChange: (view: PartView) => void;
  onCopy: (view: PartView) => void;
  onRetire: (view: PartView) => void;
};

/** A part on the rack: drawn to the rack's scale, what it is, what can be done with it. */
export function PartCard({ view, deeds }: { view: PartView; deeds: PartDeeds }) {
  const units = useSettings((s) => s.units);
  return (
    <li
      className={`grid grid-rows-[1fr_auto_auto] border-[1.5px] bg-slate ${view.retired ? "border-line border-dashed" : "border-ink"}`}
      data-part={view.row.name}
    >
      <div
        className={`grid min-h-20 content-center justify-start overflow-hidden pl-2 border-line border-b bg-paper ${view.retired ? "opacity-50" : ""}`}
      >
        <PartPicture sketch={sketchOf(view.part)} />
      </div>
      <div className="px-2.5 pt-1.5">
        <h3 className="font-semibold leading-tight">
          {view.row.name}
          {view.retired && <span className="font-normal text-muted"> retired</span>}
        </h3>
        <p className="text-[15px] text-muted leading-tight">
          <Figure>{say(view.says, units)}</Figure>
        </p>
      </div>
      <PartButtons view={view} deeds={deeds} />
    </li>
  );
}

/** What can be done with a part; one that is retired is brought back. */
export function PartButtons({ view, deeds }: { view: PartView; deeds: PartDeeds }) {
  const { name } = view.row;
  return (
    <div className="flex flex-wrap px-1 text-[15px]">
      {!view.retired && (
        <Button look="quiet" aria-label={`Edit ${name}`} onClick={() => deeds.onChange(view)}>
          <Pencil size={16} aria-hidden />
          Edit
        </Button>
      )}
      <Button look="quiet" aria-label={`Copy ${name}`} onClick={() => deeds.onCopy(view)}>
        <Copy size={16} aria-hidden />
        Copy
      </Button>
      <Button
        look="quiet"
        aria-label={view.retired ? `Bring back ${name}` : `Retire ${name}`}
        onClick={() => deeds.onRetire(view)}
      >
        {view.retired ? <RotateCcw size={16} aria-hidden /> : <Archive size={16} aria-hidden />}
        {view.retired ? "Bring back" : "Retire"}
      </Button>
    </div>
  );
}
