/** The bolt of each eye: its own where something was entered for it, else the one of both. */
import type { Schemas } from "../../api/client";

type Bracketing = Schemas["Bracketing"];
export type Bolt = NonNullable<Bracketing["bolt"]>;
export type EyeKey = "frame_eye" | "axle_eye";

const isEmpty = (bolt: Bolt | undefined) => bolt === undefined || Object.keys(bolt).length === 0;

export function boltOf(form: Bracketing | undefined, eye: EyeKey | "both"): Bolt {
  const both = form?.bolt ?? {};
  if (eye === "both") return both;
  const own = form?.[eye]?.bolt;
  return own === undefined || isEmpty(own) ? both : own;
}

/** With something entered for an eye; its first entry takes the rest over from the bolt of both. */
export function withBolt(
  form: Bracketing | undefined,
  eye: EyeKey | "both",
  part: Partial<Bolt>,
): Partial<Bracketing> {
  const bolt = { ...boltOf(form, eye), ...part };
  return eye === "both" ? { bolt } : { [eye]: { ...form?.[eye], bolt } };
}
