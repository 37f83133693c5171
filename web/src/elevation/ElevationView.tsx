import { type ReactNode, type RefObject, useRef } from "react";
import type { Elevation, Sample, Side } from "../api/client";
import { degrees, fine, sideways } from "../measure/format";
import { at } from "../measure/travel";
import { Choice } from "../ui/Choice";
import { Figure } from "../ui/Figure";
import { useSettings } from "../ui/settings";
import { EndView } from "./EndView";
import { fit, type Picture } from "./picture";
import { useStance } from "./stance";
import { useSize } from "./useSize";

type ElevationViewProps = {
  elevation: Elevation;
  sweep: readonly Sample[];
  steeringSide: Side | undefined;
  hasPlan: boolean;
  lengths?: { found: number; planned: number };
  planName: string;
  /** The enlarged drawing over the axle. */
  detail?: ReactNode;
  /** Drawn over the axle: places of the picture and of the pose in it. */
  overlay?: (scene: Scene) => ReactNode;
};

export type Scene = {
  picture: Picture;
  /** Travel from the driven height; bump takes the body down. */
  travel: number;
  /** Where the axle centre is, + left. */
  axle: number;
  canvas: RefObject<SVGSVGElement | null>;
};

/** The elevation, with what it is looked at from and what stands in it. */
export function ElevationView({
  elevation,
  sweep,
  steeringSide,
  hasPlan,
  lengths,
  planName,
  detail,
  overlay,
}: ElevationViewProps) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<SVGSVGElement>(null);
  const { width, height } = useSize(box);
  const { units, face } = useSettings();
  const stance = useStance();
  const shown = hasPlan ? stance.shown : "found";
  const travel = stance.travel ?? elevation.driven_travel_mm;
  const sample = at(sweep, travel);
  const found = sample?.found_mm ?? elevation.axle_offset_mm;
  const planned = sample?.planned_mm ?? found;
  const angle = sample && (shown === "found" ? sample.found_angle_deg : sample.planned_angle_deg);
  const length = lengths && (shown === "found" ? lengths.found : lengths.planned);
  const axle = shown === "found" ? found : planned;
  const posed = {
    travel: travel - elevation.driven_travel_mm,
    axle,
    planned: shown === "planned",
    ghost: hasPlan ? (shown === "found" ? planned : found) : undefined,
  };
  const [first, second]: [Side, Side] = face === "front" ? ["right", "left"] : ["left", "right"];
  const picture = fit(elevation, width, height, face, width < 500 ? 6 : 14);
  const options = [
    { value: "found", label: "as found" },
    { value: "planned", label: planName },
  ] as const;
  return (
    <div
      className="grid min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_auto_minmax(0,1fr)]"
      data-elevation
    >
      <div className="grid grid-cols-[auto_minmax(0,1fr)_auto] gap-x-2 gap-y-1">
        <SideName side={first} steeringSide={steeringSide} />
        <div className="grid justify-items-center gap-1">
          {length !== undefined && angle !== undefined && (
            <div className="text-center leading-tight" data-bar-caption>
              <b>
                <Figure>{fine(length, units)}</Figure>
              </b>
              <span className="max-lg:hidden"> eye to eye</span>, <b>{degrees(angle)}</b>
              <span className="max-lg:hidden">
                {Math.abs(angle) < 0.05 ? "" : angle > 0 ? ", frame end up" : ", axle end up"}
              </span>
            </div>
          )}
        </div>
        <SideName side={second} steeringSide={steeringSide} className="text-right" />
        {hasPlan && (
          <div className="col-span-3 justify-self-center [&>div>div:first-child]:sr-only [&_div]:flex-nowrap">
            <Choice label="Drawn" value={shown} options={options} onPick={stance.setShown} />
          </div>
        )}
      </div>
      {detail}
      <div ref={box} className="row-start-3 min-h-0 overflow-hidden">
        {width > 0 && height > 0 && (
          <svg ref={canvas} width={width} height={height} className="block">
            <title>{`The axle from the ${face}, to scale. The axle is ${sideways(axle, units)}.`}</title>
            <EndView elevation={elevation} picture={picture} posed={posed} />
            {overlay?.({ picture, travel: posed.travel, axle, canvas })}
          </svg>
        )}
      </div>
    </div>
  );
}

type SideNameProps = { side: Side; steeringSide: Side | undefined; className?: string };

export function SideName({ side, steeringSide, className = "" }: SideNameProps) {
  return (
    <div className={`leading-tight ${className}`}>
      <b className="uppercase tracking-wide">{side}</b>
      {steeringSide && (
        <div className="text-[15px] text-muted">{steeringSide === side ? "driver" : "passenger"}</div>
      )}
    </div>
  );
}
