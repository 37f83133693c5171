import { useCallback, useRef } from "react";
import { answer, client, type Schemas, type TapeEntry } from "../../api/client";
import { addRound } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { TextField } from "../../ui/TextField";

/** Turns as they were counted, by hand or by a counter: the length they come to is recorded as set. */
export function CountedTurns({ fitting }: { fitting: Schemas["Round"] }) {
  const { view, job, change } = useJob();
  const round = job.setups?.rounds?.length ?? 0;
  const lengths = useRef(new Map<string, TapeEntry>());
  const { document } = view;
  const check = useCallback(
    async (text: string) => {
      const query = { turns: text };
      const result = await answer(
        client.POST("/api/v1/compute/turned", { body: document, params: { query } }),
      );
      if ("data" in result) {
        lengths.current.set(text, result.data.length);
        return undefined;
      }
      if ("silent" in result) return { fault: "No answer from the program. Try again.", silent: true };
      return { fault: result.problem.detail };
    },
    [document],
  );
  return (
    <TextField
      key={round}
      job={view.id}
      pointer={`/setups/rounds/${round}/note`}
      label="Or turns counted, + longer"
      hint="Enter keeps the length they come to. Measure it all the same."
      value=""
      takes="turn_counter"
      check={check}
      onCommit={(text) => {
        const length = lengths.current.get(text);
        if (length) change(addRound({ ...fitting, length, note: `Turns counted: ${text.trim()}` }));
      }}
    />
  );
}
