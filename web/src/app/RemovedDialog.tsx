import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Undo2 } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, client } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { Modal } from "./Modal";

type RemovedDialogProps = { open: boolean; onOpenChange: (open: boolean) => void };

/** Jobs that were taken out of the bay, each to be brought back. */
export function RemovedDialog({ open, onOpenChange }: RemovedDialogProps) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [trouble, setTrouble] = useState<string | null>(null);
  const { data } = useQuery({
    queryKey: ["removed"],
    enabled: open,
    gcTime: 0,
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/removed-jobs"));
      if (!("data" in result)) throw new Error("no answer");
      return result.data;
    },
  });
  const bringBack = async (id: string) => {
    const result = await answer(client.POST("/api/v1/removed-jobs/{id}", { params: { path: { id } } }));
    if ("data" in result) {
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      navigate(`/jobs/${id}/tape`);
    } else setTrouble("problem" in result ? result.problem.detail : "No answer from the program.");
  };
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title="Removed jobs"
      says="Each comes back as it was, with its history."
    >
      {trouble && <Notice kind="refused">{trouble}</Notice>}
      {data?.length === 0 && <p>No removed jobs.</p>}
      <ul className="grid gap-1" data-removed={data?.length}>
        {data?.map(({ id, title, saved_at }) => (
          <li key={id} className="flex flex-wrap items-center gap-2">
            <span className="min-w-0 flex-1">
              {title}
              <span className="text-muted"> · saved {new Date(saved_at).toLocaleDateString()}</span>
            </span>
            <Button onClick={() => void bringBack(id)}>
              <Undo2 size={18} aria-hidden />
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
