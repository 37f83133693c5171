import type { Schemas } from "../api/client";
import { say } from "../measure/format";
import { Figure } from "../ui/Figure";
import { Fold } from "../ui/Fold";
import { useSettings } from "../ui/settings";
import { useGoToField } from "./Missing";

type AssumedProps = { assumptions: readonly Schemas["Assumption"][]; rests: string };

/** What is taken as usual because nobody measured it, each a press that goes to its field. */
export function Assumed({ assumptions, rests }: AssumedProps) {
  const units = useSettings((s) => s.units);
  const go = useGoToField();
  if (assumptions.length === 0) return null;
  return (
    <Fold title={`Assumed, not measured (${assumptions.length})`}>
      <ul className="grid" data-assumed>
        {assumptions.map((assumption) => (
          <li key={assumption.pointer} className="border-line border-b last:border-b-0">
            <button
              type="button"
              className="min-h-11 w-full py-1.5 text-left leading-tight underline decoration-line underline-offset-4"
              data-goes-to={assumption.pointer}
              onClick={() => go(assumption.pointer)}
            >
              <Figure>{say(assumption.says, units)}</Figure>
            </button>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">{rests} Tap one to go to its field.</p>
    </Fold>
  );
}
