/** The drawing one can walk round, held against the core's own points and against what a look must be. */
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import type { Elevation, Schemas, SetupCycle } from "../src/api/client";
import { linkPoints, poseAt } from "../src/elevation/cyclePose";
import { labels, type Named, shapes } from "../src/elevation/walk/draw";
import { nearAt, roomGapAt } from "../src/elevation/walk/near";
import { roomParts, scene } from "../src/elevation/walk/scene";
import { axlePlacer, camera, length, minus, outline, type Point } from "../src/elevation/walk/space";
import { endOf, letters, settled, turned, VIEWS, wrapped } from "../src/elevation/walk/views";

type Test = (name: string, run: () => void) => void;
type Posed = { name: string; elevation: Elevation; setup: SetupCycle; near: Schemas["NearPoses"] };

const near = (a: number, b: number, within: number, what: string) =>
  assert.ok(Math.abs(a - b) <= within, `${what}: ${a} against ${b}`);

const MIDDLE = [300, 200] as const;
const K = 0.4;
const CENTRE: Point = [0, 0, 400];

/** A source of numbers that is the same in every run. */
function drawn(seed: number) {
  let state = seed;
  return (from: number, to: number) => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return from + ((to - from) * state) / 2147483648;
  };
}

export function walkCases(test: Test) {
  const file = process.env.DERECHO_POSES;
  const posed = file ? (JSON.parse(readFileSync(file, "utf8")) as Posed[]) : [];
  test("the core's poses of every kind of axle location are at hand", () => {
    assert.equal(posed.length, 5);
    assert.ok(posed.every(({ setup }) => setup.links.length > 0));
  });
  for (const one of posed) poseCases(test, one);
  lookCases(test);
  labelCases(test);
  roomCases(test);
}

/** A projected eye is where the pose says. */
function poseCases(test: Test, { name, elevation, setup, near: gaps }: Posed) {
  const { drawn: grid } = setup.envelope;
  const grids = grid.travels_mm.flatMap((left) => grid.travels_mm.map((right) => ({ left, right })));
  const poses = grids.flatMap((wheels) => poseAt(setup, wheels) ?? []);

  test(`${name}: every axle eye is placed where the pose solver has it`, () => {
    let seen = 0;
    for (const pose of poses) {
      const place = axlePlacer(pose, setup.axle_height_mm);
      for (const { link, points } of linkPoints(setup, pose)) {
        const [reported, core] = [setup.links[link], points[points.length - 1]];
        if (!reported || !core) continue;
        const ours = place(reported.axle_mm as unknown as Point);
        // The core writes them to a tenth, and turns to a ten-thousandth of a degree.
        for (const axis of [0, 1, 2])
          near(ours[axis] ?? 0, core[axis] ?? 0, 0.12, `${reported.name}, axis ${axis}`);
        seen += 1;
      }
    }
    assert.ok(seen > 100, `${seen} eyes`);
  });

  test(`${name}: from the front a projected eye lies at its own y and z, from the rear mirrored, from the side at its x`, () => {
    const [front, rear, side] = [0, 180, 90].map((turn) => camera({ turn, tilt: 0 }, CENTRE, K, MIDDLE));
    for (const pose of poses.slice(0, 60)) {
      for (const { points } of linkPoints(setup, pose)) {
        for (const [x = 0, y = 0, z = 0] of points) {
          const level = MIDDLE[1] - (z - CENTRE[2]) * K;
          const seen = [front, rear, side].map((view) => view?.spot([x, y, z]));
          near(seen[0]?.x ?? 0, MIDDLE[0] + y * K, 1e-9, "front x");
          near(seen[1]?.x ?? 0, MIDDLE[0] - y * K, 1e-9, "rear x");
          // From the vehicle's left its front lies on the left of the picture.
          near(seen[2]?.x ?? 0, MIDDLE[0] - x * K, 1e-9, "side x");
          for (const spot of seen) near(spot?.y ?? 0, level, 1e-9, "height");
        }
      }
    }
  });

  test(`${name}: both wheels stand where the stick and the square have them`, () => {
    for (const pose of poses) {
      const place = axlePlacer(pose, elevation.axle_height_mm);
      for (const [sign, travel] of [
        [1, pose.left],
        [-1, pose.right],
      ] as const) {
        const [, , z] = place([0, (sign * elevation.track_mm) / 2, elevation.axle_height_mm]);
        near(z - elevation.axle_height_mm, travel, 0.2, "wheel's travel");
      }
    }
  });

  test(`${name}: the nearest gap is as wide as its points are apart, less both parts' halves`, () => {
    for (const wheels of grids) {
      const reported = nearAt(gaps, wheels);
      if (!reported) continue;
      // Points lie on the middle lines: the gap is less than their distance, by no more than two thick parts.
      const apart = length(minus(reported.points[0], reported.points[1]));
      assert.ok(reported.gap_mm <= apart + 0.3, `${reported.between}: ${reported.gap_mm} of ${apart}`);
      assert.ok(apart - reported.gap_mm < 400, `${reported.between}: ${reported.gap_mm} of ${apart}`);
    }
  });

  test(`${name}: what is farther is drawn first, and every part is drawn at every angle`, () => {
    const pose = poses[Math.floor(poses.length / 2)];
    if (!pose) return;
    const parts = scene({ elevation, pose, solved: { setup, pose }, planned: false, leafSprings: false });
    for (let turn = -180; turn < 180; turn += 30) {
      for (const tilt of [-88, -30, 0, 45]) {
        const all = shapes(parts, camera({ turn, tilt }, CENTRE, K, MIDDLE), CENTRE);
        assert.equal(all.length, parts.length);
        for (const [at, shape] of all.entries())
          assert.ok(at === 0 || (all[at - 1]?.depth ?? 0) <= shape.depth);
        assert.ok(
          all.every(({ spots }) => spots.every(({ x, y }) => Number.isFinite(x) && Number.isFinite(y))),
        );
      }
    }
  });
}

function lookCases(test: Test) {
  test("a look keeps lengths across it and shortens what runs along it", () => {
    const random = drawn(7);
    for (let round = 0; round < 400; round += 1) {
      const view = camera({ turn: random(-180, 180), tilt: random(-88, 60) }, CENTRE, 1, [0, 0]);
      const at = (): Point => [random(-900, 900), random(-900, 900), random(0, 900)];
      const [a, b] = [at(), at()];
      const [p, q] = [view.spot(a), view.spot(b)];
      // Across and along make up the whole, whatever the angle.
      const whole = Math.hypot(p.x - q.x, p.y - q.y, p.depth - q.depth);
      near(whole, length(minus(a, b)), 1e-6, "length");
    }
  });

  test("from straight below left and right are those of lying under it, head to the rear", () => {
    const view = camera({ turn: 0, tilt: -90 }, [0, 0, 0], 1, [0, 0]);
    const [ahead, left] = [view.spot([100, 0, 0]), view.spot([0, 100, 0])];
    near(ahead.y, -100, 1e-9, "the front is at the top");
    near(left.x, 100, 1e-9, "the vehicle's left is on the right");
  });

  test("an outline holds every spot and turns one way", () => {
    const random = drawn(11);
    for (let round = 0; round < 100; round += 1) {
      const spots = Array.from({ length: 20 }, () => ({ x: random(0, 100), y: random(0, 100), depth: 0 }));
      const hull = outline(spots);
      for (const [at, from] of hull.entries()) {
        const to = hull[(at + 1) % hull.length];
        if (!to) continue;
        for (const spot of spots) {
          const side = (to.x - from.x) * (spot.y - from.y) - (to.y - from.y) * (spot.x - from.x);
          assert.ok(side >= -1e-9, "outside of its outline");
        }
      }
    }
  });

  test("it is walked round without end, and never over the top", () => {
    assert.equal(wrapped(190), -170);
    assert.equal(wrapped(-540), -180);
    assert.deepEqual(turned({ turn: 170, tilt: 50 }, { turn: 20, tilt: 40 }), { turn: -170, tilt: 60 });
    assert.equal(turned({ turn: 0, tilt: -80 }, { turn: 0, tilt: -40 }).tilt, -88);
  });

  test("let go near an end it comes to it; front and rear alone are plain elevations", () => {
    assert.deepEqual(settled({ turn: 3, tilt: -4 }), { turn: 0, tilt: 0 });
    assert.deepEqual(settled({ turn: -178, tilt: 2 }), { turn: 180, tilt: 0 });
    assert.deepEqual(settled({ turn: 3, tilt: -20 }), { turn: 3, tilt: -20 });
    assert.deepEqual(
      VIEWS.map(({ look }) => endOf(look)),
      ["front", undefined, undefined, "rear", undefined],
    );
  });

  test("left and right are lettered at every angle, front and rear from a side", () => {
    for (let turn = -180; turn < 180; turn += 5) {
      const view = camera({ turn, tilt: 0 }, [0, 0, 0], 1, [0, 0]);
      const [first, second] = letters({ turn, tilt: 0 });
      const axis: Record<string, Point> = {
        left: [0, 1, 0],
        right: [0, -1, 0],
        front: [1, 0, 0],
        rear: [-1, 0, 0],
      };
      // Whatever is lettered on the left lies on the left of the picture.
      assert.ok(view.spot(axis[first] ?? [0, 0, 0]).x < -0.6, `${first} at ${turn}`);
      assert.ok(view.spot(axis[second] ?? [0, 0, 0]).x > 0.6, `${second} at ${turn}`);
    }
  });
}

function roomCases(test: Test) {
  const shock = {
    name: "left shock",
    kind: "shock" as const,
    points_mm: [
      [80, 370, 1000],
      [60, 470, 400],
    ],
    on_axle: [false, true],
    radius_mm: 32,
  };
  const ring = {
    ...shock,
    name: "left tyre steered left",
    kind: "steered_tyre" as const,
    on_axle: [true, true],
  };
  const place = axlePlacer({ x_mm: 5, y_mm: 10, z: 50, roll_deg: 0, pitch_deg: 0, yaw_deg: 0 }, 400);

  test("a shock stands on the body with one end and goes with the axle with the other", () => {
    const parts = roomParts([shock, ring], false, place);
    // A tyre at its lock is drawn with the section about it alone.
    assert.ok(parts.every((part) => part.kind !== "swept"));
    const rod = parts.find((part) => part.kind === "rod");
    assert.deepEqual(rod?.kind === "rod" && rod.points, [
      [80, 370, 1000],
      [65, 480, 450],
    ]);
    assert.equal(roomParts([ring], true, place)[0]?.kind, "swept");
  });

  test("the gap that was picked is drawn in its pose and in no other", () => {
    const gap = (thing: string, at_mm: number[], gap_mm: number) => ({
      rod: "the left link",
      thing,
      gap_mm,
      wanted_mm: 12.7,
      at_mm,
      between_mm: [
        [0, 0, 0],
        [0, 0, gap_mm],
      ],
      clear: true,
      says: { in: "", mm: "" },
    });
    const gaps = [gap("shock", [-90, 30], 4), gap("rail", [-90, 30], 9), gap("tyre", [60, 60], 20)];
    assert.equal(roomGapAt(gaps, { left: -90, right: 30 }, null)?.between, "the left link to shock");
    assert.equal(roomGapAt(gaps, { left: -90, right: 30 }, "rail")?.gap_mm, 9);
    assert.equal(roomGapAt(gaps, { left: 60, right: 60 }, "rail")?.gap_mm, 20);
    assert.equal(roomGapAt(gaps, { left: 60, right: 59 }, null), undefined);
  });
}

function labelCases(test: Test) {
  test("no label lies on another, none leaves the picture, no leader crosses another in its row", () => {
    const random = drawn(3);
    for (let round = 0; round < 300; round += 1) {
      const count = Math.floor(random(1, 9));
      const named = Array.from({ length: count }, (_, index): Named => {
        const text = "x".repeat(Math.floor(random(4, 18))) + index;
        return { text, x: random(0, 560), y: random(40, 460), owner: "arm" };
      });
      const placed = labels(named, 560, 20, 480);
      for (const row of [20, 480]) {
        const inRow = placed.filter(({ at }) => at.y === row).sort((a, b) => a.at.x - b.at.x);
        for (const [index, label] of inRow.entries()) {
          const end = label.at.x + label.text.length * 7.4;
          assert.ok(label.at.x >= 0 && end <= 560, "inside");
          // Its line leaves it, straight where the text reaches over what it names.
          assert.ok(label.leaves > label.at.x && label.leaves < end, "leaves its text");
          if (label.x > label.at.x + 10 && label.x < end - 10) assert.equal(label.leaves, label.x);
          const next = inRow[index + 1];
          if (!next) continue;
          assert.ok(end <= next.at.x, "apart");
          // In the order of what they name: lines from one row to points in the same order do not cross at their ends.
          assert.ok(label.x <= next.x, "in order");
        }
      }
    }
  });
}
