import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { rowKeys, withRow } from "../../ui/rows";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";
import { useRowIds } from "../../ui/useRowIds";
import { renameHeight, setRig } from "../job/edits";
import { useJob } from "../job/useJob";

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
  const ids = useRowIds(heights);
  /** The height of a key as it is by then, not as it was when its field was left. */
  const put = (key: string, part: Partial<Schemas["HeightState"]>) =>
    change((job) => setRig({ heights: withRow(job.rig?.heights ?? [], key, part) })(job));
  const { change } = useJob();
  const rename = (index: number, name: string) => change(renameHeight(heights[index]?.name ?? "", name));
  const add = () => {
    const taken = heights.map((height) => height.name);
    const name =
      ["raised", "loaded", "lowered"].find((word) => !taken.includes(word)) ?? `height ${heights.length + 1}`;
    onSet({ heights: [...heights, { name, offset: { text: "0", unit: rig.sheet_unit ?? "in" } }] });
  };
  const remove = (index: number) => {
    const name = heights[index]?.name;
    onSet({
      heights: heights.filter((_, at) => at !== index),
      driven_height: rig.driven_height === name ? "" : rig.driven_height,
    });
  };
  const options = [
    ...(heights.some((height) => height.name === rig.driven_height) && heights.length > 1
      ? []
      : [{ value: "-", label: "ride height" }]),
    ...heights.map((height) => ({ value: height.name, label: height.name })),
  ];
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-[15px] text-muted">
        Heights it stands at, above ride height (− is below)
      </legend>
      {heights.map((height, index) => (
        <div key={ids[index]} className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
          <TextField
            job={jobId}
            pointer={`/rig/heights/${index}/name`}
            kept={`/rig/heights/=${keys[index]}/name`}
            label="name"
            required
            value={height.name}
            onCommit={(name) => rename(index, name)}
          />
          <TapeField
            job={jobId}
            pointer={`/rig/heights/${index}/offset`}
            kept={`/rig/heights/=${keys[index]}/offset`}
            label="higher by"
            signed
            unit={rig.sheet_unit ?? "in"}
            value={height.offset}
            onCommit={(offset) => offset && put(keys[index] ?? "", { offset })}
          />
          <Button
            look="quiet"
            className="mt-6"
            aria-label={`take out ${height.name}`}
            onClick={() => remove(index)}
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
          label="Really driven at"
          pointer="/rig/driven_height"
          value={rig.driven_height ? rig.driven_height : "-"}
          options={options}
          onPick={(name) => onSet({ driven_height: name === "-" ? "" : name })}
          hint="All decisions are made at this height."
        />
      )}
    </fieldset>
  );
}
