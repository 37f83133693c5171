/** A window's own stores, the keys and fields of its page, and its calls to the program. */
import assert from "node:assert/strict";
import type { Job, PartView, Results, SwayLinks } from "../src/api/client";
import { importParts, retirePart, saveRow, takeSamples } from "../src/app/partCalls";
import { isPractice } from "../src/app/usePractice";
import { followRegistry, readsFor, useRegistry } from "../src/app/useRegistry";
import { stickStep } from "../src/elevation/Stick";
import { lineWords, reachOf } from "../src/elevation/SwingCurves";
import { useStance } from "../src/elevation/stance";
import { flipEnds, lookAt, standing, strideTo, useLook } from "../src/elevation/walk/useLook";
import { nameOf, VIEWS } from "../src/elevation/walk/views";
import { JUDGES } from "../src/job/judge";
import { readTape } from "../src/job/readTape";
import { useSession } from "../src/job/session";
import { swayPoseAt } from "../src/job/useSwayed";
import { openStep, timeOf } from "../src/stages/bolt_up/useWorked";
import { lowered } from "../src/stages/cycle/lowered";
import { openOf } from "../src/stages/prove/LookedAt";
import { optionsOf } from "../src/ui/Choice";
import { focusNext, focusNextEmpty, isTaken } from "../src/ui/focus";
import { goToField } from "../src/ui/reveal";
import { useSettings } from "../src/ui/settings";
import { offer, watchFields } from "../src/ui/taking";
import { device, down, Refused } from "./device";
import { Channel, PageElement, PageField, page, Stream } from "./page";

type Test = (name: string, run: () => void | Promise<void>) => void;

type Call = { method: string; path: string; headers: Headers; body: unknown };

/** A program that gives one answer to everything, and what it was asked. */
function answering(data: unknown): Call[] {
  const calls: Call[] = [];
  device.network = (call) => {
    calls.push(call);
    if (data instanceof Error) throw data;
    return data;
  };
  return calls;
}

const full = new Refused(507, { code: "disk_full", detail: "The disk is full." });

function callCases(test: Test) {
  test("a length is read by the program: what it is, or what is wrong and where", async () => {
    answering({ read: { mm: 25.4 } });
    assert.deepEqual(await readTape('1"', "in", false), { value: { text: '1"', unit: "in", mm: 25.4 } });
    answering({ wrong: { message: "A fraction is under one.", start: 2, end: 7 } });
    const wrong = { fault: "A fraction is under one.", start: 2, end: 7 };
    assert.deepEqual(await readTape("1 17/16", "in", false), wrong);
    answering({});
    assert.deepEqual(await readTape("?", "in", false), {
      fault: "Not a length.",
      start: undefined,
      end: undefined,
    });
    answering(full);
    assert.deepEqual(await readTape("1", "in", false), { fault: "The disk is full." });
  });

  test("while the program is down nothing that is typed is called wrong", async () => {
    device.network = down;
    for (const judged of [await readTape("1", "in", false), await JUDGES.angle("4")]) {
      assert.ok(judged && "silent" in judged && judged.silent);
      assert.match(judged.fault, /saved on this device/);
    }
  });

  test("a figure is judged by its own kind, an empty field by nobody", async () => {
    const calls = answering({});
    assert.equal(await JUDGES.torque("  "), undefined);
    assert.equal(calls.length, 0);
    for (const kind of Object.keys(JUDGES) as (keyof typeof JUDGES)[]) {
      assert.equal(await JUDGES[kind]("1"), undefined, kind);
    }
    assert.equal(calls.length, Object.keys(JUDGES).length);
    answering({ wrong: { message: "Type a thread such as M14x2." } });
    assert.deepEqual(await JUDGES.thread("14"), { fault: "Type a thread such as M14x2." });
    answering(full);
    assert.deepEqual(await JUDGES.weight("1"), { fault: "The disk is full." });
  });

  const view = {
    id: "bar-1",
    changed_at: "2026-09-01T08:00:00Z",
    row: { name: "Bar" },
  } as unknown as PartView;

  test("a new part is added, and one that was seen is changed in the state it was seen in", async () => {
    const calls = answering({});
    assert.equal(await saveRow(undefined, { name: "Bar" }), "");
    assert.equal(await saveRow(view, { name: "Longer bar" }), "");
    assert.equal(await retirePart(view, true), "");
    assert.deepEqual(
      calls.map(({ method, path, headers, body }) => [method, path, headers.get("if-match"), body]),
      [
        ["POST", "/api/v1/parts", null, { row: { name: "Bar" } }],
        ["PUT", "/api/v1/parts/bar-1", '"2026-09-01T08:00:00Z"', { row: { name: "Longer bar" } }],
        ["PUT", "/api/v1/parts/bar-1", '"2026-09-01T08:00:00Z"', { row: { name: "Bar" }, retired: true }],
      ],
    );
  });

  test("what is wrong with a part is said in the program's words, and its silence in ours", async () => {
    answering(new Refused(422, { code: "bad_part", detail: "Row 3 has no length." }));
    assert.equal(await saveRow(undefined, {}), "Row 3 has no length.");
    device.network = down;
    assert.equal(await takeSamples(), "No answer from the program. Nothing was changed.");
  });

  test("a file of parts goes as what its name says it is", async () => {
    for (const [name, type] of [
      ["parts.CSV", "text/csv"],
      ["parts.json", "application/json"],
    ] as const) {
      const calls = answering({});
      assert.equal(await importParts(new File(['"name"'], name)), "");
      assert.equal(calls[0]?.headers.get("content-type"), type);
      assert.equal(calls[0]?.body, "name", "as it stands in the file");
    }
  });
}

function storeCases(test: Test) {
  const stance = () => useStance.getState();

  test("a travel that is set brings both wheels level, and lets go of what was picked", () => {
    stance().setWheels(40, -20, "track bar to oil pan");
    assert.deepEqual([stance().travel, stance().crossed], [10, { left: 40, right: -20 }]);
    assert.equal(stance().picked, "track bar to oil pan");
    stance().setTravel(25);
    assert.deepEqual([stance().travel, stance().crossed, stance().picked], [25, null, null]);
  });

  test("wheels within half a millimetre are alike", () => {
    stance().setWheels(10.2, 9.8);
    assert.deepEqual([stance().travel, stance().crossed], [10, null]);
    stance().setWheels(10.3, 9.7);
    assert.deepEqual(stance().crossed, { left: 10.3, right: 9.7 });
    stance().setTravel(null);
  });

  test("what a person prefers is kept on the device, and flips back", () => {
    const before = useSettings.getState();
    before.flipUnits();
    before.flipTheme();
    before.flipFace();
    before.flipPad();
    const now = useSettings.getState();
    assert.deepEqual([now.units, now.theme, now.face, now.pad], ["mm", "night", "rear", !before.pad]);
    const kept = JSON.parse(device.texts.get("derecho.settings") ?? "{}");
    assert.equal(kept.state.units, "mm");
    for (const flip of [now.flipUnits, now.flipTheme, now.flipFace, now.flipPad]) flip();
    const { units, theme, face } = useSettings.getState();
    assert.deepEqual([units, theme, face], ["in", "paper", "front"]);
  });

  test("straight at an end one stands at that end of the vehicle, elsewhere one walks", () => {
    const { walkTo } = useLook.getState();
    walkTo({ turn: 180, tilt: 0 });
    assert.equal(useLook.getState().look, null);
    assert.equal(useSettings.getState().face, "rear");
    assert.deepEqual(standing(), { turn: 180, tilt: 0 });
    walkTo({ turn: 38, tilt: 16 });
    assert.deepEqual(standing(), { turn: 38, tilt: 16 });
    assert.equal(useSettings.getState().face, "rear", "the end is kept for when one comes back");
    flipEnds();
    assert.deepEqual(standing(), lookAt("front"));
  });

  test("every named view is known by where it looks from, and no other is", () => {
    for (const { name, look } of VIEWS) {
      assert.equal(nameOf(look), name);
      assert.equal(nameOf({ turn: look.turn + 360, tilt: look.tilt }), name, "once round it is the same");
      assert.equal(nameOf({ turn: look.turn + 1, tilt: look.tilt }), undefined);
    }
  });

  test("a stride goes the short way round and ends where it was meant to", () => {
    const frames: ((now: number) => void)[] = [];
    const put = (name: string, value: unknown) =>
      Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
    put("matchMedia", () => ({ matches: false }));
    put("requestAnimationFrame", (frame: (now: number) => void) => frames.push(frame));
    useLook.getState().walkTo({ turn: 170, tilt: 10 });
    const began = performance.now();
    strideTo({ turn: -170, tilt: 30 });
    const turns: number[] = [];
    for (let now = began + 40; frames.length > 0; now += 40) {
      frames.shift()?.(now);
      turns.push(standing().turn);
    }
    assert.deepEqual(standing(), { turn: -170, tilt: 30 });
    const between = turns.slice(0, -1);
    assert.ok(between.length > 3 && between.every((turn) => turn >= 170 && turn <= 190), `${between}`);
    assert.deepEqual(
      [...between].sort((a, b) => a - b),
      between,
      "and never back",
    );
    put("matchMedia", () => ({ matches: true }));
    strideTo({ turn: 90, tilt: 0 });
    assert.deepEqual(standing(), { turn: 90, tilt: 0 }, "at once where motion is not welcome");
    useLook.setState({ look: null });
  });
}

function pickedCases(test: Test) {
  const columns = (wheels: readonly (readonly [number, number])[], angle: number) => {
    const each = (value: number) => wheels.map(() => value);
    const arm = {
      arm_angle_deg: wheels.map((_, index) => (index === 0 ? null : angle + index)),
      eye_angle_deg: each(90),
      far_ahead_mm: each(1),
      far_above_mm: each(2),
      eye_ahead_mm: each(3),
      eye_above_mm: each(4),
    };
    return {
      left_wheel_mm: wheels.map(([left]) => left),
      right_wheel_mm: wheels.map(([, right]) => right),
      y_mm: each(0),
      z_mm: each(0),
      roll_deg: each(0),
      end_mm: wheels.map(() => []),
      twist_deg: wheels.map(() => null),
      roll_rate_nm_per_deg: each(5),
      bar_moment_nm: each(6),
      left: arm,
      right: arm,
    };
  };
  const links = {
    heave: columns(
      [
        [-50, -50],
        [0, 0],
        [50, 50],
      ],
      10,
    ),
    roll: columns(
      [
        [40, -40],
        [-40, 40],
      ],
      20,
    ),
    envelope: columns(
      [
        [50, 0],
        [0, 50],
      ],
      30,
    ),
  } as unknown as SwayLinks;

  test("the sway bar is drawn in the fetched pose nearest to where the wheels are", () => {
    const at = (left: number, right: number, crossed: boolean) => {
      const pose = swayPoseAt(links, { left, right }, crossed);
      return pose && [pose.left_wheel_mm, pose.right_wheel_mm];
    };
    assert.deepEqual(at(20, 20, false), [0, 0]);
    assert.deepEqual(at(26, 26, false), [50, 50]);
    assert.deepEqual(at(38, -30, true), [40, -40], "of the lean");
    assert.deepEqual(at(45, 4, true), [50, 0], "or of the envelope");
  });

  test("what could not be worked out in a pose is absent there, and no figure", () => {
    const first = swayPoseAt(links, { left: -50, right: -50 }, false);
    assert.equal(first?.left.arm_angle_deg, undefined);
    assert.equal(first?.twist_deg, undefined);
    assert.equal(first?.left.far_above_mm, 2);
    const second = swayPoseAt(links, { left: 0, right: 0 }, false);
    assert.equal(second?.left.arm_angle_deg, 11);
    assert.equal(
      swayPoseAt({ ...links, heave: columns([], 0) } as never, { left: 0, right: 0 }, false),
      undefined,
    );
  });

  const worked = {
    next: "bar/turn",
    steps: [{ key: "stands" }, { key: "bar/turn" }, { key: "bar/jam" }],
  } as never;

  test("the step that was opened is open, else the next one, with its place in the order", () => {
    assert.equal(openStep(worked, null)?.number, 2);
    assert.equal(openStep(worked, "bar/jam")?.number, 3);
    assert.equal(openStep(worked, "no more in the plan")?.step.key, "bar/turn");
    assert.equal(openStep({ steps: [] } as never, "bar/jam"), null);
  });

  test("holes are drilled in one time, whichever they are", () => {
    const times = new Map([
      ["drill", 12],
      ["bar/turn", 4],
    ]);
    assert.deepEqual(
      ["drill/side-hole", "bar/turn", "bar/jam"].map((key) => timeOf(times, key)),
      [12, 4, undefined],
    );
  });

  test("what nobody looked at yet is counted; a no is an answer", () => {
    const results = { settling: { looks: [{ kind: "toe" }, { kind: "lines" }, { kind: "wheel_straight" }] } };
    const job = { proof: { looked_at: { toe: false, lines: true } } };
    assert.equal(openOf(job as unknown as Job, results as unknown as Results), 1);
    assert.equal(openOf({} as Job, results as unknown as Results), 3);
  });

  test("a choice offers every value in the order in which they are called", () => {
    assert.deepEqual(optionsOf({ left: "driver's", right: "passenger's" }), [
      { value: "left", label: "driver's" },
      { value: "right", label: "passenger's" },
    ]);
  });

  test("a sentence inside another begins small, whatever follows stays", () => {
    assert.equal(lowered("The bar touches the Oil pan"), "the bar touches the Oil pan");
    assert.equal(lowered(""), "");
  });

  test("a plot is as wide as its farthest point, and never a hair", () => {
    const sample = (found_mm: number, planned_mm: number) =>
      ({ travel_mm: 0, found_mm, planned_mm }) as never;
    assert.ok(Math.abs(reachOf([sample(10, -20), sample(-5, 4)]) - 21.6) < 1e-9);
    assert.ok(Math.abs(reachOf([sample(0.1, 0)]) - 6.48) < 1e-9);
    assert.deepEqual([lineWords("in"), lineWords("mm")], ['one line is 1/4"', "one line is 5 mm"]);
    assert.deepEqual([stickStep.in * 8, stickStep.mm], [25.4, 2]);
  });

  test("a lesson's job is told by its id", () => {
    assert.deepEqual([isPractice("practice-off-centre"), isPractice("lookout-truck-7")], [true, false]);
  });
}

function pageCases(test: Test) {
  test("Enter goes from reading to reading, over what is folded away, and leaves the last", () => {
    const [first, folded, second] = [new PageField(), new PageField(), new PageField({ value: "6 1/16" })];
    folded.visible = false;
    page.fields = [first, folded, second];
    first.focus();
    const back = focusNext(first as never);
    assert.equal(page.activeElement, second);
    assert.ok(second.selected, "typing replaces what stands there");
    back();
    assert.equal(page.activeElement, first, "a refused reading is come back to");
    const again = focusNext(first as never);
    second.value = "6 1/8";
    again();
    assert.equal(page.activeElement, second, "unless typing has gone on");
    focusNext(second as never);
    assert.equal(page.activeElement, null);
    focusNextEmpty();
    assert.equal(page.activeElement, first);
  });

  test("a field is gone to by its place: what it is folded away in opens, outermost first", () => {
    const frames: (() => void)[] = [];
    const put = (name: string, value: unknown) =>
      Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
    put("requestAnimationFrame", (frame: () => void) => frames.push(frame));
    const at = (pointer: string) => new PageField({ data: { pointer } });
    const [track, length] = [at("/rig/track"), at("/setups/found/bar/length")];
    const [section, fold] = [1, 2].map(() => new PageElement({ data: { reveals: "" } })) as [
      PageElement,
      PageElement,
    ];
    [length.parentElement, fold.parentElement] = [fold, section];
    length.visible = false;
    const opened: string[] = [];
    section.addEventListener("derecho-reveal", () => opened.push("section"));
    fold.addEventListener("derecho-reveal", () => {
      opened.push("fold");
      length.visible = true;
    });
    page.fields = [track, length];
    goToField("/setups/found/bar/length");
    frames.shift()?.();
    assert.deepEqual(opened, ["section", "fold"]);
    assert.equal(page.activeElement, length);
    assert.ok(length.scrolled && !track.scrolled);
    // A place above fields leads to the first of them; one that has none yet is waited for.
    goToField("/rig");
    frames.shift()?.();
    assert.equal(page.activeElement, track);
    goToField("/sheets/0");
    frames.shift()?.();
    assert.equal(page.activeElement, track);
    assert.equal(frames.length, 1, "it is tried again");
    page.fields = [];
  });

  test("keys belong to the field or dialog one is in, space to the control", () => {
    const key = (target: unknown, key = "j") => isTaken({ target, key } as never);
    assert.equal(key(new PageElement({ inside: ["input"] })), true);
    assert.equal(key(new PageElement({ inside: ["[role=dialog]"] })), true);
    assert.equal(key(new PageElement({ inside: ["button"] })), false);
    assert.equal(key(new PageElement({ inside: ["button"] }), " "), true);
    assert.equal(key(null, " "), false);
  });

  const tape = (more = {}) =>
    new PageField({ data: { takes: "tape", pointer: "/sheets/0/left/0" }, ...more });

  test("a reading goes into the field in focus, else into the last one that takes its kind", () => {
    watchFields();
    const [field, other] = [tape(), new PageField({ data: { takes: "finder" } })];
    const taken: string[] = [];
    field.addEventListener("derecho-offered", (event) => taken.push((event as CustomEvent<string>).detail));
    field.focus();
    assert.deepEqual(offer({ kind: "tape", text: "6 1/16" }), { taken: field });
    field.blur();
    assert.deepEqual(offer({ kind: "tape", text: "6 1/8" }), { taken: field });
    assert.deepEqual(taken, ["6 1/16", "6 1/8"]);
    other.focus();
    assert.deepEqual(offer({ kind: "tape", text: "6 1/4" }), { wrong: other }, "and nowhere else");
    other.blur();
    field.isConnected = false;
    assert.deepEqual(offer({ kind: "tape", text: "6" }), { nobody: true });
  });

  test("a wrench's torque goes to the step that is open", () => {
    page.activeElement = null;
    page.ofTheStep = new PageField({ data: { takes: "wrench" } });
    assert.deepEqual(offer({ kind: "wrench", text: "125" }), { taken: page.ofTheStep });
    assert.deepEqual(offer({ kind: "scales", text: "600" }), { nobody: true });
    page.ofTheStep = null;
  });

  const instrument = { id: "T-1", kind: "tape", unit: "mm", resolution: 0.5, good_to: 0.7 };
  const reading = (more: object = {}) => ({ instrument, text: "152.5", way: "usb", overdue: false, ...more });

  test("what an instrument reads is told with its field, kept with its sheet, and written down", async () => {
    const posted: Call[] = [];
    const document = { version: 4, title: "Truck", sheets: [{ id: "a" }, { id: "b" }] };
    let revision = 1;
    device.network = (call) => {
      posted.push(call);
      if (call.method === "PUT") revision += 1;
      const saved = call.method === "PUT" ? call.body : document;
      return { id: "read", revision, document: saved, can_undo: false };
    };
    await useSession.getState().open("read");
    followRegistry();
    await Promise.resolve();
    const [stream] = Stream.open;
    assert.ok(stream, "a window that is seen follows");
    stream.send("shelf", { ways: [], instruments: [instrument] });
    assert.equal(useRegistry.getState().shown.instruments.length, 1);
    const field = new PageField({ data: { takes: "tape", pointer: "/sheets/1/left/0" }, label: "left, 1" });
    field.focus();
    stream.send("held", reading({ overdue: true }));
    const { says, refused } = useRegistry.getState();
    assert.deepEqual(
      [says, refused],
      ["T-1: 152.5 into “left, 1”. Its calibration check is overdue.", false],
    );
    const sheets = useSession.getState().document?.sheets;
    assert.equal(sheets?.[0]?.instrument, undefined);
    assert.deepEqual(sheets?.[1]?.instrument, {
      id: "T-1",
      resolution: { text: "0.5 mm", unit: "mm" },
      good_to: { text: "0.7 mm", unit: "mm" },
      overdue: true,
    });
    const written = () => posted.some(({ path }) => path === "/api/v1/instruments/log");
    for (let turn = 0; turn < 100 && !written(); turn += 1) await new Promise((done) => setTimeout(done, 2));
    assert.ok(written());
  });

  test("what is not taken is said, and why", () => {
    const [stream] = Stream.open;
    const field = new PageField({ data: { takes: "finder" }, label: "angle" });
    field.focus();
    stream?.send("held", reading());
    assert.deepEqual(useRegistry.getState(), {
      ...useRegistry.getState(),
      says: "T-1: 152.5 not used: “angle” does not take a reading from a tape.",
      refused: true,
    });
    field.blur();
    field.isConnected = false;
    stream?.send("held", reading());
    assert.equal(useRegistry.getState().says, "T-1: 152.5. No field is waiting for it.");
  });

  test("a practice vehicle's tape reads for its own lesson alone", () => {
    assert.equal(readsFor("usb", "lookout-truck-7"), true);
    assert.equal(readsFor("practice:practice-1", "practice-1"), true);
    assert.equal(readsFor("practice:practice-1", "lookout-truck-7"), false);
    const before = useRegistry.getState().says;
    Stream.open[0]?.send("held", reading({ way: "practice:elsewhere", text: "1" }));
    assert.equal(useRegistry.getState().says, before);
  });

  test("of the windows of a browser one follows the program and tells the others", () => {
    const heard: unknown[] = [];
    const other = new Channel("derecho.shelf");
    other.onmessage = ({ data }) => heard.push(data);
    Stream.open[0]?.send("shelf", { ways: [], instruments: [] });
    assert.deepEqual(heard, [{ event: "shelf", shown: { ways: [], instruments: [] } }]);
    other.postMessage({ event: "hello" });
    assert.equal(heard.length, 2, "one that comes later is told at once");
    other.postMessage({ event: "shelf", shown: { ways: [], instruments: [instrument] } });
    assert.equal(useRegistry.getState().shown.instruments.length, 1);
  });

  test("a window that is hidden leaves the stream to another", async () => {
    page.show(false);
    assert.equal(Stream.open.length, 0);
    page.show(true);
    await Promise.resolve();
    assert.equal(Stream.open.length, 1);
    page.show(false);
    page.show(true);
    page.show(false);
    assert.equal(Stream.open.length, 0, "however often");
  });
}

export function windowCases(test: Test) {
  callCases(test);
  storeCases(test);
  pickedCases(test);
  pageCases(test);
}
