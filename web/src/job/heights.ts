import type { Job } from "../api/client";

/** What a height is called by where it is taken from: above the floor, or on a hoist from the frame rail or the axle. */
export function heightLabel(job: Job, onBody: boolean | undefined): string {
  if (!isSigned(job)) return "height above the floor";
  return onBody ? "above the bottom of the frame rail; below is −" : "above the axle center; below is −";
}

/** Whether a height can be below what it is taken from: nothing lies below the floor. */
export const isSigned = (job: Job): boolean => job.rig?.heights_from === "rail_and_axle";
