import type { SwayResult } from "../../api/client";
import { setSway } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";
import { WorkingOut } from "../../ui/WorkingOut";
import { BuildStages } from "./BuildStages";
import { RestsOn } from "./RestsOn";

/** The holes of the arm, each with what the bar gives in it. */
export function Holes({ swayed }: { swayed: SwayResult }) {
  const { change } = useJob();
  const units = useSettings((s) => s.units);
  return (
    <>
      <RestsOn count={swayed.holes[0]?.assumed ?? 0} />
      <ul data-holes>
        {swayed.holes.map((hole, index) => (
          <li key={hole.id} className="border-line border-b last:border-b-0">
            <button
              type="button"
              aria-pressed={hole.in_use}
              className={`min-h-11 w-full px-1 py-1.5 text-left leading-tight ${hole.in_use ? "bg-marker text-on-marker" : ""}`}
              data-arm-hole={index}
              onClick={() => change(setSway({ hole: hole.id }))}
            >
              <Figure>{say(hole.says, units)}</Figure>
            </button>
          </li>
        ))}
      </ul>
      <BuildStages swayed={swayed} />
      <WorkingOut working={swayed.bar_working} />
    </>
  );
}
