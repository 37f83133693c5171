/**
 * What of the client needs no browser, case by case. Bundled and run by Cargo's test runner, which shows every
 * case under its own name: prints one JSON line a case.
 */
import "./device";
import "./page";
import assert from "node:assert/strict";
import table from "../../crates/core/tests/printed.json";
import type { Elevation, Job, Sample } from "../src/api/client";
import { differences } from "../src/app/differences";
import { fit } from "../src/elevation/picture";
import { addRound, mendRound, removeSheet, setBar, setReading, setSheet } from "../src/job/edits";
import { distance, fine, mass, readBack, rollRate, sideOf, sideways, withMarks } from "../src/measure/format";
import { at, ticks } from "../src/measure/travel";
import { documentCases } from "./documents";
import { editCases } from "./edits";
import { englishCases } from "./english";
import { faceCases } from "./face";
import { heightCases } from "./heights";
import { measureCases } from "./measure";
import { queueCases } from "./queue";
import { sessionCases } from "./session";
import { walkCases } from "./walk";
import { windowCases } from "./window";

const cases: [string, () => void | Promise<void>][] = [];
const test = (name: string, run: () => void | Promise<void>) => cases.push([name, run]);

queueCases(test);
walkCases(test);
faceCases(test);
heightCases(test);
editCases(test);
documentCases(test);
measureCases(test);
englishCases(test);
sessionCases(test);
windowCases(test);

for (const row of table) {
  test(`prints ${row.name}, as the core does`, () => {
    assert.deepEqual([distance(row.mm, "in"), fine(row.mm, "in")], row.in);
    assert.deepEqual([distance(row.mm, "mm"), fine(row.mm, "mm")], row.metric);
    const sides = [sideways(row.mm, "in"), sideways(row.mm, "mm")];
    assert.deepEqual(
      sides.map((text) => text.split(" ").at(-1)),
      row.side,
    );
  });
}

test("a typed thirty-second is read back as one, a third of an inch as sixteenths", () => {
  assert.equal(readBack((25.4 * 3) / 32, "in"), '3/32"');
  assert.equal(readBack(25.4 / 3, "in"), '5/16"');
  assert.equal(readBack(-25.4, "in"), '−1"');
  assert.equal(readBack(9.54, "mm"), "9.5 mm");
});

test("a side is named by its sign, + left", () => {
  assert.deepEqual([sideOf(1), sideOf(-1)], ["left", "right"]);
});

test("a roll rate in pounds-feet: 1.3558 newton-metres are one", () => {
  assert.equal(rollRate(135.58, "in"), "100 lb-ft/°");
  assert.equal(rollRate(135.58, "mm"), "136 N·m/°");
});

test("a part's mass in pounds: 0.4536 kg are one", () => {
  assert.deepEqual([mass(4.536, "in"), mass(4.536, "mm")], ["10.0 lb", "4.5 kg"]);
});

test("no line breaks inside a figure", () => {
  assert.equal(withMarks('3 1/2" or 9 mm'), "3\u00a01/2″ or 9\u00a0mm");
});

const sample = (travel: number, found: number): Sample => ({
  travel_mm: travel,
  found_mm: found,
  planned_mm: -found,
  found_angle_deg: found / 10,
  planned_angle_deg: 0,
});

test("between two samples everything lies on a straight line, beyond them it is held", () => {
  const sweep = [sample(-100, 10), sample(0, 0), sample(100, 20)];
  assert.equal(at(sweep, 25)?.found_mm, 5);
  assert.equal(at(sweep, -50)?.planned_mm, -5);
  assert.equal(at(sweep, 500)?.found_mm, 20);
  assert.equal(at(sweep, -500)?.travel_mm, -100);
  assert.equal(at([], 0), undefined);
});

test("an inch of rule has sixteen steps, inches, halves and quarters heavier", () => {
  const weights = ticks(0, 25.4, "in").map((tick) => tick.weight);
  assert.deepEqual(weights, [3, 0, 0, 0, 1, 0, 0, 0, 2, 0, 0, 0, 1, 0, 0, 0, 3]);
  assert.equal(ticks(-10, 10, "mm").length, 21);
});

const elevation = {
  track_mm: 1500,
  tyre_width_mm: 250,
  tyre_diameter_mm: 800,
  frame_bottom_mm: 700,
  rail_height_mm: 100,
  rail_width_mm: 60,
  driven_travel_mm: 0,
  full_droop_mm: -100,
} as Elevation;

test("from the front the vehicle's left lies on the right, from behind on the left", () => {
  const front = fit(elevation, 800, 500, "front", 20);
  const rear = fit(elevation, 800, 500, "rear", 20);
  assert.ok(front.x(500) > 400 && rear.x(500) < 400);
  assert.ok(Math.abs(front.x(500) + rear.x(500) - 800) < 1e-9);
});

test("both tyres and the frame lie inside the drawing, the ground at its bottom", () => {
  const picture = fit(elevation, 800, 500, "front", 20);
  assert.ok(picture.x(-875) >= 20 && picture.x(875) <= 780);
  assert.equal(picture.y(0), 480);
  assert.ok(picture.y(850) >= 20);
});

const job = {
  title: "Tower truck",
  sheets: [
    { id: "a", kind: "centring", left: [{ text: "6", unit: "in" }] },
    { id: "b", kind: "heights" },
  ],
} as unknown as Job;

test("a reading in the third place leaves the places between empty, and its removal no tail", () => {
  const typed = setReading("a", "left", 2, { text: "7", unit: "in" })(job);
  assert.deepEqual(typed.sheets?.[0]?.left, [{ text: "6", unit: "in" }, null, { text: "7", unit: "in" }]);
  const removed = setReading("a", "left", 2, undefined)(typed);
  assert.deepEqual(removed.sheets?.[0]?.left, [{ text: "6", unit: "in" }]);
  assert.equal(job.sheets?.[0]?.left?.length, 1, "the job before is not touched");
});

test("an edit of one sheet or of the bar leaves everything else as it was", () => {
  const edited = setBar({ stock: true } as never)(setSheet("b", { note: "read twice" } as never)(job));
  assert.equal(edited.sheets?.[0], job.sheets?.[0]);
  assert.deepEqual(edited.setups?.found?.bar, { stock: true });
  assert.deepEqual(
    removeSheet("a")(edited).sheets?.map((sheet) => sheet.id),
    ["b"],
  );
});

test("a round is added, mended at its end, and goes with its length", () => {
  const length = { text: "32", unit: "in" } as const;
  const added = addRound({ length } as never)(job);
  assert.equal(added.setups?.rounds?.length, 1);
  const mended = mendRound({ length: { text: "33", unit: "in" } })(added);
  assert.equal(mended.setups?.rounds?.[0]?.length?.text, "33");
  assert.equal(mendRound({ length: undefined })(mended).setups?.rounds?.length, 0);
});

test("two documents differ leaf by leaf, sheets counted from one, typed figures with their unit", () => {
  const theirs = setReading("a", "left", 0, { text: "6 1/16", unit: "in" })(job);
  assert.deepEqual(differences(job, theirs), [
    { place: "measurements 1 › left › 1", mine: "6 in", theirs: "6 1/16 in" },
  ]);
  assert.deepEqual(differences(job, job), []);
});

for (const [name, run] of cases) {
  let fault = "";
  try {
    await run();
  } catch (error) {
    fault = String(error instanceof Error ? error.message : error);
  }
  console.log(JSON.stringify({ name, fault }));
}
