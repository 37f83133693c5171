import type { Schemas } from "../../api/client";
import { WorkingOut } from "../../ui/WorkingOut";
import { Checks } from "./Checks";

/** The eye's bolt: nut, hole, length and torque, with how its length is come by. */
export function BoltReported({ bolt }: { bolt: Schemas["BoltResult"] }) {
  return (
    <div className="grid gap-1" data-bolt>
      <Checks title="Track bar bolt" checks={bolt.checks} />
      {bolt.working && <WorkingOut working={bolt.working} />}
    </div>
  );
}
