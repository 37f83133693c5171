import { memo, useDeferredValue, useMemo } from "react";
import { shapes } from "./draw";
import { Shapes } from "./Shapes";
import { type Part, type Situation, scene } from "./scene";
import { camera, type Look, type Point } from "./space";
import { strideTo } from "./useLook";
import { nameOf, VIEWS } from "./views";

const SIZE = { width: 84, height: 46 };

type WalkThumbsProps = { situation: Situation; look: Look };

/** The named views as small living drawings one can press. */
export function WalkThumbs({ situation, look }: WalkThumbsProps) {
  // They follow the stick when there is time for it.
  const late = useDeferredValue(situation);
  const parts = useMemo(() => scene(late), [late]);
  const here = nameOf(look);
  return (
    <fieldset
      aria-label="View from"
      className="grid max-w-[500px] grid-cols-5 gap-1.5 [[data-short]_&]:hidden"
      data-views
    >
      {VIEWS.map(({ name, look: to }) => (
        <button
          key={name}
          type="button"
          aria-pressed={here === name}
          className={`settle grid min-h-11 min-w-0 content-center justify-items-center rounded-[3px] border-[1.5px] px-1 pb-0.5 max-sm:px-0 leading-tight ${here === name ? "border-ink bg-marker text-on-marker" : "border-line bg-slate hover:border-ink"}`}
          data-view={name}
          onClick={() => strideTo(to)}
        >
          <Thumb parts={parts} situation={late} look={to} />
          <span className="text-[14px] max-sm:text-[13px] max-sm:tracking-tight">{name}</span>
        </button>
      ))}
    </fieldset>
  );
}

type ThumbProps = { parts: readonly Part[]; situation: Situation; look: Look };

const Thumb = memo(function Thumb({ parts, situation: { elevation, pose }, look }: ThumbProps) {
  const k = Math.min(SIZE.width / (elevation.track_mm + 420), SIZE.height / 1180);
  const centre: Point = [0, 0, elevation.axle_height_mm + pose.z + 90];
  const view = camera(look, centre, k, [SIZE.width / 2, SIZE.height / 2]);
  return (
    <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} aria-hidden className="w-full max-sm:hidden">
      <rect width={SIZE.width} height={SIZE.height} fill="var(--paper)" />
      <Shapes shapes={shapes(parts, view, centre)} k={k} small />
    </svg>
  );
});
