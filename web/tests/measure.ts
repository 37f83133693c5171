/** Figures as they are shown, against what a tape has on it. */
import assert from "node:assert/strict";
import { degrees, distance, fine, isPast, readBack, say, sideways, withMarks } from "../src/measure/format";
import { at, ticks } from "../src/measure/travel";

type Test = (name: string, run: () => void) => void;

const INCH = 25.4;

/** A length as a tape says it, back in inches: `1 3/16"`. */
function inchesOf(text: string): number {
  const found = /^(?:(\d+)(?: |(?="$)))?(?:(\d+)\/(\d+))?"$/.exec(text);
  assert.ok(found, text);
  const [, whole, over, under] = found;
  return Number(whole ?? 0) + (over && under ? Number(over) / Number(under) : 0);
}

export function measureCases(test: Test) {
  test("every sixteenth of a foot is printed as itself, in lowest terms", () => {
    for (let count = 0; count <= 12 * 16; count++) {
      const text = distance((count * INCH) / 16, "in");
      assert.equal(inchesOf(text), count / 16, text);
      const [, over, under] = /(\d+)\/(\d+)/.exec(text) ?? [];
      if (over) assert.equal(Number(over) % 2, 1, `${text} can be shortened`);
      if (under) assert.ok([2, 4, 8, 16].includes(Number(under)), text);
    }
  });

  test("every thirty-second of an inch is printed as itself where it is fine", () => {
    for (let count = 1; count <= 64; count++) {
      assert.equal(inchesOf(fine((count * INCH) / 32, "in")), count / 32);
    }
  });

  test("what is printed is never further off than half of what it is printed to", () => {
    for (let step = -400; step <= 400; step++) {
      const mm = step * 0.137;
      const off = Math.abs(inchesOf(distance(mm, "in")) - Math.abs(mm) / INCH);
      assert.ok(off <= 1 / 32 + 1e-6, `${mm} mm`);
      const metric = Number.parseFloat(distance(mm, "mm"));
      assert.ok(Math.abs(metric - Math.abs(mm)) <= 0.25 + 1e-3, `${mm} mm`);
      const tenths = fine(mm, "mm");
      if (!tenths.startsWith("less")) {
        assert.ok(Math.abs(Number.parseFloat(tenths) - Math.abs(mm)) <= 0.05 + 1e-3, `${mm} mm`);
      }
    }
  });

  test("a longer length is never printed shorter", () => {
    let [inches, metric] = [0, 0];
    for (let mm = 0; mm < 60; mm += 0.07) {
      const next = [inchesOf(distance(mm, "in")), Number.parseFloat(distance(mm, "mm"))] as const;
      assert.ok(next[0] >= inches && next[1] >= metric, `${mm} mm`);
      [inches, metric] = next;
    }
  });

  test("left and right are told alike, by their side alone", () => {
    for (const mm of [0.4, 3, 9.525, 25.4, 812.8]) {
      for (const unit of ["in", "mm"] as const) {
        const [left, right] = [sideways(mm, unit), sideways(-mm, unit)];
        if (left === "centered") assert.equal(right, "centered");
        else assert.equal(left.replace(/left$/, "right"), right);
      }
    }
    assert.equal(sideways(0, "mm"), "centered");
  });

  test("less than the finest mark is said so, and nothing is nothing", () => {
    assert.equal(fine(0.2, "in"), 'less than 1/32"');
    assert.equal(fine(-0.03, "mm"), "less than 0.1 mm");
    assert.deepEqual([fine(0, "in"), fine(0, "mm")], ['0"', "0 mm"]);
  });

  test("a length read back keeps its sign", () => {
    assert.deepEqual([readBack(-38.1, "in"), readBack(-38.1, "mm")], ['−1 1/2"', "−38.1 mm"]);
    assert.equal(readBack(0, "in"), '0"');
  });

  test("an angle is told without its sign, to a tenth", () => {
    assert.deepEqual([degrees(-5.04), degrees(5.06), degrees(0)], ["5.0°", "5.1°", "0.0°"]);
  });

  test("a sentence is taken for the unit one reads in", () => {
    const both = { in: '1/2" to the left', mm: "12.5 mm to the left" };
    assert.deepEqual([say(both, "in"), say(both, "mm")], [both.in, both.mm]);
  });

  test("inch marks are set behind figures alone, and quotes stay quotes", () => {
    assert.equal(withMarks('the hole "high" at 3/8"'), 'the hole "high" at 3/8″');
    assert.equal(withMarks("5 mm and 5 mmx"), "5\u00a0mm and 5 mmx");
    assert.equal(withMarks("2 ½ turns"), "2\u00a0½ turns");
  });

  test("yesterday is past, today and tomorrow are not", () => {
    const day = (offset: number) => {
      const date = new Date();
      date.setDate(date.getDate() + offset);
      const two = (part: number) => String(part).padStart(2, "0");
      return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
    };
    assert.deepEqual([-1, 0, 1].map(day).map(isPast), [true, false, false]);
  });

  ruleCases(test);
}

function ruleCases(test: Test) {
  test("a rule between two places has every mark between them, both ends too", () => {
    for (const unit of ["in", "mm"] as const) {
      const step = unit === "in" ? INCH / 16 : 1;
      const found = ticks(-2 * step, 3 * step, unit);
      assert.deepEqual(
        found.map(({ mm }) => Math.round(mm / step)),
        [-2, -1, 0, 1, 2, 3],
      );
      assert.equal(found[2]?.weight, 3, "nought is a whole one");
    }
    assert.deepEqual(ticks(0.2, 0.8, "mm"), []);
  });

  test("marks left of nought weigh as those right of it", () => {
    const found = ticks(-INCH, INCH, "in");
    const weight = new Map(found.map(({ mm, weight }) => [Math.round((mm * 16) / INCH), weight]));
    for (const [count, here] of weight) assert.equal(weight.get(-count), here);
  });

  test("a sweep that is a straight line is that line everywhere", () => {
    const sample = (travel: number) => ({
      travel_mm: travel,
      found_mm: 2 * travel,
      planned_mm: 5 - travel,
      found_angle_deg: travel / 4,
      planned_angle_deg: 1,
    });
    const sweep = [-90, -45, 0, 45, 90].map(sample);
    for (let travel = -90; travel <= 90; travel += 7.5) {
      const here = at(sweep, travel);
      const wanted = sample(travel);
      for (const name of ["found_mm", "planned_mm", "found_angle_deg", "planned_angle_deg"] as const) {
        assert.ok(Math.abs((here?.[name] ?? Number.NaN) - wanted[name]) < 1e-9, `${name} at ${travel}`);
      }
    }
  });
}
