import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { setHardpoints } from "../../job/edits";
import { planPart } from "../../job/installs";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { TapeField } from "../../ui/TapeField";
import { PointInput } from "./PointInput";

type TieRodForm = Schemas["TieRodForm"];

const TO = optionsOf<Schemas["TieRodTo"] | "stays">({
  stays: "stays where it is",
  over: "over the steering arms",
  under: "under the steering arms",
});
const SEATS = optionsOf<Schemas["TieRodSeats"]>({
  there: "tapers that are there",
  reamed: "the old holes, reamed",
  inserts: "inserts, drilled",
});

/** The tie rod: where it lies, and where this job moves it. */
export function TieRodInput() {
  const { view, job, change } = useJob();
  const form = job.hardpoints?.tie_rod;
  const unit = job.rig?.sheet_unit ?? "in";
  const put = (part: Partial<TieRodForm>) =>
    change((old) => setHardpoints({ tie_rod: { ...old.hardpoints?.tie_rod, ...part } })(old));
  if (!form) {
    return (
      <Button className="mt-2 justify-self-start" onClick={() => put({})}>
        <Plus size={18} aria-hidden />
        Add the tie rod
      </Button>
    );
  }
  const move = (to: Schemas["TieRodTo"] | "stays") =>
    change((old) => {
      const { to: _, by, ...stays } = old.hardpoints?.tie_rod ?? {};
      const tie_rod = to === "stays" ? stays : { ...stays, ...(by && { by }), to };
      return planPart("tie_rod", to === "stays" ? undefined : true)(setHardpoints({ tie_rod })(old));
    });
  return (
    <section className="grid gap-2" data-tie-rod>
      <PointInput
        label="Left end of the tie rod, at its center, wheels straight"
        pointer="/hardpoints/tie_rod/end"
        point={form.end}
        onPut={(end) => put({ end })}
      />
      <TapeField
        job={view.id}
        pointer="/hardpoints/tie_rod/diameter"
        label="Tie rod, outside diameter"
        unit={unit}
        value={form.diameter}
        onCommit={(diameter) => put({ diameter })}
      />
      <Choice label="In this job the tie rod" value={form.to ?? "stays"} options={TO} onPick={move} />
      {form.to && (
        <>
          <TapeField
            job={view.id}
            pointer="/hardpoints/tie_rod/by"
            label={`How far the rod comes ${form.to === "over" ? "up" : "down"}`}
            unit={unit}
            value={form.by}
            onCommit={(by) => put({ by })}
          />
          <Choice
            label="Its studs go into"
            value={form.seats ?? "there"}
            options={SEATS}
            onPick={(seats) => put({ seats })}
          />
        </>
      )}
      <Button
        look="quiet"
        onClick={() =>
          change((old) => planPart("tie_rod", undefined)(setHardpoints({ tie_rod: undefined })(old)))
        }
      >
        <Trash2 size={18} aria-hidden />
        Remove the tie rod
      </Button>
    </section>
  );
}
