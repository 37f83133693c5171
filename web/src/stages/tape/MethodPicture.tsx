import type { Schemas } from "../../api/client";

type Method = NonNullable<Schemas["Sheet"]["method"]>;

/** Where the tape goes: from the frame (blue) or the body to the hub or the sidewall. */
const TAPE: Record<Method, { from: [number, number]; to: [number, number]; says: string }> = {
  frame_to_hub: {
    from: [118, 62],
    to: [62, 62],
    says: "From a point that is the same on both sides of the frame to the hub face. Most accurate.",
  },
  frame_to_sidewall: {
    from: [118, 40],
    to: [52, 40],
    says: "From the frame to a straightedge across the sidewall. Tires vary.",
  },
  body_to_sidewall: {
    from: [24, 16],
    to: [24, 62],
    says: "A plumb line from the body to the sidewall. Bodies sit crooked on frames: quick look only.",
  },
  own: {
    from: [118, 62],
    to: [62, 62],
    says: "From any point that is the same left and right. Say which below.",
  },
};

/** A small picture of one wheel from the end, and the tape. */
export function MethodPicture({ method }: { method: Method }) {
  const { from, to, says } = TAPE[method];
  return (
    <div className="flex items-center gap-3">
      <svg
        viewBox="0 0 170 100"
        className="w-40 shrink-0 border-[1.5px] border-ink bg-paper"
        role="img"
        aria-label={says}
      >
        <line x1={0} x2={170} y1={94} y2={94} stroke="var(--ink)" strokeWidth={1.5} />
        <rect x={30} y={28} width={24} height={66} rx={5} fill="var(--tyre)" stroke="var(--ink)" />
        <rect x={54} y={54} width={8} height={16} fill="var(--axle)" />
        <rect x={62} y={57} width={108} height={10} fill="var(--axle-soft)" stroke="var(--axle)" />
        <rect x={118} y={22} width={20} height={26} fill="var(--frame-soft)" stroke="var(--frame)" />
        {method !== "body_to_sidewall" && (
          <line x1={118} x2={118} y1={48} y2={66} stroke="var(--frame)" strokeWidth={3} />
        )}
        <path d="M20 16 H60 M60 16 V24 H170" fill="none" stroke="var(--muted)" strokeWidth={2} />
        <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke="var(--ink)" strokeWidth={6} />
        <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke="var(--marker)" strokeWidth={3.5} />
        {method === "body_to_sidewall" && (
          <line x1={24} x2={30} y1={62} y2={62} stroke="var(--ink)" strokeWidth={3} />
        )}
      </svg>
      <p className="text-[16px] leading-snug">{says}</p>
    </div>
  );
}
