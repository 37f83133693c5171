import type { PlanOption } from "../../api/client";
import type { Scene } from "../../elevation/ElevationView";
import { HoleHandles } from "../../elevation/HoleHandles";
import { choosePlan } from "../../job/edits";
import { useJob } from "../../job/useJob";
import { keyOf, lookedAt, useLookedAt, usePlanned } from "./usePlanned";

/** Ghosts of every hole over the elevation; either eye is taken and moved from hole to hole. */
export function HoleGhosts({ scene }: { scene: Scene }) {
  const { job, change } = useJob();
  const plan = usePlanned();
  const { key, look } = useLookedAt();
  const here = lookedAt(plan, key, job.setups?.plans?.chosen);
  if (!plan || !here) return null;
  const { picture, travel, axle, canvas } = scene;
  const place = (option: PlanOption, end: "frame" | "axle") => {
    const [y = 0, z = 0] = end === "frame" ? option.frame_eye_mm : option.axle_eye_mm;
    return end === "frame"
      ? ([picture.x(y), picture.y(z - travel)] as const)
      : ([picture.x(y + axle), picture.y(z)] as const);
  };
  const none = plan.options.find((option) => option.end === undefined && option.plan.bar === here.plan.bar);
  const handles = (["axle", "frame"] as const).map((end) => {
    // One bar's options: a hole is one place whatever the bar.
    const options = plan.options.filter((o) => o.end === end && o.plan.bar === here.plan.bar);
    if (options.length === 0 || !none) return null;
    const holes = [none, ...options].map((option) => ({
      id: keyOf(option),
      name: option.name,
      at_mm: [],
      chosen: here.end === end ? keyOf(option) === keyOf(here) : option === none,
      place: place(option, end),
    }));
    const find = (id: string) => plan.options.find((option) => keyOf(option) === id);
    return (
      <HoleHandles
        key={end}
        end={end}
        holes={holes}
        canvas={canvas}
        onTry={look}
        onPut={(id) => {
          const option = find(id);
          if (option) change(choosePlan(option.plan));
          look(null);
        }}
      />
    );
  });
  const [from, to] = [place(here, "frame"), place(here, "axle")];
  return (
    <g>
      {plan.options
        .filter((o) => o.plan.bar === here.plan.bar && keyOf(o) !== keyOf(here))
        .map((option) => {
          const [a, b] = [place(option, "frame"), place(option, "axle")];
          return (
            <line
              key={keyOf(option)}
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              stroke="var(--muted)"
              strokeWidth={1.5}
              strokeDasharray="4 5"
              opacity={0.6}
            />
          );
        })}
      <line
        x1={from[0]}
        y1={from[1]}
        x2={to[0]}
        y2={to[1]}
        stroke="var(--ink)"
        strokeWidth={5}
        strokeDasharray="12 5"
      />
      <line
        x1={from[0]}
        y1={from[1]}
        x2={to[0]}
        y2={to[1]}
        stroke="var(--marker)"
        strokeWidth={2.5}
        strokeDasharray="12 5"
      />
      {handles}
    </g>
  );
}
