// What heights are called where they are typed, and where those fields are.
import assert from "node:assert/strict";
import type { Job } from "../src/api/client";
import { heightLabel, isSigned } from "../src/job/heights";
import { isPlanned, planPart } from "../src/job/installs";
import { stageOf } from "../src/job/stageForPointer";

type Test = (name: string, run: () => void) => void;

const onItsWheels = { title: "Tender", rig: { end: "front" } } as unknown as Job;
const onAHoist = { title: "Tender", rig: { heights_from: "rail_and_axle" } } as unknown as Job;

export function heightCases(test: Test) {
  test("on its wheels every height is above the floor, and none is below it", () => {
    for (const onBody of [true, false])
      assert.equal(heightLabel(onItsWheels, onBody), "height above the floor");
    assert.equal(isSigned(onItsWheels), false);
    assert.equal(isSigned({ title: "Fresh" } as Job), false);
  });
  test("on a hoist the body's are from the rail, the axle's from its center, both ways", () => {
    assert.match(heightLabel(onAHoist, true), /frame rail/);
    assert.match(heightLabel(onAHoist, false), /axle center/);
    assert.equal(isSigned(onAHoist), true);
  });
  test("what a tie rod, a first bracket and a hoist want is asked where it is typed", () => {
    assert.equal(stageOf("/hardpoints/tie_rod/end/height"), "tape");
    assert.equal(stageOf("/bracket/first_bracket_room"), "bracket");
    assert.equal(stageOf("/rig/hub_faces"), "rig");
    assert.equal(stageOf("/sway/room/rail_underside"), "rig");
  });
  test("a tie rod that moves is installed in the job, and stays out where it is said so", () => {
    const moved = planPart("tie_rod", true)(onItsWheels);
    assert.equal(isPlanned(moved, "tie_rod"), true);
    assert.equal(isPlanned(planPart("tie_rod", false)(moved), "tie_rod"), false);
    assert.equal(isPlanned(planPart("tie_rod", undefined)(moved), "tie_rod"), undefined);
    assert.equal(isPlanned(moved, "straps"), undefined);
  });
}
