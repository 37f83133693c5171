import { useState } from "react";
import type { Job, Schemas } from "../../api/client";
import { addRound } from "../../job/edits";
import { InstalledParts } from "../../job/InstalledParts";
import { PARTS } from "../../job/installs";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { RealPlaces } from "./RealPlaces";

type Moved = NonNullable<Schemas["Round"]["moved"]>[number];
type Named = { id?: string; name: string };

const nameOf = (rows: readonly Named[] | undefined, id: string) =>
  rows?.find((row) => row.id === id)?.name || id;

/** The hole an eye was moved to, by its name. */
function holeOf(job: Job, { end, to }: Moved) {
  const found = end === "frame" ? job.setups?.found?.frame_holes : job.setups?.found?.axle_holes;
  const bracket = job.bracket?.brackets?.find((row) => row.id === to?.bracket);
  const holes = bracket ? bracket.holes : found;
  const hole = holes?.find((row) => row.id === to?.hole)?.name;
  return [hole, bracket && `of ${bracket.name}`].filter(Boolean).join(" ") || "another hole";
}

/** Whatever else was changed, on record: a leg of a Y-link turned, a bracket welded. */
export function RecordChange() {
  const { job, change } = useJob();
  const [note, setNote] = useState("");
  const [by, setBy] = useState("");
  const rounds = job.setups?.rounds ?? [];
  const look = "min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2";
  const keep = () => {
    change(addRound({ note: note.trim(), ...(by.trim() && { by: by.trim() }) }));
    setNote("");
  };
  return (
    <section>
      {rounds.length > 0 && (
        <ol className="mb-2 list-decimal pl-6" data-rounds>
          {rounds.map((round, index) => (
            <li key={index}>
              {[
                round.bar && `installed ${nameOf(job.bracket?.bars, round.bar)}`,
                ...(round.moved ?? []).map((moved) => `${moved.end} eye to ${holeOf(job, moved)}`),
                round.cut && `cut ${round.cut.each_end.text} ${round.cut.each_end.unit} off each end`,
                round.drag_link && `installed ${nameOf(job.bracket?.drag_links, round.drag_link)}`,
                round.drag_link_length &&
                  `drag link ${round.drag_link_length.text} ${round.drag_link_length.unit}`,
                round.length && `length ${round.length.text} ${round.length.unit}`,
                round.sway_link && `sway links ${round.sway_link.text} ${round.sway_link.unit}`,
                ...(round.parts ?? []).map((part) => `installed ${PARTS[part]}`),
                round.note,
                round.by && `by ${round.by}`,
              ]
                .filter(Boolean)
                .join(", ")}
            </li>
          ))}
        </ol>
      )}
      <InstalledParts />
      <RealPlaces />
      <p className="mt-2 text-[15px] text-muted">
        After a change the earlier measurements no longer count: measure both sides again.
      </p>
      <label className="mt-1 block text-[15px] text-muted">
        What was changed
        <input className={look} value={note} onChange={(event) => setNote(event.target.value)} />
      </label>
      <label className="mt-1 block text-[15px] text-muted">
        By
        <input className={look} value={by} onChange={(event) => setBy(event.target.value)} />
      </label>
      <div className="mt-2">
        <Button onClick={keep} disabled={note.trim() === ""}>
          Save to the record
        </Button>
      </div>
    </section>
  );
}
