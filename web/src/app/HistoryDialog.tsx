import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client } from "../api/client";
import { useSession } from "../job/session";
import { useJob } from "../job/useJob";
import { Button } from "../ui/Button";
import { differences } from "./differences";
import { Modal } from "./Modal";

const WORDS: Record<string, string> = {
  created: "made",
  saved: "changed",
  undone: "undone",
  redone: "redone",
  restored: "restored",
};

type HistoryDialogProps = { open: boolean; onOpenChange: (open: boolean) => void };

/** Every revision of the job; an earlier one can be looked at and brought back. */
export function HistoryDialog({ open, onOpenChange }: HistoryDialogProps) {
  const { view } = useJob();
  const [picked, setPicked] = useState<number | null>(null);
  const history = useQuery({
    queryKey: ["history", view.id, view.revision],
    enabled: open,
    queryFn: async () => {
      const result = await answer(
        client.GET("/api/v1/jobs/{id}/revisions", { params: { path: { id: view.id } } }),
      );
      return "data" in result ? result.data : [];
    },
  });
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title="History"
      says="Every saved change is kept. Choose one to see what was different."
    >
      <ol className="grid max-h-[40dvh] gap-1 overflow-y-auto">
        {history.data?.map((line) => (
          <li key={line.revision}>
            <Button
              look={picked === line.revision ? "strong" : "plain"}
              className="w-full justify-between!"
              onClick={() => setPicked(line.revision)}
            >
              <span>
                {line.revision}. {WORDS[line.kind] ?? line.kind}
              </span>
              <span>
                {new Date(line.saved_at).toLocaleString()}
                {line.revision === view.revision ? ", now" : ""}
              </span>
            </Button>
          </li>
        ))}
      </ol>
      {picked !== null && picked !== view.revision && (
        <Earlier revision={picked} onDone={() => onOpenChange(false)} />
      )}
      <div>
        <Button onClick={() => onOpenChange(false)}>Close</Button>
      </div>
    </Modal>
  );
}

function Earlier({ revision, onDone }: { revision: number; onDone: () => void }) {
  const { view, job } = useJob();
  const step = useSession((s) => s.step);
  const then = useQuery({
    queryKey: ["revision", view.id, revision],
    queryFn: async () => {
      const result = await answer(
        client.GET("/api/v1/jobs/{id}/revisions/{revision}", { params: { path: { id: view.id, revision } } }),
      );
      return "data" in result ? result.data : null;
    },
  });
  if (!then.data) return null;
  const rows = differences(job, then.data);
  return (
    <div className="grid gap-2 border-[1.5px] border-ink p-3">
      <table className="w-full text-left">
        <thead>
          <tr className="border-ink border-b">
            <th scope="col" className="pr-2 font-semibold">
              what
            </th>
            <th scope="col" className="pr-2 font-semibold">
              now
            </th>
            <th scope="col" className="font-semibold">
              then
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, 30).map((row) => (
            <tr key={row.place} className="border-line border-b align-top">
              <td className="pr-2">{row.place}</td>
              <td className="pr-2">{row.mine}</td>
              <td>{row.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        look="strong"
        onClick={async () => {
          await step({ restore: revision });
          onDone();
        }}
      >
        Restore revision {revision}
      </Button>
    </div>
  );
}
