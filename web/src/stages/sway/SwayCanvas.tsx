import { useState } from "react";
import { Stick } from "../../elevation/Stick";
import { useStance } from "../../elevation/stance";
import { roomGapAt } from "../../elevation/walk/near";
import { useJob } from "../../job/useJob";
import { swayPoseAt, useSwayed } from "../../job/useSwayed";
import { useWheels } from "../../job/useWheels";
import { say } from "../../measure/format";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { useOpened } from "../../ui/opened";
import { useSettings } from "../../ui/settings";
import { Walkable } from "../../walk/Walkable";
import { ArmView } from "./ArmView";
import { LinkRule } from "./LinkRule";
import { SwayEnd } from "./SwayEnd";

/** The bay wall of stage Sway: both arms with their links, the link on its rule, the stick. */
export function SwayCanvas() {
  const { results } = useJob();
  const swayed = useSwayed();
  const wheels = useWheels(results);
  const { crossed, round, picked } = useStance();
  const units = useSettings((s) => s.units);
  // The section that is about it shows it; the press shows it whatever is open.
  const section = useOpened((s) => s.sections.sway);
  const open = section === "disconnect";
  const [pressed, setPressed] = useState<boolean | null>(null);
  const shown = pressed ?? open;
  const setShown = (show: boolean) => setPressed(show === open ? null : show);
  const links = swayed?.links;
  const stowed = shown && swayed?.stowed?.reaches ? swayed.stowed : undefined;
  const room =
    section === "room" && swayed?.room
      ? { room: swayed.room, near: roomGapAt(swayed.room.gaps, wheels, picked) }
      : undefined;
  const pose = links && swayPoseAt(links, wheels, crossed !== null);
  const { elevation } = results;
  const most = links?.crossed[0];
  const swing = (share: number) => {
    const turn = Math.sin(share * 2 * Math.PI);
    if (round === "heave" || !most) {
      const to = turn > 0 ? turn * elevation.full_bump_mm : -turn * elevation.full_droop_mm;
      return { left: to, right: to };
    }
    // From one end of the lean to the other through ride height.
    const [up, down] = [most.left_wheel_mm, most.right_wheel_mm];
    return turn > 0 ? { left: up * turn, right: down * turn } : { left: -down * turn, right: -up * turn };
  };
  if (!swayed || !links || !pose) {
    return (
      <section
        aria-label="Arms and links"
        className="grid min-h-0 place-content-center p-6 text-muted max-md:h-40"
      >
        {swayed ? "What is missing is listed in the panel." : "Calculating the arms…"}
      </section>
    );
  }
  return (
    <section
      aria-label="Arms and links to scale"
      className="grid min-h-0 grid-cols-[minmax(0,1fr)_auto] grid-rows-[minmax(0,1fr)] gap-1 p-2 max-md:h-[560px] md:p-3"
    >
      <Walkable withSway under={<LinkRule links={links} />}>
        <div className="relative grid min-h-0 grid-cols-2 grid-rows-[minmax(0,6fr)_minmax(0,5fr)]">
          <SwayEnd links={links} pose={pose} elevation={elevation} stowed={stowed} room={room} />
          <ArmView links={links} pose={pose} side="left" stowed={stowed} />
          <ArmView links={links} pose={pose} side="right" stowed={stowed} />
          {stowed && (
            <p className="absolute bottom-1 left-1 max-w-[44%] bg-paper leading-tight" data-stow-says>
              <Figure>{say(stowed.says, units)}</Figure>
            </p>
          )}
          {swayed.stowed?.reaches && (
            <Button
              className="absolute right-1 bottom-[46%]"
              aria-pressed={shown}
              onClick={() => setShown(!shown)}
              data-stow
            >
              {shown ? "Show connected" : "Show stowed"}
            </Button>
          )}
        </div>
      </Walkable>
      <div className="min-h-0">
        <Stick
          elevation={elevation}
          heights={results.heights}
          low={elevation.full_droop_mm}
          high={elevation.full_bump_mm}
          round={swing}
        />
      </div>
    </section>
  );
}
