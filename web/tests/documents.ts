/** Places in a document, rows that come and go, drafts on the device, and what two documents differ in. */
import assert from "node:assert/strict";
import type { FieldError, Job, Part } from "../src/api/client";
import { differences, settlingLost } from "../src/app/differences";
import { beginsWith, inputsForTheEye } from "../src/app/purposes";
import { isStage, STAGE_NAMES, STAGES } from "../src/app/stages";
import { valueAt, withValueAt } from "../src/job/pointers";
import { missingAt, signOfChecks } from "../src/job/signs";
import { FIELDS, KIND_NAMES } from "../src/parts/fields";
import { holesText, withUnit } from "../src/parts/rows";
import { sketchOf } from "../src/parts/sketch";
import { drafts } from "../src/ui/drafts";
import { placeOf, rowKeys, withoutRow, withRow } from "../src/ui/rows";
import { useUnread } from "../src/ui/unread";

type Test = (name: string, run: () => void) => void;

export function documentCases(test: Test) {
  pointerCases(test);
  rowCases(test);
  draftCases(test);
  differenceCases(test);
  signCases(test);
  partCases(test);
  purposeCases(test);
}

const job = {
  title: "Relay van 2",
  rig: { heights: [{ id: "h1", name: "raised" }], "a/b": 1, "c~d": 2 },
  sheets: [{ id: "s1", left: [{ text: "20" }, null, { text: "22" }] }],
} as unknown as Job;

function pointerCases(test: Test) {
  test("a value is found at its place, and nothing where there is none", () => {
    assert.equal(valueAt(job, "/title"), "Relay van 2");
    assert.equal(valueAt(job, "/rig/heights/0/name"), "raised");
    assert.deepEqual(valueAt(job, "/sheets/0/left/2"), { text: "22" });
    for (const nowhere of ["/rig/heights/7/name", "/title/0/1", "/bracket/holes"]) {
      assert.equal(valueAt(job, nowhere), undefined, nowhere);
    }
    assert.equal(valueAt(job, ""), job);
  });

  test("slashes and tildes of a name are written as a pointer writes them", () => {
    assert.deepEqual([valueAt(job, "/rig/a~1b"), valueAt(job, "/rig/c~0d")], [1, 2]);
    assert.equal(valueAt(withValueAt(job, "/rig/a~1b", 5), "/rig/a~1b"), 5);
  });

  test("what is put at a place is found there, and everything beside it is the very same", () => {
    for (const place of ["/title", "/rig/heights/0/name", "/rig/track", "/sheets/0/left/1", "/sway/link"]) {
      const put = withValueAt(job, place, "new");
      assert.equal(valueAt(put, place), "new", place);
      const part = place.split("/")[1];
      for (const other of Object.keys(job) as (keyof Job)[]) {
        if (other !== part) assert.equal(put[other], job[other], `${place}: ${other}`);
      }
    }
    assert.equal(job.title, "Relay van 2", "the document before is not touched");
  });

  test("the way to a place is begun: a number begins a row, a name an object", () => {
    const put = withValueAt({} as Job, "/sheets/1/left/2", { text: "9" });
    assert.deepEqual(put, { sheets: [null, { left: [null, null, { text: "9" }] }] });
  });

  test("a value taken out leaves no field, and in a row its place", () => {
    const without = withValueAt(job, "/rig/heights/0/name", undefined);
    assert.deepEqual(without.rig?.heights, [{ id: "h1" }]);
    const gap = withValueAt(job, "/sheets/0/left/2", undefined);
    assert.deepEqual(valueAt(gap, "/sheets/0/left"), [{ text: "20" }, null, null]);
    assert.equal(withValueAt(job, "/bracket/holes/0/name", undefined).bracket, undefined);
  });

  test("a value put back where it was gives the document as it was", () => {
    for (const place of ["/title", "/rig/heights/0/name", "/sheets/0/left/0"]) {
      assert.deepEqual(withValueAt(withValueAt(job, place, 7), place, valueAt(job, place)), job, place);
    }
  });
}

function rowCases(test: Test) {
  const rows = [
    { id: "hole-1", name: "low" },
    { id: "hole-2", name: "low" },
    { name: "crossmember" },
    { name: "crossmember" },
    { name: "" },
  ];

  test("rows go by their ids, rows without one by their names, with a number where two are alike", () => {
    assert.deepEqual(rowKeys(rows), ["hole-1", "hole-2", "crossmember", "crossmember 2", ""]);
    assert.equal(new Set(rowKeys(rows)).size, rows.length);
  });

  test("a row is found where it is by now", () => {
    const later = [{ name: "exhaust" }, ...rows];
    assert.deepEqual([placeOf(later, "hole-2"), placeOf(later, "crossmember 2")], [2, 4]);
    assert.equal(placeOf(rows, "gone"), -1);
  });

  test("a change lands in its row alone; one of a row that was taken out changes nothing", () => {
    const changed = withRow(rows, "crossmember 2", { name: "skid plate" });
    assert.deepEqual(
      changed.map(({ name }) => name),
      ["low", "low", "crossmember", "skid plate", ""],
    );
    assert.deepEqual(withRow(rows, "gone", { name: "x" }), rows);
    assert.deepEqual(withoutRow(rows, "gone"), rows);
    assert.deepEqual(rowKeys(withoutRow(rows, "hole-1")), ["hole-2", "crossmember", "crossmember 2", ""]);
  });
}

/** A device's store, and one that is full. */
function withStore(run: (kept: Map<string, string>) => void, full = false) {
  const kept = new Map<string, string>();
  const before = Object.getOwnPropertyDescriptor(globalThis, "localStorage");
  const store = new Proxy(
    {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, text: string) => {
        if (full) throw new Error("full");
        kept.set(key, text);
      },
      removeItem: (key: string) => kept.delete(key),
    },
    {
      ownKeys: () => [...kept.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    },
  );
  Object.defineProperty(globalThis, "localStorage", { value: store, configurable: true });
  try {
    run(kept);
  } finally {
    if (before) Object.defineProperty(globalThis, "localStorage", before);
    else Reflect.deleteProperty(globalThis, "localStorage");
  }
}

function draftCases(test: Test) {
  test("a draft keeps the value it was begun over, whatever is typed on", () => {
    withStore(() => {
      drafts.keep("job 1", "/rig/track", "15", "1500 mm");
      drafts.keep("job 1", "/rig/track", "1520", "something newer");
      assert.deepEqual(
        [drafts.get("job 1", "/rig/track"), drafts.begunOver("job 1", "/rig/track")],
        ["1520", "1500 mm"],
      );
      drafts.drop("job 1", "/rig/track");
      assert.deepEqual(
        [drafts.get("job 1", "/rig/track"), drafts.begunOver("job 1", "/rig/track")],
        [null, null],
      );
    });
  });

  test("drafts of one job are not those of another", () => {
    withStore(() => {
      drafts.keep("a", "/title", "one", "");
      drafts.keep("ab", "/title", "two", "");
      assert.deepEqual(drafts.places("a"), ["/title"]);
      assert.equal(drafts.get("ab", "/title"), "two");
    });
  });

  test("a draft moves with its row, and is dropped with the rows it was numbered by", () => {
    withStore(() => {
      drafts.keep("a", "/rows/1/name", "typed", "before");
      drafts.move("a", "/rows/1/name", "/rows/0/name");
      assert.deepEqual(drafts.places("a"), ["/rows/0/name"]);
      assert.equal(drafts.begunOver("a", "/rows/0/name"), "before");
      drafts.keep("a", "/title", "stays", "");
      drafts.dropUnder("a", "/rows");
      assert.deepEqual(drafts.places("a"), ["/title"]);
      assert.equal(drafts.begunOver("a", "/rows/0/name"), null);
    });
  });

  test("a device that is full, or keeps nothing at all, keeps nobody from typing", () => {
    withStore(() => {
      drafts.keep("a", "/title", "typed", "");
      assert.equal(drafts.get("a", "/title"), null);
    }, true);
    drafts.keep("a", "/title", "typed", "");
    drafts.dropUnder("a", "/");
    assert.deepEqual([drafts.get("a", "/title"), drafts.places("a")], [null, []]);
  });

  test("a field is marked unread once, and let go of", () => {
    const { mark } = useUnread.getState();
    mark("/rig/track", true);
    const { fields } = useUnread.getState();
    mark("/rig/track", true);
    assert.equal(useUnread.getState().fields, fields, "marked twice, nothing is drawn anew");
    mark("/rig/track", false);
    assert.equal(useUnread.getState().fields.size, 0);
  });
}

function differenceCases(test: Test) {
  const mine = {
    title: "Relay van 2",
    rig: { track: { text: "1500", unit: "mm", mm: 1500 } },
    setups: { found: { bar: { bent: true } }, rounds: [{ note: "first" }] },
  };

  test("a typed figure is one difference: its text and its unit", () => {
    const theirs = { ...mine, rig: { track: { text: "59", unit: "in", mm: 1498.6 } } };
    assert.deepEqual(differences(mine, theirs), [{ place: "rig › track", mine: "1500 mm", theirs: "59 in" }]);
  });

  test("places are called as people call them, counted from one", () => {
    const theirs = {
      ...mine,
      setups: { found: { bar: { bent: false } }, rounds: [{ note: "second" }, { note: "more" }] },
    };
    assert.deepEqual(
      differences(mine, theirs).map(({ place }) => place),
      ["bar › bent", "adjustment 1 › note", "adjustment 2 › note"],
    );
  });

  test("what one version has and the other has not is nothing there", () => {
    const [found] = differences(mine, { ...mine, title: undefined });
    assert.equal(found?.theirs, "undefined");
    const [added] = differences({}, { title: "New" });
    assert.deepEqual(added, { place: "title", mine: "nothing", theirs: "New" });
  });

  test("differences are the same two from either side, the other way round", () => {
    const theirs = { ...mine, title: "Relay van 3", sway: { kind: "none" } };
    const turned = differences(theirs, mine).map((one) => ({ ...one, mine: one.theirs, theirs: one.mine }));
    const byPlace = (a: { place: string }, b: { place: string }) => a.place.localeCompare(b.place);
    assert.deepEqual(turned.sort(byPlace), differences(mine, theirs).sort(byPlace));
  });

  test("a settling that the other version has is said by itself, not leaf by leaf", () => {
    const settled = { ...mine, settled: { at: "2026-09-14T16:00:00Z", results: { bar: 1 } } };
    assert.deepEqual(differences(mine, settled), []);
    const both = [mine, settled] as unknown as [Job, Job];
    assert.deepEqual(
      [settlingLost(both[0], both[1]), settlingLost(both[1], both[0]), settlingLost(both[1], both[1])],
      [true, false, false],
    );
  });
}

function signCases(test: Test) {
  const checks = (...verdicts: ("good" | "bad" | "open")[]) => verdicts.map((verdict) => ({ verdict }));

  test("what is bad is said before what is open, and that before what is good", () => {
    assert.deepEqual(signOfChecks(checks("good", "bad", "open", "bad")), { kind: "bad", word: "2 not good" });
    assert.deepEqual(signOfChecks(checks("good", "open")), { kind: "measure", word: "1 to check" });
    assert.deepEqual(signOfChecks(checks("good", "good")), { kind: "good", word: "good" });
    assert.deepEqual(signOfChecks([]), { kind: "plain", word: "nothing to check" });
    assert.deepEqual(signOfChecks([], "no sway bar"), { kind: "plain", word: "no sway bar" });
  });

  test("faults are those whose field lies at a place, or below it", () => {
    const fault = (pointer: string) => ({ pointer, code: "missing", message: "" }) as FieldError;
    const faults = [fault("/sway/axis"), fault("/sway/holes/0/arm"), fault("/rig/track")];
    assert.deepEqual(
      missingAt(faults, "/sway/holes", "/rig").map(({ pointer }) => pointer),
      ["/sway/holes/0/arm", "/rig/track"],
    );
    assert.deepEqual(missingAt(faults), []);
  });
}

function partCases(test: Test) {
  test("every kind of part has a name and fields, each field once", () => {
    assert.deepEqual(Object.keys(KIND_NAMES).sort(), Object.keys(FIELDS).sort());
    for (const [kind, fields] of Object.entries(FIELDS)) {
      const names = fields.map(({ name }) => name);
      assert.equal(new Set(names).size, names.length, kind);
      for (const field of fields) assert.ok(field.label.length > 1, `${kind} ${field.name}`);
    }
  });

  test("a length without a unit stands in a file with its own, one with a unit as it was typed", () => {
    assert.equal(withUnit({ text: " 32 1/2 ", unit: "in" }), "32 1/2 in");
    assert.equal(withUnit({ text: "825", unit: "mm" }), "825 mm");
    for (const typed of ["825 mm", "2' 8\"", '32 1/2"'])
      assert.equal(withUnit({ text: typed, unit: "in" }), typed);
  });

  test("holes stand in a file one behind the other; one without a height is left out", () => {
    const up = { text: "2", unit: "in" } as const;
    const rows = [
      { name: " low ", up, outward: { text: "1/2", unit: "in" } as const },
      { name: "not measured" },
      { name: "high", up: { text: "3", unit: "in" } as const, forward: { text: "10", unit: "mm" } as const },
    ];
    assert.equal(holesText(rows as never), "low: 2 in, outward 1/2 in; high: 3 in, forward 10 mm");
  });

  test("a part is drawn from its lengths in millimetres, its holes from their places", () => {
    const bracket = {
      kind: "bracket",
      name: "riser",
      end: "frame",
      attachment_spacing: { text: "3", unit: "in", mm: 76.2 },
      holes: [{ name: "low", up: { text: "2", unit: "in", mm: 50.8 } }],
    } as unknown as Part;
    const sketch = sketchOf(bracket);
    assert.deepEqual(sketch.mm, { attachment_spacing: 76.2 });
    assert.deepEqual(sketch.holes, [{ name: "low", up: 50.8, outward: 0 }]);
    assert.deepEqual([sketch.end, sketch.adjuster], ["frame", ""]);
    assert.equal(
      sketchOf({ kind: "bar", name: "b", adjuster: "one_end" } as unknown as Part).adjuster,
      "one_end",
    );
  });
}

function purposeCases(test: Test) {
  test("work begins where its first figure is", () => {
    const begins = (...toDo: Parameters<typeof beginsWith>[0]) => [
      inputsForTheEye(toDo),
      beginsWith(toDo).stage,
    ];
    assert.deepEqual(begins("fit_sway_links"), [false, "sway"]);
    assert.deepEqual(begins("centre_axle"), [true, "tape"]);
    // A Y-link has no eye at the frame, but both sides are read.
    assert.deepEqual(begins("convert_to_y_link"), [false, "tape"]);
    assert.deepEqual(begins("choose_sway_bar", "check_work"), [true, "tape"]);
    // A bar swap asks for the old bar's length, and needs no readings first.
    assert.deepEqual(begins("swap_bar"), [true, "bar"]);
    assert.deepEqual(begins("swap_bar", "centre_axle"), [true, "tape"]);
    assert.equal(beginsWith(["swap_bar"]).field, "/setups/found/bar/length");
    assert.deepEqual(begins(), [false, "sway"]);
  });

  test("an address names a stage or none", () => {
    assert.equal(STAGES.length, 8);
    for (const stage of STAGES) assert.ok(isStage(stage) && STAGE_NAMES[stage].length > 2, stage);
    for (const other of ["bolt-up", "Rig", "", undefined]) assert.equal(isStage(other), false);
  });
}
