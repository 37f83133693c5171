import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { AngleField } from "../../job/AngleField";
import { setHardpoints } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";
import { PointInput } from "./PointInput";

type SteeringForm = Schemas["SteeringForm"];

const SIDES = optionsOf<Schemas["Side"]>({
  left: "left",
  right: "right",
});
const ENDS = optionsOf<Schemas["DragLinkEnd"]>({
  knuckle: "the steering arm of a knuckle",
  tie_rod: "the tie rod",
});

/** The drag link and the knuckle it turns. */
export function SteeringInput() {
  const { view, job, change } = useJob();
  const steering = job.hardpoints?.steering;
  const unit = job.rig?.sheet_unit ?? "in";
  const put = (part: Partial<SteeringForm>) => {
    const pitman_side = job.rig?.steering_side ?? "left";
    const knuckle_side = pitman_side === "left" ? "right" : "left";
    change(setHardpoints({ steering: { pitman_side, knuckle_side, ...steering, ...part } }));
  };
  if (!steering) {
    return (
      <Button className="mt-2" onClick={() => put({})}>
        <Plus size={18} aria-hidden />
        Add the drag link
      </Button>
    );
  }
  return (
    <section className="grid gap-2">
      <Choice
        label="Axle end connects to"
        value={steering.ends_on ?? "knuckle"}
        options={ENDS}
        onPick={(ends_on) => put({ ends_on })}
      />
      <div className="grid gap-2 sm:grid-cols-2">
        <Choice
          label="Pitman end on the"
          value={steering.pitman_side}
          options={SIDES}
          onPick={(pitman_side) => put({ pitman_side })}
        />
        <Choice
          label="Axle end on the"
          value={steering.knuckle_side}
          options={SIDES}
          onPick={(knuckle_side) => put({ knuckle_side })}
        />
      </div>
      <PointInput
        label="Pitman end, wheels straight"
        pointer="/hardpoints/steering/pitman"
        point={steering.pitman}
        onBody
        onPut={(pitman) => put({ pitman })}
      />
      <PointInput
        label="Axle end, wheels straight"
        pointer="/hardpoints/steering/knuckle"
        point={steering.knuckle}
        onPut={(knuckle) => put({ knuckle })}
      />
      <TapeField
        job={view.id}
        pointer="/hardpoints/steering/kingpin_from_centre"
        label="Kingpin (ball joint) axis to the centerline, at hub height"
        unit={unit}
        value={steering.kingpin_from_centre}
        onCommit={(kingpin_from_centre) => put({ kingpin_from_centre })}
      />
      <div className="grid gap-2 sm:grid-cols-2">
        <AngleField
          job={view.id}
          pointer="/hardpoints/steering/kingpin_inclination"
          label="Kingpin inclination, top inward"
          value={steering.kingpin_inclination}
          hint="Empty: upright"
          onCommit={(kingpin_inclination) => put({ kingpin_inclination })}
        />
        <AngleField
          job={view.id}
          pointer="/hardpoints/steering/caster"
          label="Caster, top back"
          value={steering.caster}
          hint="Empty: upright"
          onCommit={(caster) => put({ caster })}
        />
      </div>
      <Button look="quiet" onClick={() => change(setHardpoints({ steering: undefined }))}>
        <Trash2 size={18} aria-hidden />
        Remove the drag link
      </Button>
    </section>
  );
}
