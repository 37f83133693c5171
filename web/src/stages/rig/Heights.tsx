import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { setRig } from "../../job/edits";
import { newId } from "../../job/ids";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { rowKeys, withoutRow, withRow } from "../../ui/rows";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";

type Rig = Schemas["Rig"];

/** Heights it stands at, and which of them it is really driven at. */
export function Heights({
  rig,
  jobId,
  onSet,
}: {
  rig: Rig;
  jobId: string;
  onSet: (part: Partial<Rig>) => void;
}) {
  const heights = rig.heights ?? [];
  const keys = rowKeys(heights);
  /** The height of a key as it is by then, not as it was when its field was left. */
  const put = (key: string, part: Partial<Schemas["HeightState"]>) =>
    change((job) => setRig({ heights: withRow(job.rig?.heights ?? [], key, part) })(job));
  const { change } = useJob();
  const add = () => {
    const taken = heights.map((height) => height.name);
    const name =
      ["raised", "loaded", "lowered"].find((word) => !taken.includes(word)) ?? `height ${heights.length + 1}`;
    onSet({
      heights: [
        ...heights,
        { id: newId("height"), name, offset: { text: "0", unit: rig.sheet_unit ?? "in" } },
      ],
    });
  };
  const remove = (key: string) =>
    change((job) =>
      setRig({
        heights: withoutRow(job.rig?.heights ?? [], key),
        driven_height: job.rig?.driven_height === key ? "" : job.rig?.driven_height,
      })(job),
    );
  const options = [
    ...(heights.some((height) => height.id === rig.driven_height) && heights.length > 1
      ? []
      : [{ value: "-", label: "ride height" }]),
    ...heights.map((height) => ({ value: height.id ?? "", label: height.name })),
  ];
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-[15px] text-muted">
        Heights it can sit at, above ride height (− is below)
      </legend>
      {heights.map((height, index) => (
        <div key={keys[index]} className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
          <TextField
            job={jobId}
            pointer={`/rig/heights/${index}/name`}
            kept={`/rig/heights/=${keys[index]}/name`}
            label="name"
            required
            value={height.name}
            onCommit={(name) => put(keys[index] ?? "", { name })}
          />
          <TapeField
            job={jobId}
            pointer={`/rig/heights/${index}/offset`}
            kept={`/rig/heights/=${keys[index]}/offset`}
            label="above ride height by"
            signed
            unit={rig.sheet_unit ?? "in"}
            value={height.offset}
            onCommit={(offset) => offset && put(keys[index] ?? "", { offset })}
          />
          <Button
            look="quiet"
            className="mt-6"
            aria-label={`remove ${height.name}`}
            onClick={() => remove(keys[index] ?? "")}
          >
            <Trash2 size={18} aria-hidden />
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={add}>
          <Plus size={18} aria-hidden />
          Add a height
        </Button>
      </div>
      {heights.length > 0 && (
        <Choice
          label="Height it is driven at"
          pointer="/rig/driven_height"
          value={rig.driven_height ? rig.driven_height : "-"}
          options={options}
          onPick={(id) => onSet({ driven_height: id === "-" ? "" : id })}
          hint="Everything is worked out at this height."
        />
      )}
    </fieldset>
  );
}
