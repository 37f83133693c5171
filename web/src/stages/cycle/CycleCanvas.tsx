import type { CycleResult, Results } from "../../api/client";
import { CycleView } from "../../elevation/CycleView";
import { poseAt, roundAt, type Wheels } from "../../elevation/cyclePose";
import { HeavePlot } from "../../elevation/HeavePlot";
import { type Pointer, Rule } from "../../elevation/Rule";
import { Stick } from "../../elevation/Stick";
import { useStance } from "../../elevation/stance";
import { setTrial, tried } from "../../job/edits";
import { useCycled, useTrial } from "../../job/useCycled";
import { useJob } from "../../job/useJob";
import { useWheels } from "../../job/useWheels";
import { Walkable } from "../../walk/Walkable";

/** The bay wall of stage Cycle: side view, end view, a plot beside the stick. */
export function CycleCanvas() {
  const { job, results, change } = useJob();
  const cycle = useCycled();
  const { shown, round } = useStance();
  const hold = useTrial((s) => s.set);
  const wheels = useWheels(results);
  const setup = shown === "planned" && cycle?.plan ? cycle.plan : cycle?.found;
  if (!cycle || !setup) {
    return (
      <section aria-label="The axle to scale" className="grid min-h-0 place-content-center p-6 text-muted">
        {cycle ? "What is missing is listed in the panel." : "Cycling the axle…"}
      </section>
    );
  }
  const trial = job.setups?.plans?.trial;
  const eye = (end: "axle" | "frame") => ({
    onTry: (hole: string) => hold(tried(trial, end, hole) ?? {}),
    onPut: (hole: string) => {
      useStance.getState().setShown("planned");
      change(setTrial(tried(trial, end, hole)));
      hold(null);
    },
  });
  const { elevation } = results;
  const first = setup.heave[0];
  const last = setup.heave[setup.heave.length - 1];
  return (
    <section
      aria-label="The axle to scale"
      className="grid min-h-0 grid-cols-[minmax(0,1fr)_auto] grid-rows-[minmax(0,1fr)] gap-1 p-2 max-md:h-[600px] md:p-3"
    >
      <Walkable under={<PoseRule cycle={cycle} results={results} wheels={wheels} />}>
        <CycleView
          cycle={cycle}
          setup={setup}
          elevation={elevation}
          wheels={wheels}
          steeringSide={job.rig?.steering_side}
          axleEye={eye("axle")}
          frameEye={eye("frame")}
        />
      </Walkable>
      <div className="min-h-0">
        <Stick
          elevation={elevation}
          heights={results.heights}
          low={first?.left_mm ?? elevation.full_droop_mm}
          high={last?.left_mm ?? elevation.full_bump_mm}
          beside={(scale) =>
            cycle.found && (
              <HeavePlot
                found={cycle.found}
                plan={cycle.plan}
                travel={(wheels.left + wheels.right) / 2}
                scale={scale}
                className="ml-4 max-xl:hidden"
              />
            )
          }
          round={(share) => roundAt(setup, round, share)}
        />
      </div>
    </section>
  );
}

/** Where the axle centre is in this pose, in both setups. */
function PoseRule({ cycle, results, wheels }: { cycle: CycleResult; results: Results; wheels: Wheels }) {
  const found = cycle.found && poseAt(cycle.found, wheels);
  const plan = cycle.plan && poseAt(cycle.plan, wheels);
  const pointers: Pointer[] = [];
  if (found) pointers.push({ name: "as found", kind: "found", mm: found.y_mm });
  if (plan) pointers.push({ name: cycle.plan_name || "plan", kind: "plan", mm: plan.y_mm });
  return <Rule pointers={pointers} tolerance={results.tolerance_mm} />;
}
