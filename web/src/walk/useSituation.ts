import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answer, type CycleResult, client, type Schemas } from "../api/client";
import { poseAt } from "../elevation/cyclePose";
import { useStance } from "../elevation/stance";
import { type Near, nearAt, roomGapAt } from "../elevation/walk/near";
import type { Situation } from "../elevation/walk/scene";
import { useCycled } from "../job/useCycled";
import { useJob } from "../job/useJob";
import { swayPoseAt, useSwayed } from "../job/useSwayed";
import { useWheels } from "../job/useWheels";
import { at } from "../measure/travel";
import { useOpened } from "../ui/opened";

/** The nearest gap in each pose, fetched once for a revision: turning asks for nothing. */
function useNear(asked: boolean): Schemas["NearResult"] | undefined {
  const { view } = useJob();
  const { data } = useQuery({
    enabled: asked,
    queryKey: ["near", view.id, view.revision],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 20_000,
    queryFn: async () => {
      const result = await answer(client.POST("/api/v1/compute/near", { body: view.document }));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}

type Setups = "found" | "planned";

const setupOf = (cycle: CycleResult | undefined, shown: Setups) =>
  shown === "planned" && cycle?.plan ? cycle.plan : cycle?.found;

/** The axle as it stands at this place of the stick and the square, in space; with its sway bar where that is asked. */
export function useSituation(
  withSway: boolean,
  withNear: boolean,
): { situation: Situation; near: Near | undefined } {
  const { job, results } = useJob();
  const { shown, travel: stick, crossed, picked } = useStance();
  const cycle = useCycled();
  const swayed = useSwayed(withSway);
  const gaps = useNear(withNear);
  const wheels = useWheels(results);
  const { elevation, bar } = results;
  const { left, right } = wheels;
  const roomOpen = useOpened((s) => s.sections.sway) === "room";
  const room = withSway ? swayed?.room : undefined;
  const situation = useMemo((): Situation => {
    const setup = setupOf(cycle, shown);
    const pose = setup && poseAt(setup, { left, right });
    const travel = stick ?? elevation.driven_travel_mm;
    const sample = at(bar?.sweep ?? [], travel);
    const offset = (shown === "found" ? sample?.found_mm : sample?.planned_mm) ?? elevation.axle_offset_mm;
    // Without a mechanism, the bar's own arc places the axle, which does not lean.
    const level = { x_mm: 0, y_mm: offset, z: travel, roll_deg: 0, pitch_deg: 0, yaw_deg: 0 };
    const links = withSway ? swayed?.links : undefined;
    const swayPose = links && swayPoseAt(links, { left, right }, crossed !== null);
    return {
      elevation,
      pose: pose ?? level,
      solved: setup && pose && { setup, pose },
      planned: shown === "planned",
      leafSprings: job.rig?.axle_location === "leaf_springs",
      sway: links && swayPose && { links, pose: swayPose },
      room: room && { things: room.things, open: roomOpen },
    };
  }, [
    cycle,
    shown,
    left,
    right,
    stick,
    crossed,
    elevation,
    bar,
    withSway,
    swayed,
    room,
    roomOpen,
    job.rig?.axle_location,
  ]);
  const near = useMemo(() => {
    const reported = room && roomOpen ? roomGapAt(room.gaps, { left, right }, picked) : undefined;
    return reported ?? nearAt(shown === "planned" && gaps?.plan ? gaps.plan : gaps?.found, { left, right });
  }, [gaps, shown, left, right, room, roomOpen, picked]);
  return { situation, near };
}
