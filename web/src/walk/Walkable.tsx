import type { ReactNode } from "react";
import { lookAt, useLook } from "../elevation/walk/useLook";
import { WalkThumbs } from "../elevation/walk/WalkThumbs";
import { useWalking, WalkView } from "../elevation/walk/WalkView";
import { useJob } from "../job/useJob";
import { useSettings } from "../ui/settings";
import { useSituation } from "./useSituation";

type WalkableProps = {
  /** The plain elevation, at an end. */
  children: ReactNode;
  /** What lies under it there: the rule. Turning away lifts it off. */
  under?: ReactNode;
  /** With the sway bar, its arms and links. */
  withSway?: boolean;
};

/** A drawing that can be walked round: the plain elevation at front and rear, the axle in space between them. */
export function Walkable({ children, under, withSway = false }: WalkableProps) {
  const { job } = useJob();
  const look = useLook((s) => s.look);
  const { face, units } = useSettings();
  const drag = useWalking();
  const { situation, near } = useSituation(withSway, look !== null);
  return (
    <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto_auto] gap-1.5">
      {look ? (
        <WalkView
          situation={situation}
          near={near}
          look={look}
          units={units}
          driver={job.rig?.steering_side}
        />
      ) : (
        <div
          {...drag()}
          className="grid min-h-0 touch-pan-y grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)]"
        >
          {children}
        </div>
      )}
      <WalkThumbs situation={situation} look={look ?? lookAt(face)} />
      {!look && under}
    </div>
  );
}
