import { useSession } from "../job/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { DifferenceTable } from "./DifferenceTable";
import { settlingLost } from "./differences";
import { Modal } from "./Modal";

/** The same job was changed elsewhere: both versions, and the person chooses. */
export function ConflictDialog() {
  const { conflict, document, keepMine, takeTheirs } = useSession();
  if (!conflict || !document) return null;
  const lost = settlingLost(document, conflict.document);
  const time = new Date(conflict.saved_at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  return (
    <Modal
      open
      title="This job was changed somewhere else"
      says={`Another window saved it at ${time}. Nothing is lost: choose one; the other stays in the history, or you can enter it again from here.`}
    >
      <DifferenceTable mine={document} theirs={conflict.document} names={["here", "elsewhere"]} />
      {lost && (
        <Notice kind="warning">
          It was closed somewhere else
          {conflict.document.proof?.by ? ` by ${conflict.document.proof.by}` : ""}. Keep mine and the job is
          open again.
        </Notice>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look={lost ? undefined : "strong"} onClick={keepMine}>
          {lost ? "Keep mine: job open again" : "Keep mine"}
        </Button>
        <Button look={lost ? "strong" : undefined} onClick={takeTheirs}>
          Use the other version
        </Button>
      </div>
    </Modal>
  );
}
