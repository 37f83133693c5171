import { keepPreviousData, useQuery } from "@tanstack/react-query";
import {
  answer,
  client,
  type SwayLinks,
  type SwayPose,
  type SwayPoses,
  type SwayResult,
} from "../api/client";
import type { Wheels } from "../elevation/cyclePose";
import { useJob } from "./useJob";

/** The sway bar of the job in view, worked out by the server; what was there stays until the new is. */
export function useSwayed(asked = true): SwayResult | undefined {
  const { view } = useJob();
  const { data } = useQuery({
    enabled: asked,
    queryKey: ["sway", view.id, view.revision],
    placeholderData: keepPreviousData,
    // The other axle's job may have changed meanwhile.
    staleTime: 5_000,
    gcTime: 60_000,
    queryFn: async () => {
      const params = { query: { job: view.id } };
      const result = await answer(client.POST("/api/v1/compute/sway", { params, body: view.document }));
      if ("data" in result) return result.data;
      throw new Error("the program does not answer");
    },
  });
  return data;
}

const present = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

function armOf(arm: SwayPoses["left"], index: number): SwayPose["left"] {
  return {
    arm_angle_deg: present(arm.arm_angle_deg[index]),
    eye_angle_deg: present(arm.eye_angle_deg[index]),
    far_ahead_mm: arm.far_ahead_mm[index] ?? 0,
    far_above_mm: arm.far_above_mm[index] ?? 0,
    eye_ahead_mm: arm.eye_ahead_mm[index] ?? 0,
    eye_above_mm: arm.eye_above_mm[index] ?? 0,
  };
}

/** One pose out of its columns. */
function poseOf(poses: SwayPoses, index: number): SwayPose {
  return {
    left_wheel_mm: poses.left_wheel_mm[index] ?? 0,
    right_wheel_mm: poses.right_wheel_mm[index] ?? 0,
    y_mm: poses.y_mm[index] ?? 0,
    z_mm: poses.z_mm[index] ?? 0,
    roll_deg: poses.roll_deg[index] ?? 0,
    end_mm: poses.end_mm[index] ?? [],
    left: armOf(poses.left, index),
    right: armOf(poses.right, index),
    twist_deg: present(poses.twist_deg[index]),
    roll_rate_nm_per_deg: present(poses.roll_rate_nm_per_deg[index]),
    bar_moment_nm: present(poses.bar_moment_nm[index]),
  };
}

/** The fetched pose nearest to where the wheels are: of the lean and the envelope where they are crossed. */
export function swayPoseAt(links: SwayLinks, wheels: Wheels, crossed: boolean): SwayPose | undefined {
  let best: { poses: SwayPoses; index: number; off: number } | undefined;
  for (const poses of crossed ? [links.roll, links.envelope] : [links.heave]) {
    for (const [index, left] of poses.left_wheel_mm.entries()) {
      const off = Math.hypot(left - wheels.left, (poses.right_wheel_mm[index] ?? 0) - wheels.right);
      if (!best || off < best.off) best = { poses, index, off };
    }
  }
  return best && poseOf(best.poses, best.index);
}
