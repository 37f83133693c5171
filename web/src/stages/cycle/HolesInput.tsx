import { Plus, Trash2 } from "lucide-react";
import type { Schemas, TapeEntry } from "../../api/client";
import { setHoles } from "../../job/edits";
import { newId } from "../../job/ids";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { rowKeys, withoutRow, withRow } from "../../ui/rows";
import { TapeField } from "../../ui/TapeField";
import { TextField } from "../../ui/TextField";

type Hole = Schemas["Hole"];
type End = "axle" | "frame";

const BRACKETS = [
  { end: "axle", title: "on the axle" },
  { end: "frame", title: "on the frame" },
] as const satisfies readonly { end: End; title: string }[];

/** Other holes of both brackets, measured from the hole in use. */
export function HolesInput() {
  return (
    <section className="grid gap-1">
      <p className="text-[15px] text-muted">
        Measured from the center of the current hole. Down, inward and rearward are negative.
      </p>
      {BRACKETS.map(({ end, title }) => (
        <Bracket key={end} end={end} title={title} />
      ))}
    </section>
  );
}

function Bracket({ end, title }: { end: End; title: string }) {
  const { view, job, change } = useJob();
  const holes = job.setups?.found?.[`${end}_holes`] ?? [];
  const unit = job.rig?.sheet_unit ?? "in";
  const keys = rowKeys(holes);
  const put = (index: number, part: Partial<Hole>) => {
    const key = keys[index] ?? "";
    // As they are by then, not as they were when the field was left.
    change((old) => setHoles(end, withRow(old.setups?.found?.[`${end}_holes`] ?? [], key, part))(old));
  };
  const free = Array.from({ length: holes.length + 1 }, (_, index) => `hole ${index + 2}`).find((name) =>
    holes.every((hole) => hole.name !== name),
  );
  const length = (index: number, name: "up" | "outward" | "forward", label: string, entry?: TapeEntry) => (
    <TapeField
      job={view.id}
      pointer={`/setups/found/${end}_holes/${index}/${name}`}
      kept={`/setups/found/${end}_holes/=${keys[index]}/${name}`}
      label={label}
      signed
      unit={unit}
      value={entry}
      onCommit={(value) => (name !== "up" || value) && put(index, { [name]: value })}
    />
  );
  return (
    <section className="mt-2 grid gap-1">
      <h4 className="font-semibold">Bracket {title}</h4>
      {holes.map((hole, index) => (
        <div
          key={keys[index]}
          className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-x-2 border-line border-b pb-1"
        >
          <TextField
            job={view.id}
            pointer={`/setups/found/${end}_holes/${index}/name`}
            kept={`/setups/found/${end}_holes/=${keys[index]}/name`}
            label="Name"
            required
            value={hole.name}
            onCommit={(name) => put(index, { name })}
          />
          <Button
            look="quiet"
            aria-label={`Remove ${hole.name}`}
            onClick={() =>
              change((old) =>
                setHoles(end, withoutRow(old.setups?.found?.[`${end}_holes`] ?? [], keys[index] ?? ""))(old),
              )
            }
          >
            <Trash2 size={18} aria-hidden />
          </Button>
          <div className="col-span-2 grid grid-cols-3 gap-2">
            {length(index, "up", "Up", hole.up)}
            {length(index, "outward", "Outward", hole.outward)}
            {length(index, "forward", "Forward", hole.forward)}
          </div>
        </div>
      ))}
      <Button
        className="justify-self-start"
        onClick={() =>
          change(
            setHoles(end, [...holes, { id: newId("hole"), name: free ?? "hole", up: { text: "1", unit } }]),
          )
        }
      >
        <Plus size={18} aria-hidden />
        Add a hole {title}
      </Button>
    </section>
  );
}
