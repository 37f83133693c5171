import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { Fold } from "../../ui/Fold";
import { useSettings } from "../../ui/settings";

/** What figures and drawing rest on that nobody measured. */
export function RigAssumed() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  if (results.assumptions.length === 0) return null;
  const list = (drawingOnly: boolean) =>
    results.assumptions
      .filter((a) => a.drawing_only === drawingOnly)
      .map((a) => say(a.says, units))
      .join(", ");
  return (
    <Fold title="Assumed, not measured">
      {list(false) && (
        <p>
          Results depend on: <Figure>{list(false)}</Figure>.
        </p>
      )}
      {list(true) && (
        <p>
          Only the drawing depends on: <Figure>{list(true)}</Figure>.
        </p>
      )}
    </Fold>
  );
}
