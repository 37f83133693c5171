/** Edits of a document: each gives a new one, changes its own part and leaves the rest the very same. */
import assert from "node:assert/strict";
import type { Job, Results, Schemas } from "../src/api/client";
import {
  addRound,
  addSheet,
  choosePlan,
  dropKept,
  mendRound,
  planSway,
  removeSheet,
  setAdjuster,
  setArm,
  setBar,
  setBracketing,
  setChosen,
  setHoles,
  setReading,
  setRig,
  setSheet,
  setSway,
  setTrial,
  setVehicle,
  tried,
} from "../src/job/edits";
import { isPlanned, planPart, recordParts } from "../src/job/installs";
import { countsOf, isAccepted, standingIn } from "../src/job/standing";
import { mark, ownKey, setFastener, setPart, setStep, setWork } from "../src/stages/bolt_up/edits";
import { boltOf, withBolt } from "../src/stages/bracket/eyes";
import {
  confirmCause,
  lookedAt,
  markFixed,
  setCauseNote,
  takeBackCause,
  takeBackCheck,
} from "../src/stages/prove/causeEdits";
import { accept, lastMove, setCause, setDragLink, setOff, setProof } from "../src/stages/prove/edits";
import { whyReopened } from "../src/stages/prove/reopened";
import { addBuild, runsInTubes, setTubes } from "../src/stages/sway/edits";

type Test = (name: string, run: () => void) => void;
type PlanForm = Schemas["PlanForm"];

const inches = (text: string) => ({ text, unit: "in" as const });

/** A service truck of the lookout district, with two sheets, a round and a chosen plan. */
const job = {
  title: "Lookout truck 3",
  rig: { vehicle: "crew truck", end: "front", sheet_unit: "mm" },
  sheets: [
    { id: "sheet-1", kind: "centring", left: [inches("24")], method: "body_to_sidewall", unit: "mm" },
    { id: "sheet-2", kind: "squareness", between_points: inches("40") },
  ],
  setups: {
    found: { bar: { length: inches("32") }, axle_holes: [{ id: "old", name: "old" }] },
    rounds: [{ id: "round-1", length: inches("32 1/2") }],
    plans: { chosen: { axle: { bracket: "riser", hole: "two" } } },
  },
  hardpoints: { arms: { lower_left: { length: inches("20") }, lower_right: { length: inches("20") } } },
  sway: { kind: "one_piece" },
  bolt_up: { by: "Ansel", steps: [{ key: "stands" }] },
} as unknown as Job;

export function editCases(test: Test) {
  partCases(test);
  sheetCases(test);
  roundCases(test);
  planCases(test);
  trialCases(test);
  workCases(test);
  proofCases(test);
  installCases(test);
  swayCases(test);
}

/** A splined bar's tubes and what is still to be built: beside the rest of stage Sway. */
function swayCases(test: Test) {
  test("tubes are said to be there, measured one by one, and gone with a no", () => {
    const there = runsInTubes(true)(job);
    assert.deepEqual(there.sway, { kind: "one_piece", splined: { tubes: {} } });
    const measured = setTubes({ inner_plates: true })(setTubes({ outside: inches("2") })(there));
    assert.deepEqual(measured.sway?.splined?.tubes, { outside: inches("2"), inner_plates: true });
    // A second yes keeps what was typed.
    assert.deepEqual(runsInTubes(true)(measured), measured);
    const bars = [{ length: inches("36"), diameter: inches("1") }];
    const withBars = setSway({ splined: { ...measured.sway?.splined, bars } })(measured);
    assert.deepEqual(runsInTubes(false)(withBars).sway?.splined, { bars, tubes: undefined });
  });

  test("the first build to come is a lift, the next has no name yet", () => {
    const first = addBuild(job);
    assert.deepEqual(first.sway?.build_stages, [{ name: "next lift" }]);
    assert.deepEqual(addBuild(first).sway?.build_stages, [{ name: "next lift" }, { name: "" }]);
    assert.equal(first.sway?.kind, "one_piece");
    assert.equal(first.rig, job.rig);
  });
}

/** What a job installs: planned, let go of, and on record with the adjustment nobody measured since. */
function installCases(test: Test) {
  test("a part is planned and let go of, and the chosen plan stays", () => {
    const planned = planPart("brace", true)(planPart("sway_bar", true)(job));
    assert.deepEqual(planned.setups?.plans?.parts, ["sway_bar", "brace"]);
    assert.equal(isPlanned(planned, "brace"), true);
    assert.equal(planned.setups?.plans?.chosen, job.setups?.plans?.chosen);
    const left = planPart("brace", undefined)(planPart("sway_bar", undefined)(planned));
    assert.equal(left.setups?.plans?.parts, undefined);
    assert.equal(isPlanned(left, "brace"), undefined);
  });
  test("a no is remembered, and a yes or nothing takes its place", () => {
    const no = planPart("brace", false)(planPart("brace", true)(job));
    assert.equal(isPlanned(no, "brace"), false);
    assert.deepEqual(no.setups?.plans?.not_here, ["brace"]);
    const yes = planPart("brace", true)(no);
    assert.equal(isPlanned(yes, "brace"), true);
    assert.equal(yes.setups?.plans?.not_here, undefined);
    assert.equal(isPlanned(planPart("brace", undefined)(no), "brace"), undefined);
  });
  test("what was installed goes on record with the last adjustment, or after measurements by itself", () => {
    const together = recordParts(["brace"])(job).setups?.rounds ?? [];
    assert.deepEqual(together, [{ id: "round-1", length: inches("32 1/2"), parts: ["brace"] }]);
    const measured = { ...job, sheets: [{ ...job.sheets?.[0], id: "sheet-3", after: "round-1" }] } as Job;
    const apart = recordParts(["brace"], " Rosa ")(measured).setups?.rounds ?? [];
    assert.equal(apart.length, 2);
    assert.deepEqual([apart[1]?.parts, apart[1]?.by], [["brace"], "Rosa"]);
  });
}

/** Every edit of a part: where it lands, and that nothing beside it was touched. */
function partCases(test: Test) {
  const edits: [string, (job: Job) => Job, keyof Job, (job: Job) => unknown, unknown][] = [
    ["rig", setRig({ end: "rear" }), "rig", (edited) => edited.rig?.end, "rear"],
    ["bar", setBar({ bent: true }), "setups", (edited) => edited.setups?.found?.bar?.bent, true],
    [
      "adjuster",
      setAdjuster({ kind: "turnbuckle" }),
      "setups",
      (edited) => edited.setups?.found?.adjuster?.kind,
      "turnbuckle",
    ],
    [
      "arm",
      setArm("lower_left", { length: inches("21") }),
      "hardpoints",
      (edited) => edited.hardpoints?.arms?.lower_left?.length?.text,
      "21",
    ],
    [
      "bracketing",
      setBracketing({ target: "level_driven" }),
      "bracket",
      (edited) => edited.bracket?.target,
      "level_driven",
    ],
    ["sway bar", setSway({ kind: "splined" }), "sway", (edited) => edited.sway?.kind, "splined"],
    [
      "vehicle",
      setVehicle({ roof_load: undefined }),
      "vehicle",
      (edited) => edited.vehicle !== undefined,
      true,
    ],
  ];
  for (const [name, edit, part, read, wanted] of edits) {
    test(`an edit of the ${name} lands there, and every other part is the very same`, () => {
      const before = JSON.stringify(job);
      const edited = edit(job);
      assert.deepEqual(read(edited), wanted);
      for (const other of Object.keys(job) as (keyof Job)[]) {
        if (other !== part) assert.equal(edited[other], job[other], other);
      }
      assert.equal(JSON.stringify(job), before, "the job before is not touched");
    });
  }

  test("an edit keeps the other fields of its part", () => {
    assert.equal(setRig({ end: "rear" })(job).rig?.vehicle, "crew truck");
    assert.equal(setBar({ bent: true })(job).setups?.found?.bar?.length?.text, "32");
    assert.deepEqual(setBar({ bent: true })(job).setups?.rounds, job.setups?.rounds);
    assert.equal(setArm("lower_left", {})(job).hardpoints?.arms?.lower_right?.length?.text, "20");
  });

  test("every part can be begun in a document that holds nothing", () => {
    const bare = { title: "Fresh" } as Job;
    for (const [, edit, , read, wanted] of edits) assert.deepEqual(read(edit(bare)), wanted);
  });
}

function sheetCases(test: Test) {
  test("a fresh sheet is like the one of its kind before it, empty, after the last round", () => {
    const { id, edit } = addSheet(job, "centring");
    const sheet = edit(job).sheets?.at(-1);
    assert.equal(sheet?.id, id);
    assert.deepEqual([sheet?.method, sheet?.unit, sheet?.after], ["body_to_sidewall", "mm", "round-1"]);
    assert.deepEqual([sheet?.left, sheet?.right], [[], []]);
    assert.equal(edit(job).sheets?.length, 3);
  });

  test("a fresh squareness sheet keeps the distance between its points, which is of the vehicle", () => {
    const { edit } = addSheet(job, "squareness");
    assert.equal(edit(job).sheets?.at(-1)?.between_points?.text, "40");
  });

  test("the first sheet of all is read to the hubs, in the unit of the rig", () => {
    const sheet = addSheet({ rig: { sheet_unit: "mm" } } as unknown as Job, "centring").edit({} as Job)
      .sheets?.[0];
    assert.deepEqual([sheet?.method, sheet?.sense, sheet?.unit], ["frame_to_hub", "outward", "mm"]);
    assert.equal("after" in (sheet ?? {}), false, "no round, none to be after");
  });

  test("two fresh sheets have two ids", () => {
    assert.notEqual(addSheet(job, "centring").id, addSheet(job, "centring").id);
  });

  test("a sheet that is not there is not begun by an edit of it", () => {
    assert.deepEqual(setSheet("sheet-9", { left: [] })(job).sheets, job.sheets);
    assert.deepEqual(removeSheet("sheet-9")(job).sheets, job.sheets);
  });

  test("a reading taken out in the middle leaves its place, at the end none", () => {
    const three = [0, 1, 2].reduce(
      (edited, place) => setReading("sheet-1", "left", place, inches(String(20 + place)))(edited),
      job,
    );
    const texts = (edited: Job) => edited.sheets?.[0]?.left?.map((entry) => entry?.text ?? null);
    assert.deepEqual(texts(three), ["20", "21", "22"]);
    assert.deepEqual(texts(setReading("sheet-1", "left", 1, undefined)(three)), ["20", null, "22"]);
    const shorter = setReading(
      "sheet-1",
      "left",
      2,
      undefined,
    )(setReading("sheet-1", "left", 1, undefined)(three));
    assert.deepEqual(texts(shorter), ["20"], "the empty places before the end go with it");
  });

  test("a side that was never read is begun, the other side stays", () => {
    const read = setReading("sheet-1", "right", 0, inches("23"))(job);
    assert.deepEqual(read.sheets?.[0]?.right, [inches("23")]);
    assert.equal(read.sheets?.[0]?.left, job.sheets?.[0]?.left);
  });
}

function roundCases(test: Test) {
  test("a round has an id of its own and the time it was recorded", () => {
    const one = addRound({ length: inches("33") } as never)(job);
    const two = addRound({ length: inches("33") } as never)(one);
    const ids = two.setups?.rounds?.map((round) => round.id);
    assert.equal(new Set(ids).size, 3);
    const at = two.setups?.rounds?.at(-1)?.at;
    assert.ok(at && Math.abs(Date.parse(at) - Date.now()) < 60_000, at);
  });

  test("only the last round is mended; where there is none nothing is begun", () => {
    const two = addRound({ length: inches("33") } as never)(job);
    const mended = mendRound({ length: inches("34") })(two);
    assert.deepEqual(
      mended.setups?.rounds?.map((round) => round.length?.text),
      ["32 1/2", "34"],
    );
    assert.deepEqual(mendRound({ note: "read twice" })({ title: "Fresh" } as Job), { title: "Fresh" });
  });

  test("a note alone does not take the round out", () => {
    const noted = mendRound({ note: "bushing squeaks" })(job);
    assert.deepEqual([noted.setups?.rounds?.length, noted.setups?.rounds?.[0]?.note], [1, "bushing squeaks"]);
  });
}

const plan = (hole: string, bar = ""): PlanForm => ({
  axle: { bracket: "riser", hole },
  ...(bar && { bar }),
});

/** The holes of a job's chosen and kept plans. */
const plansOf = (edited: Job) => {
  const { chosen, kept = [] } = edited.setups?.plans ?? {};
  return [chosen?.axle?.hole ?? null, kept.map((one) => one.axle?.hole ?? null)];
};

function planCases(test: Test) {
  test("the plan that was chosen before is kept beside the new one, once", () => {
    const three = choosePlan(plan("three"))(job);
    assert.deepEqual(plansOf(three), ["three", ["two"]]);
    const back = choosePlan(plan("two"))(three);
    assert.deepEqual(plansOf(back), ["two", ["three"]], "and the one chosen again is kept no more");
    assert.deepEqual(plansOf(choosePlan(plan("two"))(back)), ["two", ["three"]]);
  });

  test("a plan with another bar, drag link or length is another plan", () => {
    for (const part of [
      { bar: "long one" },
      { drag_link: "raised" },
      { length: "as_the_old_one" },
    ] as const) {
      const chosen = choosePlan({ ...plan("two"), ...part } as PlanForm)(job);
      assert.deepEqual(plansOf(chosen), ["two", ["two"]], JSON.stringify(part));
    }
    // Said or left to what it is anyway, it is the same one.
    const same = choosePlan({ ...plan("two"), bar: "", length: "centred" } as PlanForm)(job);
    assert.deepEqual(plansOf(same), ["two", []]);
  });

  test("letting go of a plan keeps it", () => {
    assert.deepEqual(plansOf(choosePlan(undefined)(job)), [null, ["two"]]);
    assert.deepEqual(plansOf(choosePlan(undefined)({ title: "Fresh" } as Job)), [null, []]);
  });

  test("twelve plans are kept, the newest of them", () => {
    const many = Array.from({ length: 15 }, (_, at) => plan(`hole ${at}`));
    const edited = many.reduce((before, one) => choosePlan(one)(before), job);
    const [chosen, kept] = plansOf(edited);
    assert.equal(chosen, "hole 14");
    assert.equal((kept as string[]).length, 12);
    assert.deepEqual((kept as string[]).slice(0, 2), ["hole 13", "hole 12"]);
  });

  test("a kept plan is taken out by its place", () => {
    const kept = choosePlan(plan("four"))(choosePlan(plan("three"))(job));
    assert.deepEqual(plansOf(kept), ["four", ["three", "two"]]);
    assert.deepEqual(plansOf(dropKept(0)(kept)), ["four", ["two"]]);
    assert.deepEqual(plansOf(dropKept(7)(kept)), ["four", ["three", "two"]]);
  });

  test("a part of the chosen plan is changed, the rest of it stays", () => {
    const edited = setChosen({ bar: "long one" })(job);
    assert.deepEqual(edited.setups?.plans?.chosen, {
      axle: { bracket: "riser", hole: "two" },
      bar: "long one",
    });
    assert.equal(setChosen({ bar: "long one" })({} as Job).setups?.plans?.chosen?.bar, "long one");
  });

  test("what is planned for the sway bar stands beside the chosen plan", () => {
    const edited = planSway({ link: inches("10") } as never)(job);
    assert.equal(edited.setups?.plans?.chosen, job.setups?.plans?.chosen);
    assert.equal(planSway(undefined)(edited).setups?.plans?.sway, undefined);
  });
}

function trialCases(test: Test) {
  test("a hole is tried at one end and let go of; nothing tried is no trial", () => {
    const axle = tried(undefined, "axle", "low");
    assert.deepEqual(axle?.axle, { hole: "low" });
    const both = tried(axle, "frame", "outer");
    assert.deepEqual([both?.axle?.hole, both?.frame?.hole], ["low", "outer"]);
    assert.deepEqual(tried(both, "axle", "")?.frame, { hole: "outer" });
    assert.equal(tried(axle, "axle", ""), undefined);
  });

  const trying = setTrial({ axle: { hole: "old" }, frame: { hole: "outer" } } as PlanForm)(job);

  test("a hole that is taken out is tried no more, what is tried at the other end is", () => {
    const without = setHoles("axle", [])(trying);
    assert.deepEqual(without.setups?.found?.axle_holes, []);
    assert.equal(without.setups?.plans?.trial?.axle, undefined);
    assert.equal(without.setups?.plans?.trial?.frame?.hole, "outer");
  });

  test("a hole with another name is the same hole", () => {
    const renamed = setHoles("axle", [{ id: "old", name: "the good one" } as Schemas["Hole"]])(trying);
    assert.equal(renamed.setups?.plans?.trial?.axle?.hole, "old");
  });

  test("a tried hole of a bracket does not go with those of the vehicle", () => {
    const bracket = setTrial({ axle: { bracket: "riser", hole: "two" } } as PlanForm)(job);
    assert.equal(setHoles("axle", [])(bracket).setups?.plans?.trial?.axle?.bracket, "riser");
  });
}

function workCases(test: Test) {
  test("a step's record is mended where there is one, and begun where there is none", () => {
    const mended = setStep("stands", { against: "no room" })(job);
    assert.deepEqual(mended.bolt_up?.steps, [{ key: "stands", against: "no room" }]);
    const begun = setStep("bar/out", { struck: "it is out already" })(mended);
    assert.deepEqual(
      begun.bolt_up?.steps?.map((step) => step.key),
      ["stands", "bar/out"],
    );
    assert.equal(begun.bolt_up?.by, "Ansel", "who does it stays");
  });

  test("fasteners and parts go by their keys like steps", () => {
    const tight = setFastener("bar/jam", { name: "both jam nuts" })(job);
    assert.deepEqual(tight.bolt_up?.fasteners, [{ key: "bar/jam", name: "both jam nuts" }]);
    const wrong = setPart("part/bar", { state: "wrong" })(tight);
    assert.deepEqual(wrong.bolt_up?.parts, [{ key: "part/bar", state: "wrong" }]);
    assert.equal(wrong.bolt_up?.fasteners, tight.bolt_up?.fasteners);
  });

  test("a change of the work may go by the work as it is", () => {
    const edited = setWork(({ by }) => ({ by: `${by} and Edda` }))(job);
    assert.equal(edited.bolt_up?.by, "Ansel and Edda");
  });

  test("a line of one's own gets a number that no other line has", () => {
    assert.equal(ownKey(undefined), "own/1");
    assert.equal(ownKey([{ key: "own/1" }, { key: "own/4" }]), "own/5");
    assert.equal(ownKey([{ key: "bar/jam" }, {}]), "own/1", "keys of the plan have no number");
  });

  test("a tick says when, and by whom where somebody said who works", () => {
    assert.equal(mark({ by: "Edda" }).by, "Edda");
    assert.equal("by" in mark({ by: "" }), false);
    assert.equal("by" in mark(undefined), false);
    assert.ok(Date.parse(mark(undefined).at) > 0);
  });
}

function proofCases(test: Test) {
  const gate: Pick<Schemas["Finding"], "key" | "says"> = {
    key: "part_wrong/skid plate",
    says: { in: "Missing or wrong part: skid plate.", mm: "Missing or wrong part: skid plate." },
  };

  test("what counts towards closing is picked, and what was accepted is known", () => {
    const found = (over: Partial<Schemas["Finding"]>) =>
      ({ ...gate, weight: "safety", verdict: "fails", acceptable: true, ...over }) as Schemas["Finding"];
    const felt = found({ weight: "comfort" });
    const near = found({ verdict: "close" });
    const loose = found({ acceptable: false, accepted: { key: gate.key, because: "later" } });
    const taken = found({ accepted: { key: gate.key, because: "on order" } });
    assert.deepEqual(countsOf([felt, near, loose, taken]), [loose, taken]);
    assert.deepEqual([loose, taken, found({})].map(isAccepted), [false, true, false]);
  });

  test("a screen is marked for what fails there, and once it is proved for what is open there too", () => {
    const found = (over: Partial<Schemas["Finding"]>) =>
      ({
        ...gate,
        weight: "safety",
        verdict: "fails",
        acceptable: true,
        stage: "sway",
        ...over,
      }) as Schemas["Finding"];
    const [fails, open, off] = [found({}), found({ verdict: "open" }), found({ kind: "still_off" })];
    const findings = [
      fails,
      open,
      off,
      found({ stage: "cycle" }),
      found({ accepted: { key: gate.key, because: "ordered" } }),
    ];
    const standing = (state: Schemas["JobState"]) =>
      standingIn({ findings, status: { state, open: 0, says: gate.says } }, "sway");
    assert.deepEqual(standing("planned"), [fails]);
    assert.deepEqual(standing("proved"), [fails, open, off]);
  });

  test("a job that is open again says what its record says otherwise", () => {
    const phrase = (text: string) => ({ in: text, mm: text });
    const found = (key: string) => ({ ...gate, key, weight: "safety", verdict: "fails", acceptable: true });
    const closed = (results: object) =>
      ({ ...job, settled: { at: "", core_version: "0.5.0", results } }) as unknown as Job;
    const now = {
      settled_stands: false,
      prove: { says: phrase("Still off") },
      findings: [found("old"), found("new")],
      stages: [{ stage: "bar", headline: phrase("1/8 longer") }],
    } as unknown as Results;
    const record = { prove: { says: phrase("Proved") }, findings: [{ key: "old" }] };
    assert.deepEqual(whyReopened(closed(record), now), [
      { before: phrase("Proved"), now: phrase("Still off") },
      { now: gate.says },
    ]);
    // Nothing of that differs: then what a screen says does.
    const alike = {
      prove: now.prove,
      findings: now.findings,
      stages: [{ stage: "bar", headline: phrase("set") }],
    };
    assert.deepEqual(whyReopened(closed(alike), now), [{ before: phrase("set"), now: phrase("1/8 longer") }]);
    assert.deepEqual(whyReopened(closed(alike), { ...now, settled_stands: true }), []);
  });

  const at = "2026-11-30T08:00:00Z";

  test("an acceptance keeps what was read, who and when; an empty reason is none", () => {
    const accepted = accept(gate, gate.says.mm, { because: "no bolts to be had", by: "Edda", at })(job);
    assert.deepEqual(accepted.proof?.acceptances, [
      { key: gate.key, said: gate.says.mm, because: "no bolts to be had", by: "Edda", at },
    ]);
    const again = accept(gate, gate.says.mm, { because: "comes on Friday", at })(accepted);
    assert.deepEqual(
      again.proof?.acceptances?.map(({ because }) => because),
      ["comes on Friday"],
    );
    assert.deepEqual(accept(gate, gate.says.mm, { because: "  ", at })(again).proof?.acceptances, []);
  });

  test("an acceptance of one thing leaves that of another; whoever closes the job gives it", () => {
    const other = { ...gate, key: "still_off/fender" };
    const closer = setProof({ by: "Jonas" })(job);
    const first = accept(gate, "", { because: "lost", at })(closer);
    const both = accept(other, "", { because: "ordered", at })(first);
    assert.deepEqual(
      both.proof?.acceptances?.map(({ key, by }) => [key, by]),
      [
        [gate.key, "Jonas"],
        [other.key, "Jonas"],
      ],
    );
  });

  test("an eye's bolt is the one of both until something is entered for it alone", () => {
    const form: Schemas["Bracketing"] = { bolt: { grade: "grade_8", nut: "plain" } };
    assert.deepEqual(boltOf(form, "axle_eye"), form.bolt);
    const own = { ...form, ...withBolt(form, "axle_eye", { nut: "castle" }) };
    assert.deepEqual(own.axle_eye, { bolt: { grade: "grade_8", nut: "castle" } });
    assert.deepEqual([boltOf(own, "frame_eye"), own.bolt], [form.bolt, form.bolt]);
    assert.deepEqual(withBolt(own, "both", { nut: "flanged" }), {
      bolt: { grade: "grade_8", nut: "flanged" },
    });
    assert.deepEqual(boltOf(undefined, "frame_eye"), {});
  });

  test("where an eye really sits goes to its own move, and what it was to that adjustment", () => {
    const moved = (end: "axle" | "frame") => ({ end, by_mm: [0, 0, 50.8] });
    const rounds = [{ moved: [moved("frame"), moved("axle")] }, { note: "torqued" }];
    const fitted = { ...job, setups: { rounds } } as Job;
    const up = { text: "1", unit: "in" } as const;
    const off = setOff(0, 1, { up })(setOff(0, 1, { outward: up })(fitted));
    assert.deepEqual(off.setups?.rounds?.[0]?.moved, [
      moved("frame"),
      { ...moved("axle"), off: { outward: up, up } },
    ]);
    assert.equal(off.setups?.rounds?.[1], rounds[1]);
    const cause = { what: "eye_elsewhere", done: { at } } as const;
    assert.equal(setCause(1, cause)(off).setups?.rounds?.[1]?.cause, cause);
    assert.equal(setDragLink(1, up)(off).setups?.rounds?.[1]?.drag_link_length, up);
    const last = (end: "axle" | "frame") => lastMove(off, end);
    assert.deepEqual([last("frame")?.moved, last("axle")?.moved, lastMove(job, "axle")], [0, 1, undefined]);
  });

  test("what was looked at stays beside what was driven", () => {
    const looked = setProof({ looked_at: { toe: true } } as never)(job);
    const driven = setProof({ odometer: "41200" } as never)(looked);
    assert.deepEqual(driven.proof?.looked_at, { toe: true });
  });

  test("a check that is answered again has its newest answer, once", () => {
    const once = lookedAt("bolt_moves", true)(lookedAt("floor_slopes", false)(job));
    const again = lookedAt("bolt_moves", false, "I. Stone")(once);
    assert.deepEqual(
      again.diagnosis?.checks?.map(({ what, seen }) => [what, seen]),
      [
        ["floor_slopes", false],
        ["bolt_moves", false],
      ],
    );
    assert.equal(again.diagnosis?.checks?.[1]?.done.by, "I. Stone");
    assert.equal(takeBackCheck("bolt_moves")(again).diagnosis?.checks?.length, 1);
    assert.equal(again.setups, job.setups);
  });

  test("a cause is confirmed, noted, fixed and taken back", () => {
    const found = setCauseNote(0, { note: "rubber torn" })(confirmCause("bushing_torn", "I. Stone")(job));
    assert.equal(found.diagnosis?.causes?.[0]?.mended, undefined);
    const fixed = markFixed(0)(found).diagnosis?.causes?.[0];
    assert.deepEqual([fixed?.what, fixed?.note, fixed?.done.by], ["bushing_torn", "rubber torn", "I. Stone"]);
    assert.ok(fixed?.mended?.at);
    assert.deepEqual(takeBackCause(0)(found).diagnosis?.causes, []);
  });

  test("what is taken back of the search leaves everything else of it", () => {
    const both = confirmCause("shocks_tired")(
      confirmCause("tires_unlike")(lookedAt("keeps_swinging", true)(job)),
    );
    const left = takeBackCause(0)(both);
    assert.deepEqual(
      left.diagnosis?.causes?.map(({ what }) => what),
      ["shocks_tired"],
    );
    assert.equal(left.diagnosis?.checks, both.diagnosis?.checks);
    assert.equal(takeBackCheck("keeps_swinging")(both).diagnosis?.causes, both.diagnosis?.causes);
    assert.deepEqual(takeBackCheck("bolt_moves")(both).diagnosis?.checks, both.diagnosis?.checks);
  });

  test("a note of one cause is no note of the other", () => {
    const both = confirmCause("shocks_tired")(confirmCause("tires_unlike")(job));
    const noted = setCauseNote(1, { mended_note: "both replaced" })(markFixed(1, "I. Stone")(both));
    const [tires, shocks] = noted.diagnosis?.causes ?? [];
    assert.deepEqual([tires?.mended, tires?.mended_note], [undefined, undefined]);
    assert.deepEqual([shocks?.mended?.by, shocks?.mended_note], ["I. Stone", "both replaced"]);
    assert.equal(both.diagnosis?.causes?.[1]?.mended, undefined);
  });

  test("nothing is confirmed in a job that was not searched", () => {
    assert.deepEqual(takeBackCheck("bolt_moves")(job).diagnosis, { checks: [] });
    assert.deepEqual(takeBackCause(3)(job).diagnosis, { causes: [] });
    assert.deepEqual(markFixed(0)(job).diagnosis, { causes: [] });
  });
}
