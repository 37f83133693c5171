import { Plus } from "lucide-react";
import { useContext, useState } from "react";
import type { Schemas, TapeEntry } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice, optionsOf } from "../../ui/Choice";
import { useSettings } from "../../ui/settings";
import { TapeReading } from "../../ui/tapeReading";

type BracketPart = Schemas["BracketPart"];

const ENDS = optionsOf<Schemas["BracketEnd"]>({
  axle: "axle riser bracket",
  frame: "frame drop bracket",
});

const FEWEST = 4;

/** A bracket of one's own: its end and how far each hole moves the eye up. */
export function BracketInput({ onAdd }: { onAdd: (bracket: BracketPart) => void }) {
  const units = useSettings((s) => s.units);
  const read = useContext(TapeReading);
  const [name, setName] = useState("");
  const [end, setEnd] = useState<"axle" | "frame">("axle");
  const [holes, setHoles] = useState<string[]>(() => Array(FEWEST).fill(""));
  const [fault, setFault] = useState("");
  const add = async () => {
    if (name.trim() === "") return setFault("The bracket needs a name.");
    const typed = holes.map((text) => text.trim());
    const ups: (TapeEntry | undefined)[] = [];
    for (const [index, text] of typed.entries()) {
      if (text === "") continue;
      const judged = await read(text, units, true);
      if ("fault" in judged) return setFault(`Hole ${index + 1}: ${judged.fault}`);
      ups[index] = judged.value;
    }
    const made = ups.flatMap((up, index) =>
      // A drop is typed as a distance; it moves the eye down.
      up
        ? [
            {
              name: `hole ${index + 1}`,
              up: end === "frame" && up.mm !== undefined && up.mm > 0 ? turned(up) : up,
            },
          ]
        : [],
    );
    if (made.length === 0) return setFault("Enter at least one hole.");
    onAdd({ name: name.trim(), end, holes: made });
    setName("");
    setHoles(Array(FEWEST).fill(""));
    setFault("");
  };
  const field = "min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-tape px-2";
  return (
    <div className="mt-2 grid gap-2 border-line border-l-[3px] pl-2.5" data-own-bracket>
      <h4 className="font-semibold">Your own bracket</h4>
      <label className="text-[15px] text-muted">
        Name
        <input
          className={`${field} text-ink`}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Choice label="It mounts" value={end} options={ENDS} onPick={setEnd} />
      <div className="grid grid-cols-2 gap-2">
        {holes.map((text, index) => (
          <label key={index} className="text-[15px] text-muted">
            {`Hole ${index + 1}, ${end === "axle" ? "up" : "down"} (${units})`}
            <input
              className={`${field} text-[20px] text-ink`}
              value={text}
              onChange={(event) =>
                setHoles(holes.map((old, at) => (at === index ? event.target.value : old)))
              }
            />
          </label>
        ))}
      </div>
      {fault && (
        <p role="alert" className="text-axle">
          {fault}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void add()}>
          <Plus size={18} aria-hidden />
          Try this bracket
        </Button>
        <Button look="quiet" onClick={() => setHoles([...holes, ""])}>
          Add another hole
        </Button>
      </div>
    </div>
  );
}

/** The same distance downward, as typed. */
function turned(entry: TapeEntry): TapeEntry {
  return { text: `-${entry.text.trim()}`, unit: entry.unit };
}
