import { Button } from "../ui/Button";
import { Modal } from "./Modal";

const KEYS = [
  ["1 to 8", "go to a screen"],
  ["[ and ]", "step the stick down and up"],
  ["Home", "driven height"],
  ["Space", "cycle through the travel; pause"],
  ["F", "from the front or from the rear"],
  [", and .", "walk around the drawing"],
  ["B", "look from underneath"],
  ["U", "inches or millimeters"],
  ["N", "next empty field of a measurement"],
  ["T", "in Bolt-up: check off the open step"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Enter, in a field", "keep it and go to the next"],
  ["Escape, in a field", "back to the last good value"],
  ["?", "this list"],
] as const;

/** All the keys. */
export function KeysDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title="Keyboard shortcuts"
      says="Shortcuts are off while you type in a field."
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
