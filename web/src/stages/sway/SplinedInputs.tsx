import type { FieldError, Schemas } from "../../api/client";
import { setSway } from "../../job/edits";
import { LengthFields } from "../../job/LengthFields";
import { Missing, useGoToField } from "../../job/Missing";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Rows } from "../../ui/Rows";
import { Tick } from "../../ui/Tick";
import { runsInTubes, setTubes } from "./edits";

const BAR = [
  ["length", "Length"],
  ["diameter", "Diameter"],
  ["bore", "Bore"],
] as const;
const TUBES = [
  ["outside", "Tube, outside diameter"],
  ["below_edge", "Hole center below the frame rail's top edge"],
  ["from_cross_member", "Hole center from the cross-member"],
] as const;
const ARM = [["arm", "Arm"]] as const;

/** Splined bars and arms that can be had. */
export function SplinedInputs({ missing }: { missing: readonly FieldError[] }) {
  const { job, change } = useJob();
  const go = useGoToField();
  const form: Schemas["SplinedForm"] = job.sway?.splined ?? {};
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (part: Partial<typeof form>) => change(setSway({ splined: { ...form, ...part } }));
  const entry = (inches: string, millimetres: string) => ({
    text: unit === "in" ? inches : millimetres,
    unit,
  });
  const bars = form.bars ?? [];
  const arms = form.arms ?? [];
  return (
    <>
      <Missing faults={missing} />
      <p className="text-[15px] text-muted">Splined bars and arms you can get:</p>
      <Rows
        items={bars}
        name={(_, index) => `splined bar ${index + 1}`}
        add="Add a bar you can get"
        onAdd={() =>
          set({
            bars: [
              ...bars,
              bars[bars.length - 1] ?? { length: entry("36", "900"), diameter: entry("1", "25") },
            ],
          })
        }
        onSet={(left) => set({ bars: left })}
      >
        {(bar, index, put) => (
          <div className="grid grid-cols-3 gap-x-2">
            <LengthFields
              at={`/sway/splined/bars/${index}`}
              form={bar}
              fields={BAR}
              onPut={(part) => ("bore" in part || Object.values(part)[0]) && put(part as Partial<typeof bar>)}
            />
          </div>
        )}
      </Rows>
      <div className="mt-2">
        <Rows
          items={arms}
          name={(_, index) => `arm ${index + 1}`}
          add="Add an arm length"
          onAdd={() => set({ arms: [...arms, arms[arms.length - 1] ?? entry("12", "300")] })}
          onSet={(left) => set({ arms: left })}
        >
          {(arm, index, put) => (
            <LengthFields
              at={`/sway/splined/arms/${index}`}
              form={{ arm }}
              fields={ARM}
              onPut={(part) => part.arm && put(part.arm)}
            />
          )}
        </Rows>
      </div>
      <Tick
        label="It runs in tubes welded through the frame"
        value={form.tubes !== undefined}
        onPick={(welded) => change(runsInTubes(welded === true))}
      />
      {form.tubes && (
        <>
          <div className="grid items-end gap-x-2 sm:grid-cols-3">
            <LengthFields
              at="/sway/splined/tubes"
              form={form.tubes}
              fields={TUBES}
              onPut={(part) => change(setTubes(part))}
            />
          </div>
          <Tick
            label="With inner plates"
            value={form.tubes.inner_plates}
            onPick={(inner_plates) => change(setTubes({ inner_plates: inner_plates ?? false }))}
          />
        </>
      )}
      <p className="text-[15px] text-muted">Weights, springs and the other axle go on the Rig screen:</p>
      <Button className="justify-self-start" onClick={() => go("/vehicle/left_corner")}>
        Go to the weights
      </Button>
    </>
  );
}
