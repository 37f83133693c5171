import { useSession } from "../stages/job/session";
import { Button } from "../ui/Button";
import { differences } from "./differences";
import { Modal } from "./Modal";

/** The same job was changed elsewhere: both versions, and the person chooses. */
export function ConflictDialog() {
  const { conflict, document, keepMine, takeTheirs } = useSession();
  if (!conflict || !document) return null;
  const rows = differences(document, conflict.document);
  const time = new Date(conflict.saved_at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  return (
    <Modal
      open
      title="This job was changed elsewhere"
      says={`Another window saved it at ${time}. Nothing is lost: pick one, the other stays in the history or can be typed again from here.`}
    >
      <table className="w-full text-left" data-conflict>
        <thead>
          <tr className="border-ink border-b">
            <th scope="col" className="py-1 pr-2 font-semibold">
              what
            </th>
            <th scope="col" className="pr-2 font-semibold">
              here
            </th>
            <th scope="col" className="font-semibold">
              elsewhere
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, 40).map((row) => (
            <tr key={row.place} className="border-line border-b align-top">
              <td className="py-1 pr-2">{row.place}</td>
              <td className="pr-2 font-semibold">{row.mine}</td>
              <td className="font-semibold">{row.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={keepMine}>
          Keep what is here
        </Button>
        <Button onClick={takeTheirs}>Take what is elsewhere</Button>
      </div>
    </Modal>
  );
}
