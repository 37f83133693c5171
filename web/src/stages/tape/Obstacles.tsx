import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { setHardpoints } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { distance, withMarks } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { rowKeys, withRow } from "../../ui/rows";
import { useSettings } from "../../ui/settings";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { useRowIds } from "../../ui/useRowIds";
import { PointInput } from "./PointInput";

type ObstacleForm = Schemas["ObstacleForm"];

const ON = optionsOf<Schemas["ObstacleOn"]>({
  body: "the body",
  axle: "the axle",
});
const SIDES = optionsOf<Schemas["Side"]>({
  left: "left",
  right: "right",
});
const PARTS = optionsOf<Schemas["ObstaclePart"]>({
  exhaust: "the exhaust",
  fuel_tank: "the fuel tank",
  oil_pan: "the oil pan",
  other: "something else",
});
const ROOMS = [
  { value: "usual", mm: 12.7, of: "typical" },
  { value: "own_bracket", mm: 6, of: "its own bracket" },
  { value: "engine", mm: 20, of: "the engine" },
] as const;

/** What a bar or link could touch, each as a rod between two points. */
export function Obstacles() {
  const { job, change } = useJob();
  const obstacles = job.hardpoints?.obstacles ?? [];
  const unit = job.rig?.sheet_unit ?? "in";
  const set = (changed: ObstacleForm[]) => change(setHardpoints({ obstacles: changed }));
  const keys = rowKeys(obstacles);
  const ids = useRowIds(obstacles);
  const put = (key: string, part: Partial<ObstacleForm>) =>
    change((old) => setHardpoints({ obstacles: withRow(old.hardpoints?.obstacles ?? [], key, part) })(old));
  const free = ["old bracket", "oil pan", "exhaust", "differential"].find((name) =>
    obstacles.every((obstacle) => obstacle.name !== name),
  );
  return (
    <section className="grid gap-1">
      {obstacles.map((obstacle, index) => (
        <ObstacleInput
          key={ids[index]}
          index={index}
          kept={`/hardpoints/obstacles/=${keys[index]}`}
          obstacle={obstacle}
          onPut={(part) => put(keys[index] ?? "", part)}
          onRemove={() => set(obstacles.filter((_, at) => at !== index))}
        />
      ))}
      <Button
        className="justify-self-start"
        onClick={() =>
          set([
            ...obstacles,
            {
              name: free ?? `obstacle ${obstacles.length + 1}`,
              side: "left",
              thickness: { text: unit === "in" ? "1" : "25", unit },
            },
          ])
        }
      >
        <Plus size={18} aria-hidden />
        Add an obstacle
      </Button>
    </section>
  );
}

type ObstacleInputProps = {
  index: number;
  /** Where its drafts are kept: by the row. */
  kept: string;
  obstacle: ObstacleForm;
  onPut: (part: Partial<ObstacleForm>) => void;
  onRemove: () => void;
};

function ObstacleInput({ index, kept, obstacle, onPut, onRemove }: ObstacleInputProps) {
  const { view, job } = useJob();
  const units = useSettings((s) => s.units);
  const unit = job.rig?.sheet_unit ?? "in";
  const at = `/hardpoints/obstacles/${index}`;
  const body = (obstacle.on ?? "body") === "body";
  return (
    <Fold keep title={obstacle.name}>
      <TextField
        job={view.id}
        pointer={`${at}/name`}
        kept={`${kept}/name`}
        label="What it is"
        required
        value={obstacle.name}
        onCommit={(name) => onPut({ name })}
      />
      <Choice
        label="It is"
        value={obstacle.part ?? "other"}
        options={PARTS}
        onPick={(part) => onPut({ part })}
      />
      <Choice label="Fixed to" value={obstacle.on ?? "body"} options={ON} onPick={(on) => onPut({ on })} />
      <Choice
        label="Measured toward the"
        value={obstacle.side}
        options={SIDES}
        onPick={(side) => onPut({ side })}
      />
      <TapeField
        job={view.id}
        pointer={`${at}/thickness`}
        kept={`${kept}/thickness`}
        label="How thick it is"
        unit={unit}
        value={obstacle.thickness}
        onCommit={(thickness) => thickness && onPut({ thickness })}
      />
      <PointInput
        label="One end, at its center"
        pointer={`${at}/from`}
        kept={`${kept}/from`}
        point={obstacle.from}
        onBody={body}
        onPut={(from) => onPut({ from })}
      />
      <PointInput
        label="The other end"
        pointer={`${at}/to`}
        kept={`${kept}/to`}
        point={obstacle.to}
        onBody={body}
        onPut={(to) => onPut({ to })}
      />
      <Choice
        label="Clearance needed"
        value={obstacle.room ?? "usual"}
        options={ROOMS.map(({ value, mm, of }) => ({
          value,
          label: `${withMarks(distance(mm, units))}, ${of}`,
        }))}
        onPick={(room) => onPut({ room })}
      />
      <Button look="quiet" onClick={onRemove}>
        <Trash2 size={18} aria-hidden />
        Take {obstacle.name} out
      </Button>
    </Fold>
  );
}
