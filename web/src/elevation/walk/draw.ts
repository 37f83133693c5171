/** From parts in space to shapes in a picture, farthest first. Pure, no React. */
import type { Owner, Part } from "./scene";
import { between, type Camera, outline, type Point, type Spot } from "./space";

export type Shape = {
  key: string;
  depth: number;
  part: Part;
  /** Its line or outline in the picture. */
  spots: Spot[];
  /** More outlines: the far face and rim of a tyre, the faces of a box. */
  faces: Spot[][];
  /** It would hide the work: drawn as a ghost with a dashed edge. */
  ghost: boolean;
};

const EDGES = [
  [0, 1, 3, 2],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 3, 7, 6],
  [0, 2, 6, 4],
  [1, 3, 7, 5],
] as const;

const middle = (points: readonly Point[]): Point =>
  points.length === 2 && points[0] && points[1]
    ? between(points[0], points[1], 0.5)
    : ([0, 1, 2].map(
        (axis) => points.reduce((sum, p) => sum + (p[axis] ?? 0), 0) / points.length,
      ) as unknown as Point);

/** What a part is sorted by, and its outlines. */
function shapeOf(part: Part, view: Camera, centre: Point): Omit<Shape, "key" | "part"> {
  const spots = (points: readonly Point[]) => points.map(view.spot);
  const depth = (points: readonly Point[]) => view.spot(middle(points)).depth;
  switch (part.kind) {
    case "rod":
      return { depth: depth(part.points), spots: spots(part.points), faces: [], ghost: false };
    case "coil":
      return { depth: depth(part.points), spots: spots(part.points), faces: [], ghost: false };
    case "swept":
      return { depth: depth(part.points), spots: outline(spots(part.points)), faces: [], ghost: true };
    case "ball":
    case "eye":
      // An eye lies before the rod that ends in it.
      return {
        depth: depth([part.at]) + (part.kind === "eye" ? part.radius : 0),
        spots: spots([part.at]),
        faces: [],
        ghost: false,
      };
    case "box": {
      const corners = spots(part.corners);
      const near = corners.reduce((sum, spot) => sum + spot.depth, 0) / corners.length;
      const faces = EDGES.map((face) => face.flatMap((corner) => corners[corner] ?? []));
      const order = (face: Spot[]) => face.reduce((sum, spot) => sum + spot.depth, 0);
      return {
        depth: near,
        spots: outline(corners),
        faces: faces.sort((a, b) => order(a) - order(b)).slice(3),
        ghost: near > view.spot(centre).depth + 150,
      };
    }
    case "tyre": {
      const [outer, inner] = part.faces.map(spots) as [Spot[], Spot[]];
      const from = view.spot(part.hub).depth - view.spot(centre).depth;
      // Which face one sees, and whether the whole tyre stands before the work.
      const outside = view.along(part.outward).depth > 0;
      return {
        depth: depth([...part.faces[0], ...part.faces[1]]),
        spots: outline([...outer, ...inner]),
        faces: [outside ? outer : inner, ...(outside ? [spots(part.rim)] : [])],
        ghost: from > 200,
      };
    }
  }
}

/** Shapes of all parts, farthest first. */
export function shapes(parts: readonly Part[], view: Camera, centre: Point): Shape[] {
  return parts
    .map((part, index): Shape => ({ key: `${part.kind} ${index}`, part, ...shapeOf(part, view, centre) }))
    .sort((a, b) => a.depth - b.depth);
}

export type Named = { text: string; x: number; y: number; owner: Owner | "gap" };
export type Label = Named & {
  /** Where its text begins. */
  at: { x: number; y: number };
  /** Where its line leaves the text: as straight over or under what it names as the text is wide. */
  leaves: number;
};

/** A letter of the labels' size, on average. */
const LETTER = 7.4;
const APART = 16;
/** A line leaves its text no nearer to the text's ends than this. */
const INSET = 10;

/**
 * Names on leaders: in a row over the drawing and one under it, in the order of what they name, so that no leader
 * crosses another and no name lies on another. What finds no room in its row goes to the other, or is left out.
 */
export function labels(named: readonly Named[], width: number, top: number, bottom: number): Label[] {
  const half = (top + bottom) / 2;
  const rows: [Named[], Named[]] = [[], []];
  const room = [width, width];
  const wide = ({ text }: Named) => text.length * LETTER + APART;
  for (const name of named) {
    const wanted = name.y < half ? 0 : 1;
    const row = [wanted, 1 - wanted].find((place) => (room[place] ?? 0) >= wide(name));
    if (row === undefined) continue;
    rows[row]?.push(name);
    room[row] = (room[row] ?? 0) - wide(name);
  }
  return rows.flatMap((row, place) => {
    const sorted = [...row].sort((a, b) => a.x - b.x);
    const widths = sorted.map(wide);
    // As near over its part as those to its left and right leave room.
    const starts = sorted.map(({ x }, index) => x - (widths[index] ?? 0) / 2);
    for (let index = 0; index < starts.length; index += 1) {
      const before = index === 0 ? 0 : (starts[index - 1] ?? 0) + (widths[index - 1] ?? 0);
      starts[index] = Math.max(starts[index] ?? 0, before);
    }
    for (let index = starts.length - 1; index >= 0; index -= 1) {
      const after = index === starts.length - 1 ? width : (starts[index + 1] ?? 0);
      starts[index] = Math.min(starts[index] ?? 0, after - (widths[index] ?? 0));
    }
    return sorted.map((name, index): Label => {
      const begins = (starts[index] ?? 0) + APART / 2;
      const ends = begins + (widths[index] ?? 0) - APART;
      return {
        ...name,
        at: { x: begins, y: place === 0 ? top : bottom },
        leaves: Math.max(begins + INSET, Math.min(ends - INSET, name.x)),
      };
    });
  });
}
