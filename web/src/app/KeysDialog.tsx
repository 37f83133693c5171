import { Button } from "../ui/Button";
import { Modal } from "./Modal";

const KEYS = [
  ["1 to 8", "go to a stage"],
  ["[ and ]", "step the stick down and up"],
  ["Home", "the driven height"],
  ["Space", "cycle the travel, hold it"],
  ["F", "from the front or from the rear"],
  [", and .", "walk round the drawing"],
  ["B", "lie under it"],
  ["U", "inches or millimetres"],
  ["N", "the next empty reading"],
  ["T", "in Bolt-up: tick the open step"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Enter, in a field", "keep it and go to the next"],
  ["Escape, in a field", "the last good value again"],
  ["?", "this list"],
] as const;

/** All the keys. */
export function KeysDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title="Keys"
      says="They do nothing while you type in a field."
    >
      <table className="w-full text-left">
        <tbody>
          {KEYS.map(([key, does]) => (
            <tr key={key} className="border-line border-b">
              <th scope="row" className="py-1.5 pr-3 font-semibold">
                {key}
              </th>
              <td>{does}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div>
        <Button onClick={() => onOpenChange(false)}>Close</Button>
      </div>
    </Modal>
  );
}
