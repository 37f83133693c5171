import { Hand, Plus } from "lucide-react";
import { useEffect } from "react";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { useHeld, withPart } from "./usePlanned";

/** Says that what is shown has a part in it which the job does not have yet. */
export function HeldPart() {
  const { change } = useJob();
  const { part, hold } = useHeld();
  // Gone from the stage, it hangs on the rack again.
  useEffect(() => () => useHeld.setState({ part: null }), []);
  if (!part) return null;
  return (
    <section className="grid gap-2 border-[1.5px] border-ink bg-tape p-3" data-held={part.name}>
      <p className="flex items-start gap-2">
        <Hand size={20} aria-hidden className="mt-0.5 shrink-0" />
        <span>
          <b>Trying on this axle, not added to the job:</b> {part.name}. Everything here is calculated as if
          it were installed.
        </span>
      </p>
      <div className="flex flex-wrap gap-2">
        <Button
          look="strong"
          onClick={() => {
            change(withPart(part));
            hold(null);
          }}
        >
          <Plus size={18} aria-hidden />
          Add to this job
        </Button>
        <Button onClick={() => hold(null)}>Take it away</Button>
      </div>
    </section>
  );
}
