/**
 * The queue of edits against a server whose answers come late, never, or not at all: whatever a person and a
 * network do, every edit is on the server or shown as not sent.
 */
import assert from "node:assert/strict";
import type { Answer, Job, JobView, Problem } from "../src/api/client";
import { type Clock, JobQueue, type Kept, type OfflineStore, type Server, type Step } from "../src/job/queue";

type Revision = { document: Job; edit: string | undefined; before: number | undefined };
type Call = { deliver: () => Answer<JobView>; answer: (answer: Answer<JobView>) => void };

const tokens = (job: Job): Record<string, string> => (job as { edits?: Record<string, string> }).edits ?? {};

const withToken = (job: Job, token: string, value: string): Job =>
  ({ ...job, edits: { ...tokens(job), [token]: value } }) as Job;

const problem = (status: number, code: string, more: Partial<Problem> = {}): Answer<JobView> => ({
  problem: { type: code, title: code, status, code, detail: `${code}.`, ...more },
});

/** One job on a server that behaves as ours: revisions, If-Match, one edit made once, bad values refused. */
class FakeServer {
  revisions: Revision[] = [{ document: { title: "Truck" } as Job, edit: undefined, before: undefined }];
  calls: Call[] = [];

  view(): JobView {
    const { document, edit, before } = this.revisions[this.revisions.length - 1] as Revision;
    const view = { id: "a", revision: this.revisions.length, can_undo: before !== undefined, document };
    return { ...view, ...(edit === undefined ? {} : { edit }) } as unknown as JobView;
  }

  private change(based: number, key: string, next: (now: Revision) => Revision | Answer<JobView>) {
    const now = this.revisions[this.revisions.length - 1] as Revision;
    if (now.edit === key) return { data: this.view() };
    if (based !== this.revisions.length) {
      return problem(412, "changed_elsewhere", { current: this.view() });
    }
    const made = next(now);
    if (!("document" in made)) return made;
    this.revisions.push(made);
    return { data: this.view() };
  }

  put(based: number, document: Job, key: string): Answer<JobView> {
    const bad = Object.entries(tokens(document)).filter(([, value]) => value === "bad");
    if (bad.length > 0) {
      const errors = bad.map(([token]) => ({ pointer: `/edits/${token}`, code: "bad", message: "Bad." }));
      return problem(422, "bad_fields", { errors });
    }
    return this.change(based, key, () => ({ document, edit: key, before: based }));
  }

  step(based: number, step: Step, key: string): Answer<JobView> {
    return this.change(based, key, (now) => {
      const to = now.before === undefined ? undefined : this.revisions[now.before - 1];
      if (step !== "undo" || !to) return problem(409, "nothing_to_change");
      return { document: to.document, edit: key, before: to.before };
    });
  }

  /** The server as a window sees it: calls wait until the network has its way with them. */
  wired(): Server {
    const call = (deliver: () => Answer<JobView>) =>
      new Promise<Answer<JobView>>((answer) => this.calls.push({ deliver, answer }));
    return {
      get: () => Promise.resolve({ data: this.view() }),
      put: (view, document, key) => call(() => this.put(view.revision, document, key)),
      step: (view, step, key) => call(() => this.step(view.revision, step, key)),
    };
  }
}

function seeded(seed: number) {
  let state = seed;
  const next = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { chance: (share: number) => next() < share, below: (count: number) => Math.floor(next() * count) };
}

const settle = async () => {
  for (let tick = 0; tick < 20; tick += 1) await Promise.resolve();
};

/** A window: its queue, its record on the shelf, its clock. */
class Window {
  kept: Kept | null = null;
  /** Whether the device keeps anything. */
  full = false;
  timers: (() => void)[] = [];
  typed = new Set<string>();
  private life = 0;
  queue: JobQueue;

  constructor(
    private server: FakeServer,
    private keys: () => string,
  ) {
    this.queue = this.opened();
  }

  private opened(): JobQueue {
    this.life += 1;
    const { life } = this;
    const offlineStore: OfflineStore = {
      keep: async (_, kept) => {
        if (this.full) throw new Error("full");
        if (life === this.life) this.kept = kept;
      },
    };
    // What is still on its way from a window that was ended may arrive; the window asks for nothing more.
    const never = new Promise<never>(() => {});
    const wired = this.server.wired();
    const server: Server = {
      get: wired.get,
      put: (...call) => (life === this.life ? wired.put(...call) : never),
      step: (...call) => (life === this.life ? wired.step(...call) : never),
    };
    const clock: Clock = {
      after: (_, run) => {
        this.timers.push(run);
        return () => {
          this.timers = this.timers.filter((other) => other !== run);
        };
      },
      key: this.keys,
    };
    return new JobQueue(this.server.view(), server, offlineStore, clock, () => {});
  }

  type(token: string, value: string) {
    this.typed.add(token);
    this.queue.change((job) => withToken(job, token, value));
  }

  /** Ended without a word, and opened again from what is on the shelf. */
  reopen() {
    this.queue.stop();
    this.timers = [];
    const kept = this.kept;
    this.queue = this.opened();
    if (kept) void this.queue.resume(kept);
  }

  /** What the person gave up knowingly. */
  giveUp(act: () => void) {
    const before = tokens(this.queue.document);
    act();
    for (const token of Object.keys(before))
      if (!(token in tokens(this.queue.document))) this.typed.delete(token);
  }
}

async function storm(seed: number) {
  const random = seeded(seed);
  const server = new FakeServer();
  let keys = 0;
  const key = () => `key-${++keys}`;
  const windows = [new Window(server, key), new Window(server, key)];
  const late: Call[] = [];
  for (let act = 0; act < 60; act += 1) {
    const window = windows[random.below(2)] as Window;
    const { queue } = window;
    const what = random.below(12);
    if (what < 4) window.type(`t${seed}-${act}`, random.chance(0.15) ? "bad" : "good");
    else if (what === 4) void queue.step("undo");
    else if (what === 5 && !window.full) window.reopen();
    else if (what === 6) window.timers.splice(0).map((run) => run());
    else if (what === 7 && queue.state === "asked") {
      if (random.chance(0.5)) queue.keepMine();
      else window.giveUp(() => queue.takeTheirs());
    } else if (what === 8 && queue.state === "refused") window.giveUp(() => queue.dropRefused());
    else if (server.calls.length > 0) {
      const [call] = server.calls.splice(random.below(server.calls.length), 1);
      const fate = random.below(6);
      if (!call) continue;
      if (fate < 3) call.answer(call.deliver());
      else if (fate === 3) {
        // Made, and the answer lost.
        call.deliver();
        call.answer({ silent: true });
      } else if (fate === 4)
        call.answer(random.chance(0.5) ? { silent: true } : problem(503, "database_busy"));
      else {
        // Given up here, and made much later.
        late.push(call);
        call.answer({ silent: true });
      }
    } else if (late.length > 0) late.shift()?.deliver();
    await settle();
  }
  // The network is well again, and nobody types.
  for (let round = 0; round < 400; round += 1) {
    for (const call of server.calls.splice(0)) call.answer(call.deliver());
    for (const window of windows) window.timers.splice(0).map((run) => run());
    await settle();
  }
  const known = new Set(server.revisions.flatMap(({ document }) => Object.keys(tokens(document))));
  for (const { queue, typed } of windows) {
    assert.ok(["idle", "refused", "asked"].includes(queue.state), `${seed}: ${queue.state}`);
    for (const token of typed) {
      const shown = queue.state !== "idle" && token in tokens(queue.document);
      assert.ok(known.has(token) || shown, `seed ${seed}: ${token} is neither on the server nor shown`);
    }
    if (queue.state === "refused") assert.ok(queue.faults.length > 0 || queue.why, `${seed}: no reason`);
    if (queue.state === "idle") assert.deepEqual(queue.document, queue.view.document);
  }
}

type Test = (name: string, run: () => Promise<void>) => void;

export function queueCases(test: Test) {
  const one = () => {
    const server = new FakeServer();
    let keys = 0;
    const window = new Window(server, () => `key-${++keys}`);
    const answerAll = async () => {
      for (let round = 0; round < 20; round += 1) {
        for (const call of server.calls.splice(0)) call.answer(call.deliver());
        await settle();
      }
    };
    return { server, window, answerAll };
  };

  test("five hundred storms lose no edit", async () => {
    for (let seed = 1; seed <= 500; seed += 1) await storm(seed);
  });

  test("a step taken back while a save is under way waits for it, and takes that save back", async () => {
    const { server, window, answerAll } = one();
    window.type("first", "good");
    void window.queue.step("undo");
    assert.equal(server.calls.length, 1);
    await answerAll();
    assert.deepEqual([server.revisions.length, tokens(server.view().document)], [3, {}]);
    assert.equal(window.queue.state, "idle");
  });

  test("a step pressed before takes back nothing that is typed after it", async () => {
    const { server, window, answerAll } = one();
    window.type("first", "good");
    await answerAll();
    void window.queue.step("undo");
    // It never gets there, and typing goes on meanwhile.
    server.calls.splice(0)[0]?.answer({ silent: true });
    await settle();
    window.type("second", "good");
    window.timers.splice(0).map((run) => run());
    await answerAll();
    assert.deepEqual(Object.keys(tokens(server.view().document)), ["first", "second"]);
    assert.deepEqual([window.queue.state, server.revisions.length], ["idle", 3]);
  });

  test("a step that meets what another window saved is not made on that", async () => {
    const { server, window, answerAll } = one();
    window.type("first", "good");
    await answerAll();
    server.put(2, withToken(server.view().document, "theirs", "good"), "another");
    void window.queue.step("undo");
    await answerAll();
    assert.deepEqual(Object.keys(tokens(server.view().document)), ["first", "theirs"]);
    // Nothing was unsent here: theirs is what is shown, and nobody is asked.
    assert.deepEqual([window.queue.state, window.queue.conflict], ["idle", null]);
    assert.deepEqual(window.queue.document, server.view().document);
  });

  test("an edit whose answer was lost is no conflict with oneself", async () => {
    const { server, window, answerAll } = one();
    window.type("first", "good");
    const [call] = server.calls.splice(0);
    call?.deliver();
    call?.answer({ silent: true });
    await settle();
    assert.equal(window.queue.state, "waiting");
    window.type("second", "good");
    window.queue.again();
    await answerAll();
    assert.deepEqual([window.queue.state, window.queue.conflict], ["idle", null]);
    assert.deepEqual(Object.keys(tokens(server.view().document)), ["first", "second"]);
  });

  test("one refused value keeps no other from being saved, and dropping it drops it alone", async () => {
    const { server, window, answerAll } = one();
    window.type("wrong", "bad");
    await answerAll();
    assert.equal(window.queue.state, "refused");
    window.type("right", "good");
    await answerAll();
    assert.deepEqual(tokens(server.view().document), { right: "good" });
    assert.equal(tokens(window.queue.document).wrong, "bad");
    assert.deepEqual(
      window.queue.faults.map((fault) => fault.pointer),
      ["/edits/wrong"],
    );
    window.queue.dropRefused();
    await answerAll();
    assert.deepEqual([window.queue.state, tokens(window.queue.document)], ["idle", { right: "good" }]);
    // Typed anew it goes.
    window.type("wrong", "bad");
    await answerAll();
    window.type("wrong", "good");
    await answerAll();
    assert.deepEqual([window.queue.state, tokens(server.view().document).wrong], ["idle", "good"]);
  });

  test("a server that fails is waited for, with the reason", async () => {
    const { server, window, answerAll } = one();
    window.type("first", "good");
    server.calls.splice(0)[0]?.answer(problem(507, "disk_full", { detail: "Not saved: the disk is full." }));
    await settle();
    assert.deepEqual([window.queue.state, window.queue.why], ["waiting", "Not saved: the disk is full."]);
    window.timers.splice(0).map((run) => run());
    await answerAll();
    assert.deepEqual([window.queue.state, window.queue.why], ["idle", null]);
  });

  test("too much at once is waited for, and is no refusal", async () => {
    for (const status of [429, 503]) {
      const { server, window, answerAll } = one();
      window.type("first", "good");
      server.calls.splice(0)[0]?.answer(problem(status, "too_many_at_once", { detail: "Too much at once." }));
      await settle();
      assert.deepEqual([window.queue.state, window.queue.faults], ["waiting", []]);
      assert.deepEqual(
        [window.queue.cause, tokens(window.queue.document)],
        ["Too much at once.", { first: "good" }],
      );
      window.timers.splice(0).map((run) => run());
      await answerAll();
      assert.deepEqual([window.queue.state, window.queue.cause], ["idle", null]);
      assert.deepEqual(tokens(server.view().document), { first: "good" });
    }
  });

  test("a job that is gone keeps what was typed, until it is back or went elsewhere", async () => {
    const { server, window, answerAll } = one();
    const gone = () => server.calls.splice(0)[0]?.answer(problem(404, "no_such_job"));
    window.type("first", "good");
    gone();
    await settle();
    assert.equal(window.queue.state, "gone");
    // Nothing is asked of a job that is not there, and what is typed on is kept.
    window.type("second", "good");
    await settle();
    assert.deepEqual([server.calls.length, window.queue.state], [0, "gone"]);
    assert.deepEqual(Object.keys(tokens(window.kept?.document as Job)), ["first", "second"]);
    window.queue.backAgain(server.view());
    await answerAll();
    assert.deepEqual(Object.keys(tokens(server.view().document)), ["first", "second"]);
    assert.deepEqual([window.queue.state, window.kept], ["idle", null]);

    window.type("third", "good");
    gone();
    await settle();
    await window.queue.abandon();
    assert.equal(window.kept, null);
  });

  test("on a device that keeps nothing typing goes on, and it is said", async () => {
    const { server, window, answerAll } = one();
    window.full = true;
    window.type("first", "good");
    await settle();
    assert.equal(window.queue.unkept, true);
    await answerAll();
    assert.equal(tokens(server.view().document).first, "good");
    window.full = false;
    window.type("second", "good");
    await answerAll();
    assert.equal(window.queue.unkept, false);
    assert.equal(window.kept, null);
  });

  test("a window ended in the middle goes on where it was", async () => {
    const { server, window, answerAll } = one();
    window.type("first", "good");
    await settle();
    // The call goes under with the window, or arrives all the same.
    const [call] = server.calls.splice(0);
    window.reopen();
    await answerAll();
    call?.deliver();
    assert.deepEqual([server.revisions.length, tokens(server.view().document)], [2, { first: "good" }]);
    assert.deepEqual([window.queue.state, window.kept], ["idle", null]);
  });

  test("what was left behind is taken up only where this device keeps it", async () => {
    const { server, window, answerAll } = one();
    const document = withToken(server.view().document, "left", "good");
    window.full = true;
    await assert.rejects(window.queue.resume({ basedOn: 1, document, keys: [] }));
    assert.deepEqual(tokens(window.queue.document), { left: "good" });
    await answerAll();
    window.full = false;
    const next = withToken(server.view().document, "next", "good");
    const taken = window.queue.resume({ basedOn: server.revisions.length, document: next, keys: [] });
    await taken;
    assert.deepEqual(tokens((window.kept as Kept | null)?.document ?? next), tokens(next));
    await answerAll();
    assert.deepEqual(Object.keys(tokens(server.view().document)), ["left", "next"]);
  });

  test("an edit that was refused is waited for no longer", async () => {
    const { window, answerAll } = one();
    window.type("wrong", "bad");
    await answerAll();
    assert.deepEqual([window.queue.state, window.kept?.keys], ["refused", []]);
  });

  test("what another window saved is asked about, and neither is lost", async () => {
    const { server, window, answerAll } = one();
    server.put(1, withToken(server.view().document, "theirs", "good"), "another");
    window.type("mine", "good");
    await answerAll();
    assert.equal(window.queue.state, "asked");
    assert.deepEqual(Object.keys(tokens(window.queue.document)), ["mine"]);
    window.queue.keepMine();
    await answerAll();
    assert.deepEqual(Object.keys(tokens(server.view().document)), ["mine"]);
    assert.ok(server.revisions.some(({ document }) => "theirs" in tokens(document)));
  });
}
