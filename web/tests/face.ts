/** What the face picks and groups, held against what the core told. */
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import type { Part, PlanOption, PlanResult, Schemas, SetupCycle, StageName } from "../src/api/client";
import { linkPoints, poseAt, roundAt } from "../src/elevation/cyclePose";
import { nearAt } from "../src/elevation/walk/near";
import { missingAt, signOfChecks } from "../src/job/signs";
import { stageOf } from "../src/job/stageForPointer";
import { holesText, withUnit } from "../src/parts/rows";
import { sketchOf } from "../src/parts/sketch";
import { alike } from "../src/stages/bracket/alike";
import { keyOf, lookedAt, useHeld, withPart } from "../src/stages/bracket/usePlanned";
import { useOpened } from "../src/ui/opened";

type Test = (name: string, run: () => void) => void;
type Posed = {
  name: string;
  setup: SetupCycle;
  near: Schemas["NearPoses"];
  plan: PlanResult;
  missing: string[];
};

export function faceCases(test: Test) {
  const file = process.env.DERECHO_POSES;
  const posed = file ? (JSON.parse(readFileSync(file, "utf8")) as Posed[]) : [];
  for (const one of posed) {
    gridCases(test, one);
    optionCases(test, one);
  }
  stageForPointerCases(test);
  partCases(test);
  openedCases(test);
}

/** A pose between poses of the grid. */
function gridCases(test: Test, { name, setup, near }: Posed) {
  const { drawn } = setup.envelope;
  const { travels_mm: travels } = drawn;
  const side = travels.length;

  test(`${name}: at a pose of the grid the drawing is that pose, to the figure`, () => {
    for (let row = 0; row < side; row += 2) {
      for (let column = 0; column < side; column += 3) {
        const index = row * side + column;
        const pose = poseAt(setup, { left: travels[row] ?? 0, right: travels[column] ?? 0 });
        if (!pose) continue;
        for (const [ours, core] of [
          [pose.z, drawn.z_mm[index]],
          [pose.roll_deg, drawn.roll_deg[index]],
          [pose.y_mm, drawn.y_mm[index]],
          [pose.pitch_deg, drawn.pitch_deg[index]],
          [pose.yaw_deg, drawn.yaw_deg[index]],
        ] as const) {
          if (core !== null && core !== undefined) assert.ok(Math.abs(ours - core) < 1e-9, `${ours} ${core}`);
        }
      }
    }
  });

  test(`${name}: between four poses every figure lies between theirs`, () => {
    for (let row = 0; row + 1 < side; row += 3) {
      for (let column = 0; column + 1 < side; column += 3) {
        const corners = [0, 1].flatMap((r) => [0, 1].map((c) => (row + r) * side + column + c));
        const half = (at: number) => ((travels[at] ?? 0) + (travels[at + 1] ?? 0)) / 2;
        const pose = poseAt(setup, { left: half(row), right: half(column) });
        const known = corners.flatMap((corner) => drawn.y_mm[corner] ?? []);
        if (!pose || known.length < 4) continue;
        assert.ok(pose.y_mm >= Math.min(...known) - 1e-9 && pose.y_mm <= Math.max(...known) + 1e-9);
      }
    }
  });

  test(`${name}: a round up and down ends at the stops, one all round at every corner`, () => {
    const ends = setup.ways.map((way) => way.end_mm);
    const near = (share: number, round: "heave" | "cross" | "around", end: readonly number[] | undefined) => {
      const at = roundAt(setup, round, share);
      assert.ok(Math.abs(at.left - (end?.[0] ?? 0)) < 1e-6 && Math.abs(at.right - (end?.[1] ?? 0)) < 1e-6);
    };
    near(0.25, "heave", ends[1]);
    near(0.75, "heave", ends[0]);
    near(0.25, "cross", ends[2]);
    near(0.75, "cross", ends[3]);
    near(0, "around", ends[1]);
    near(0.25, "around", ends[2]);
    near(0.5, "around", ends[0]);
    near(0, "heave", [0, 0]);
  });

  test(`${name}: every link is drawn from its body end`, () => {
    const pose = poseAt(setup, { left: 0, right: 0 });
    if (!pose) return;
    const drawnLinks = linkPoints(setup, pose);
    assert.equal(drawnLinks.length, setup.links.length);
    for (const { link, points } of drawnLinks) {
      assert.deepEqual(points[0], setup.links[link]?.body_mm);
      assert.equal(points.length, setup.links[link]?.bent ? 3 : 2);
    }
  });

  test(`${name}: the nearest gap is that of the pose the wheels are nearest to`, () => {
    if (!near) return;
    const step = (near.travels_mm[1] ?? 0) - (near.travels_mm[0] ?? 0);
    for (const [row, left] of near.travels_mm.entries()) {
      for (const [column, right] of near.travels_mm.entries()) {
        const index = row * near.travels_mm.length + column;
        // A third of a step aside it is still this one.
        const reported = nearAt(near, { left: left + step / 3, right: right - step / 3 });
        assert.equal(reported?.gap_mm, near.gap_mm[index] ?? undefined);
        assert.equal(reported?.between, near.names[near.nearest[index] ?? -1]);
      }
    }
    assert.equal(nearAt(undefined, { left: 0, right: 0 }), undefined);
  });
}

/** Options that come to the same. */
function optionCases(test: Test, { name, plan }: Posed) {
  test(`${name}: rows of like options hold every option once, best first`, () => {
    for (const unit of ["in", "mm"] as const) {
      const rows = alike(plan.options, unit);
      assert.deepEqual(rows.flat().map(keyOf).sort(), plan.options.map(keyOf).sort());
      for (const row of rows) {
        const [first] = row;
        for (const option of row) {
          assert.equal(option.name, first?.name);
          assert.deepEqual(option.fails, first?.fails);
          assert.ok(Math.abs(option.angle_deg - (first?.angle_deg ?? 0)) < 0.1);
        }
        // Two options with one bar are two holes: they never stand in one row.
        assert.equal(new Set(row.map((option) => option.bar)).size, row.length);
      }
      assert.deepEqual(
        rows.map((row) => row[0]?.rank ?? 0),
        [...rows.map((row) => row[0]?.rank ?? 0)].sort((a, b) => a - b),
      );
    }
  });

  test(`${name}: looked at is what was taken up, else what is chosen, else what the answer speaks of`, () => {
    const [first] = plan.options;
    const last = plan.options[plan.options.length - 1];
    if (!first || !last) return;
    assert.equal(lookedAt(plan, keyOf(last), first.plan), last);
    assert.equal(lookedAt(plan, null, last.plan), last);
    assert.equal(lookedAt(plan, null, undefined), plan.options[plan.pick ?? 0]);
    assert.equal(lookedAt(undefined, null, undefined), undefined);
  });

  test(`${name}: a held part is looked at in its best hole until another is taken up`, () => {
    const bracketed = plan.options.filter((option) => option.plan.axle?.bracket);
    const [best] = [...bracketed].sort((a, b) => a.rank - b.rank);
    const named = best?.plan.axle?.bracket;
    if (!best || !named) return;
    const of = (option: PlanOption | undefined) => option?.plan.axle?.bracket;
    useHeld.setState({ part: { kind: "bracket", id: named, name: "whatever it is called" } as never });
    try {
      assert.equal(of(lookedAt(plan, null, undefined)), named);
      const other = plan.options.find((option) => of(option) !== named);
      if (other) assert.equal(lookedAt(plan, keyOf(other), undefined), other);
    } finally {
      useHeld.setState({ part: null });
    }
  });
}

function stageForPointerCases(test: Test) {
  test("every place of the document has its stage", () => {
    const places: [string, StageName][] = [
      ["/rig/frame_eye_side", "rig"],
      ["/title", "rig"],
      ["/vehicle/left_corner", "rig"],
      ["/complaints/0/text", "rig"],
      ["/sheets/0/left/3", "tape"],
      ["/hardpoints/arms/lower_left/body/height", "tape"],
      ["/setups/found/bar/length", "bar"],
      ["/setups/found/adjuster/kind", "bar"],
      ["/setups/rounds/0/length", "bar"],
      ["/setups/rounds/0/moved/1/off/up", "prove"],
      ["/setups/rounds/2/sway_link", "sway"],
      ["/setups/found/axle_holes/0/up", "cycle"],
      ["/setups/plans/trial/axle/hole", "cycle"],
      ["/setups/plans/sway/link", "sway"],
      ["/setups/plans/chosen/length", "bracket"],
      ["/bracket/bolt/thread", "bracket"],
      ["/sway/holes", "sway"],
      ["/bolt_up/by", "bolt_up"],
      ["/proof/looked_at/bar_angle", "prove"],
    ];
    for (const [pointer, stage] of places) assert.equal(stageOf(pointer), stage, pointer);
  });

  test("a list of checks is as good as its worst, and what nobody looked at is to check", () => {
    const of = (...verdicts: ("good" | "bad" | "open")[]) =>
      signOfChecks(verdicts.map((verdict) => ({ verdict })));
    assert.deepEqual(of("good", "bad", "open", "bad"), { kind: "bad", word: "2 not good" });
    assert.deepEqual(of("good", "open"), { kind: "measure", word: "1 to check" });
    assert.deepEqual(of("good"), { kind: "good", word: "good" });
    assert.deepEqual(of(), { kind: "plain", word: "nothing to check" });
  });

  test("what is missing is counted where its field lies", () => {
    const fault = (pointer: string) => ({ pointer, code: "missing", message: "" });
    const faults = [fault("/sway/holes"), fault("/sway/link"), fault("/rig/end")];
    assert.equal(missingAt(faults, "/sway").length, 2);
    assert.deepEqual(missingAt(faults, "/sway/holes", "/rig"), [faults[0], faults[2]]);
  });
}

function partCases(test: Test) {
  test("a length goes into a file with its unit, once", () => {
    assert.equal(withUnit({ text: "30 1/2", unit: "in" }), "30 1/2 in");
    assert.equal(withUnit({ text: " 860 ", unit: "mm" }), "860 mm");
    assert.equal(withUnit({ text: "30 1/2 in", unit: "mm" }), "30 1/2 in");
    assert.equal(withUnit({ text: "2' 3\"", unit: "in" }), "2' 3\"");
  });

  test("holes go into a file as a table has them; what has no rise is not yet a hole", () => {
    const inches = (text: string) => ({ text, unit: "in" as const });
    assert.equal(
      holesText([
        { name: "hole 1", up: inches("2") },
        { name: "hole 2", up: inches("3"), outward: inches("1/2"), forward: inches("-1/4") },
        { name: "hole 3" },
      ]),
      "hole 1: 2 in; hole 2: 3 in, outward 1/2 in, forward -1/4 in",
    );
    assert.equal(holesText([]), "");
  });

  test("a part is drawn from its own lengths: 30 1/2 in are 774.7 mm", () => {
    const bar = {
      kind: "bar",
      name: "long",
      adjuster: "turnbuckle",
      made_min: { text: "30 1/2", unit: "in", mm: 774.7 },
      made_max: { text: "34", unit: "in", mm: 863.6 },
      note: "none",
    } as unknown as Part;
    assert.deepEqual(sketchOf(bar), {
      kind: "bar",
      mm: { made_min: 774.7, made_max: 863.6 },
      holes: [],
      end: "axle",
      adjuster: "turnbuckle",
    });
    const drop = {
      kind: "bracket",
      name: "drop",
      end: "frame",
      holes: [
        { name: "hole 1", up: { text: "-2", unit: "in", mm: -50.8 } },
        {
          name: "hole 2",
          up: { text: "-3", unit: "in", mm: -76.2 },
          outward: { text: "10", unit: "mm", mm: 10 },
        },
      ],
    } as unknown as Part;
    const sketch = sketchOf(drop);
    assert.equal(sketch.end, "frame");
    assert.deepEqual(sketch.holes, [
      { name: "hole 1", up: -50.8, outward: 0 },
      { name: "hole 2", up: -76.2, outward: 10 },
    ]);
  });

  test("a held part stands among those tried of its kind, and the job that has it not is as it was", () => {
    const job = { title: "Truck", bracket: { bars: [{ name: "old" }] } } as never;
    const held = withPart({ kind: "bar", id: "b", name: "new" } as never)(job);
    assert.deepEqual(held.bracket?.bars, [{ name: "old" }, { id: "b", name: "new" }]);
    assert.deepEqual((job as { bracket: unknown }).bracket, { bars: [{ name: "old" }] });
    // One of the library gets ids that plans can point at, its holes too, and never the same twice.
    const riser = { kind: "bracket", name: "riser", holes: [{ name: "low" }, { name: "low" }] } as never;
    const [once, again] = [withPart(riser)(job), withPart(riser)(job)];
    const ids = [once, again].flatMap(({ bracket }) =>
      (bracket?.brackets ?? []).flatMap(({ id, holes }) => [id, ...(holes ?? []).map((hole) => hole.id)]),
    );
    assert.equal(new Set(ids).size, 6);
    assert.ok(ids.every((id) => id));
  });
}

function openedCases(test: Test) {
  test("each stage remembers its own section, each section its own face; another job begins anew", () => {
    const { openSection, showFace, shutAll } = useOpened.getState();
    openSection("sway", "room");
    openSection("bracket", "bolt");
    showFace("sway", "room", "inputs");
    const { sections, faces } = useOpened.getState();
    assert.deepEqual(sections, { sway: "room", bracket: "bolt" });
    assert.deepEqual(faces, { "sway/room": "inputs" });
    shutAll();
    assert.deepEqual(useOpened.getState().sections, {});
    assert.deepEqual(useOpened.getState().faces, {});
  });
}
