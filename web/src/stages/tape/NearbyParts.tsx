import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { setHardpoints } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { PointInput } from "./PointInput";
import { useSheetLength } from "./useSheetLength";

type DriveshaftForm = Schemas["DriveshaftForm"];

const SIDES = optionsOf<Schemas["Side"]>({ left: "left", right: "right" });

/** What every vehicle has that a bar or link could touch: the axle's tube and the driveshaft. */
export function NearbyParts() {
  const { job, change } = useJob();
  const { axle_tube, driveshaft } = job.hardpoints ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const length = useSheetLength();
  const put = (part: Partial<DriveshaftForm>) =>
    change((old) => {
      const form = old.hardpoints?.driveshaft;
      return form ? setHardpoints({ driveshaft: { ...form, ...part } })(old) : old;
    });
  return (
    <section className="grid gap-2">
      <p className="text-[15px] text-muted">Only what is measured is checked for clearance.</p>
      {length("/hardpoints/axle_tube", "Axle tube, outside diameter", axle_tube, (size) =>
        change(setHardpoints({ axle_tube: size })),
      )}
      {driveshaft ? (
        <section className="grid gap-2" data-driveshaft>
          <Choice
            label="Driveshaft joints measured toward the"
            value={driveshaft.side}
            options={SIDES}
            onPick={(side) => put({ side })}
          />
          <PointInput
            label="Joint at the transfer case, at its center"
            pointer="/hardpoints/driveshaft/body"
            point={driveshaft.body}
            onBody
            onPut={(body) => put({ body })}
          />
          <PointInput
            label="Joint at the pinion, at its center"
            pointer="/hardpoints/driveshaft/axle"
            point={driveshaft.axle}
            onPut={(axle) => put({ axle })}
          />
          {length(
            "/hardpoints/driveshaft/diameter",
            "Driveshaft, outside diameter",
            driveshaft.diameter,
            (diameter) => diameter && put({ diameter }),
          )}
          <Button look="quiet" onClick={() => change(setHardpoints({ driveshaft: undefined }))}>
            <Trash2 size={18} aria-hidden />
            Remove the driveshaft
          </Button>
        </section>
      ) : (
        <Button
          className="justify-self-start"
          onClick={() =>
            change(
              setHardpoints({
                driveshaft: { side: "left", diameter: { text: unit === "in" ? "3" : "75", unit } },
              }),
            )
          }
        >
          <Plus size={18} aria-hidden />
          Add the driveshaft
        </Button>
      )}
    </section>
  );
}
