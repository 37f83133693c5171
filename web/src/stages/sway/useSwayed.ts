import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, client, type SwayLinks, type SwayPose, type SwayResult } from "../../api/client";
import type { Wheels } from "../../elevation/cyclePose";
import { useJob } from "../job/useJob";

/** The sway bar of the job in view, worked out by the server; what was there stays until the new is. */
export function useSwayed(): SwayResult | undefined {
  const { view } = useJob();
  const { data } = useQuery({
    queryKey: ["sway", view.id, view.revision],
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    queryFn: async () => {
      const result = await answer(client.POST("/api/v1/compute/sway", { body: view.document }));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}

/** The fetched pose nearest to where the wheels are: of the lean and the envelope where they are crossed. */
export function swayPoseAt(links: SwayLinks, wheels: Wheels, crossed: boolean): SwayPose | undefined {
  const poses = crossed ? [...links.roll, ...links.envelope] : links.heave;
  const off = (pose: SwayPose) =>
    Math.hypot(pose.left_wheel_mm - wheels.left, pose.right_wheel_mm - wheels.right);
  return poses.reduce<SwayPose | undefined>(
    (best, pose) => (!best || off(pose) < off(best) ? pose : best),
    undefined,
  );
}
