import { useMemo } from "react";
import { Detail, DetailNote } from "../elevation/Detail";
import { shapes } from "../elevation/walk/draw";
import { Shapes } from "../elevation/walk/Shapes";
import { type Part, scene } from "../elevation/walk/scene";
import { camera, type Look, type Point } from "../elevation/walk/space";
import { useSituation } from "./useSituation";

/** From above, forward to the left. */
const ABOVE: Look = { turn: 90, tilt: 88 };
const MARGIN = 26;

/** What sets the scale: the arms. The axle's tube runs out of the picture. */
const pointsOf = (part: Part): readonly Point[] =>
  part.kind === "rod" && part.owner === "arm" ? part.points : [];

/** Arms and Y-link with the axle from above: what holds it where there is no track bar. */
export function LinksDetail() {
  const { situation } = useSituation(false, false);
  const parts = useMemo(
    () =>
      situation.solved &&
      scene(situation).filter(
        (part) =>
          part.kind === "eye" || part.kind === "ball" || (part.kind === "rod" && part.owner !== "spring"),
      ),
    [situation],
  );
  // Leaf springs alone have no arms to be drawn.
  if (!parts?.some((part) => pointsOf(part).length > 0)) return null;
  return (
    <Detail says="Control arms and Y-link from above; forward is to the left">
      {({ width, height }) => {
        const flat = camera(ABOVE, [0, 0, 0], 1, [0, 0]);
        const spots = parts.flatMap(pointsOf).map(flat.spot);
        const span = (of: "x" | "y") => {
          const all = spots.map((spot) => spot[of]);
          return [Math.min(...all), Math.max(...all)] as const;
        };
        const [[left, right], [top, bottom]] = [span("x"), span("y")];
        const k = Math.min(
          (width - 2 * MARGIN) / Math.max(right - left, 1),
          (height - 2 * MARGIN) / Math.max(bottom - top, 1),
        );
        const middle = [width / 2 - ((left + right) / 2) * k, height / 2 - ((top + bottom) / 2) * k] as const;
        const view = camera(ABOVE, [0, 0, 0], k, middle);
        return (
          <>
            <Shapes shapes={shapes(parts, view, [0, 0, 0])} k={k} />
            <DetailNote x={8} y={18}>
              ◂ front, from above
            </DetailNote>
          </>
        );
      }}
    </Detail>
  );
}
