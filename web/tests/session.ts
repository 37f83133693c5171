/**
 * The jobs of a window on a real device's store, against a server that keeps revisions: what is opened, typed, left
 * behind and brought back. Another window, or one that is gone, is a record of its own in the store.
 */
import assert from "node:assert/strict";
import type { Job, JobView } from "../src/api/client";
import { leftBehind, live, unsent } from "../src/job/offlineStore";
import type { Kept } from "../src/job/queue";
import { useSession, watchWindow } from "../src/job/session";
import { drafts } from "../src/ui/drafts";
import { device, down, type Network, Refused } from "./device";

type Test = (name: string, run: () => Promise<void>) => void;

const VERSION = 4;
const job = (title: string, more: Partial<Job> = {}) => ({ version: VERSION, title, ...more }) as Job;

type Stored = { revision: number; document: Job; edit?: string; removed?: boolean };

/** A bay: jobs by id, each with its newest revision. */
class Bay {
  jobs = new Map<string, Stored>();
  calls: string[] = [];
  made = 0;

  constructor(jobs: Record<string, Job>) {
    for (const [id, document] of Object.entries(jobs)) this.jobs.set(id, { revision: 1, document });
  }

  view(id: string): JobView {
    const { revision, document, edit } = this.there(id);
    const view = { id, revision, document, can_undo: revision > 1 };
    return { ...view, ...(edit === undefined ? {} : { edit }) } as unknown as JobView;
  }

  there(id: string): Stored {
    const stored = this.jobs.get(id);
    if (!stored || stored.removed) throw new Refused(404, { code: "no_such_job", detail: "No such job." });
    return stored;
  }

  /** Somebody else saves. */
  elsewhere(id: string, document: Job) {
    this.jobs.set(id, { revision: this.there(id).revision + 1, document });
  }

  private change(id: string, headers: Headers, document: (now: Stored) => Job): JobView {
    const now = this.there(id);
    const edit = headers.get("idempotency-key") ?? "";
    if (now.edit !== edit) {
      if (headers.get("if-match") !== `"${now.revision}"`) {
        throw new Refused(412, { code: "changed_elsewhere", detail: "Changed.", current: this.view(id) });
      }
      this.jobs.set(id, { revision: now.revision + 1, document: document(now), edit });
    }
    return this.view(id);
  }

  network: Network = ({ method, path, headers, body }) => {
    this.calls.push(`${method} ${path}`);
    const [, , , place = "", id = "", what] = path.split("/");
    if (path === "/api/v1/compute/forward") return this.forward(body as Forward);
    if (place === "removed-jobs") {
      const stored = this.jobs.get(id);
      if (!stored?.removed) throw new Refused(404, { code: "no_such_job", detail: "Emptied." });
      this.jobs.set(id, { ...stored, removed: false });
      return this.view(id);
    }
    if (method === "POST" && id === "") {
      this.made += 1;
      this.jobs.set(`made-${this.made}`, { revision: 1, document: body as Job });
      return this.view(`made-${this.made}`);
    }
    if (what === "undo") return this.change(id, headers, () => job("undone"));
    if (method === "PUT") return this.change(id, headers, () => body as Job);
    if (method === "DELETE") {
      const now = this.there(id);
      if (headers.get("if-match") !== `"${now.revision}"`) {
        throw new Refused(412, { code: "changed_elsewhere", detail: "Changed.", current: this.view(id) });
      }
      this.jobs.set(id, { ...now, removed: true });
      return {};
    }
    return this.view(id);
  };

  /** An older document in today's form, and where the fields of older places are now. */
  private forward({ document, places }: Forward) {
    const moved = places.filter((place) => place.startsWith("/old/"));
    return {
      ...(document && { document: { ...document, version: VERSION } }),
      places: Object.fromEntries(moved.map((place) => [place, place.replace("/old/", "/new/")])),
    };
  }
}

type Forward = { document?: Job; places: string[] };

const session = () => useSession.getState();

/** Until what is under way is done: the store of a device takes turns of its own. */
async function until(what: () => boolean, said: string) {
  for (let turn = 0; turn < 400 && !what(); turn += 1) await new Promise((done) => setTimeout(done, 2));
  assert.ok(what(), said);
}

const idle = () => until(() => session().state === "idle", `idle, and not ${session().state}`);

const retitled = (title: string) => (old: Job) => ({ ...old, title });

/** A record in the device's store, as a window keeps it. */
async function record(window: string, id: string, kept: Kept, at: number) {
  const opened = indexedDB.open("derecho", 1);
  const store = await new Promise<IDBDatabase>((resolve, reject) => {
    opened.onsuccess = () => resolve(opened.result);
    opened.onerror = () => reject(opened.error);
  });
  const writing = store.transaction("unsaved", "readwrite");
  writing.objectStore("unsaved").put({ ...kept, job: id, window, at });
  await new Promise<void>((resolve) => {
    writing.oncomplete = () => resolve();
  });
  store.close();
}

const kept = (title: string, more: Partial<Kept> = {}): Kept => ({
  basedOn: 1,
  document: job(title),
  keys: [],
  ...more,
});

let count = 0;

/** A bay with a job of its own for each case, so that none meets what another has left. */
function fresh(title = "Truck", more: Partial<Job> = {}) {
  count += 1;
  const id = `job-${count}`;
  const bay = new Bay({ [id]: job(title, more) });
  device.network = bay.network;
  return { id, bay };
}

/** The same, opened. */
async function opened(title?: string, more?: Partial<Job>) {
  const { id, bay } = fresh(title, more);
  await session().open(id);
  return { id, bay };
}

export function sessionCases(test: Test) {
  test("a job that is opened is the server's, and nothing of it waits", async () => {
    const { id } = await opened("Lookout truck");
    assert.equal(session().document?.title, "Lookout truck");
    assert.equal(session().view?.revision, 1);
    assert.equal(session().state, "idle");
    assert.equal(await leftBehind(id), undefined);
  });

  test("what is typed is on the server, by the revision it was typed over", async () => {
    const { id, bay } = await opened();
    session().changeJob(id, retitled("Mended"));
    assert.equal(session().document?.title, "Mended", "shown at once");
    await idle();
    assert.equal(bay.there(id).document.title, "Mended");
    assert.equal(session().view?.revision, 2);
    await settledStore();
    assert.deepEqual(await unsent(), []);
  });

  test("typed while the server is down it waits on the device, and goes when the network comes", async () => {
    watchWindow();
    const { id, bay } = await opened();
    device.network = down;
    session().changeJob(id, retitled("In the tunnel"));
    await until(() => session().state === "waiting", "it waits");
    assert.equal(session().why, "No answer yet.");
    let asked = false;
    device.listeners.get("beforeunload")?.({
      preventDefault: () => {
        asked = true;
      },
    });
    assert.ok(asked, "nobody closes the window without being asked");
    const waiting = await unsent();
    assert.deepEqual(
      waiting.map(({ job: of, title }) => [of, title]),
      [[id, "In the tunnel"]],
    );
    device.network = bay.network;
    device.listeners.get("online")?.({ preventDefault: () => {} });
    await idle();
    assert.equal(bay.there(id).document.title, "In the tunnel");
    await until(() => session().state === "idle", "idle");
    await settledStore();
    assert.deepEqual(await unsent(), []);
  });

  test("changed elsewhere meanwhile, the person is asked, and may keep what is here", async () => {
    const { id, bay } = await opened();
    bay.elsewhere(id, job("Theirs"));
    session().changeJob(id, retitled("Mine"));
    await until(() => session().state === "asked", "asked");
    assert.equal(session().conflict?.document.title, "Theirs");
    assert.equal(bay.there(id).document.title, "Theirs", "nothing is written over unasked");
    session().keepMine();
    await idle();
    assert.equal(bay.there(id).document.title, "Mine");
    assert.equal(bay.there(id).revision, 3);
  });

  test("or may take what is there, and what was typed here is given up", async () => {
    const { id, bay } = await opened();
    bay.elsewhere(id, job("Theirs"));
    session().changeJob(id, retitled("Mine"));
    await until(() => session().state === "asked", "asked");
    session().takeTheirs();
    await idle();
    assert.equal(session().document?.title, "Theirs");
    assert.equal(bay.there(id).revision, 2);
    await settledStore();
    assert.equal(await leftBehind(id), undefined);
  });

  test("an undo is the server's: what it gives is on the screen", async () => {
    const { id, bay } = await opened();
    session().changeJob(id, retitled("Typed"));
    await idle();
    await session().step("undo");
    assert.equal(session().document?.title, "undone");
    assert.ok(bay.calls.includes(`POST /api/v1/jobs/${id}/undo`));
    assert.equal(session().view?.revision, 3);
  });

  test("what a window that is gone has left is taken up and saved, and its record is put away", async () => {
    const { id, bay } = fresh();
    await record("gone", id, kept("Typed before the battery went flat"), 1);
    await session().open(id);
    await until(() => bay.there(id).revision === 2, "saved");
    assert.equal(bay.there(id).document.title, "Typed before the battery went flat");
    await idle();
    await settledStore();
    assert.equal(await leftBehind(id), undefined);
  });

  test("what two windows have left is taken up one after the other, the oldest first", async () => {
    const { id, bay } = fresh();
    await record("first", id, kept("Older"), 1);
    await record("second", id, kept("Newer"), 2);
    await session().open(id);
    // The second was typed over a revision that is no more: somebody has to choose.
    await until(() => session().state === "asked", "asked");
    assert.equal(bay.there(id).document.title, "Older");
    assert.equal(session().document?.title, "Newer");
    session().keepMine();
    await idle();
    assert.equal(bay.there(id).document.title, "Newer");
    await settledStore();
    assert.equal(await leftBehind(id), undefined);
  });

  test("what another window still looks after is left to it", async () => {
    const { id, bay } = fresh();
    device.held.add("derecho.window.alive");
    await record("alive", id, kept("Being typed over there"), 1);
    await session().open(id);
    await idle();
    assert.equal(bay.there(id).revision, 1, "nothing was sent for it");
    assert.equal(await leftBehind(id), undefined);
    assert.equal((await unsent()).filter(({ job: of }) => of === id).length, 0);
    device.held.delete("derecho.window.alive");
    assert.equal((await leftBehind(id))?.kept.document.title, "Being typed over there");
    await (await leftBehind(id))?.forget();
  });

  test("a record of an older program comes in today's form", async () => {
    const { id, bay } = fresh();
    await record("gone", id, kept("", { document: { ...job("Of an older program"), version: 2 } as Job }), 1);
    await session().open(id);
    await until(() => bay.there(id).revision === 2, "saved");
    assert.ok(bay.calls.includes("POST /api/v1/compute/forward"));
    assert.equal(bay.there(id).document.version, VERSION);
    await idle();
  });

  test("and waits on the device where nobody brings it forward", async () => {
    const { id, bay } = fresh();
    device.network = (call) => {
      if (call.path === "/api/v1/compute/forward") throw new Error("down");
      return bay.network(call);
    };
    const older = { ...job("Of an older program"), version: 2 } as Job;
    await record("gone", id, kept("", { document: older }), 1);
    await session().open(id);
    await idle();
    assert.equal(bay.there(id).revision, 1);
    assert.equal((await leftBehind(id))?.kept.document.version, 2, "nothing of it is lost");
    await (await leftBehind(id))?.forget();
  });

  test("texts typed at an older program's places stand where their fields are now", async () => {
    const { id } = fresh();
    drafts.keep(id, "/old/length", "36 1/", "36");
    drafts.keep(id, "/rig/track", "60", "");
    await session().open(id);
    assert.equal(drafts.get(id, "/new/length"), "36 1/");
    assert.equal(drafts.begunOver(id, "/new/length"), "36");
    assert.equal(drafts.get(id, "/old/length"), null);
    assert.equal(drafts.get(id, "/rig/track"), "60", "a place that is the same stays");
  });

  test("a job that is gone is said, with what this device still has of it", async () => {
    device.network = new Bay({}).network;
    await record("gone", "no-such", kept("Typed for nobody"), 1);
    await session().open("no-such");
    assert.equal(session().missing, true);
    assert.equal(session().left?.title, "Typed for nobody");
    const made = await session().asNewJob();
    assert.ok("made" in made, JSON.stringify(made));
    assert.equal(await leftBehind("no-such"), undefined, "it is in the bay: nothing waits here");
  });

  test("taken out elsewhere while it is typed into, what was typed stays and comes back with it", async () => {
    const { id, bay } = await opened();
    bay.jobs.set(id, { ...bay.there(id), removed: true });
    session().changeJob(id, retitled("Typed after it was gone"));
    await until(() => session().state === "gone", "gone");
    assert.equal(session().document?.title, "Typed after it was gone");
    assert.equal(await session().bringBack(), null);
    await idle();
    assert.equal(bay.there(id).document.title, "Typed after it was gone");
  });

  test("or becomes a job of its own, unsettled, and nothing of it is left", async () => {
    const { id, bay } = await opened("Truck", { settled: { at: "2026-01-01T00:00:00Z" } as never });
    bay.jobs.set(id, { ...bay.there(id), removed: true });
    session().changeJob(id, retitled("On its own"));
    await until(() => session().state === "gone", "gone");
    const made = await session().asNewJob();
    assert.ok("made" in made);
    const own = bay.there(made.made).document;
    assert.equal(own.title, "On its own");
    assert.equal("settled" in own, false);
    await settledStore();
    assert.equal(await leftBehind(id), undefined);
  });

  test("what can't be brought back says why, by the server's word", async () => {
    const { id, bay } = await opened();
    bay.jobs.delete(id);
    assert.equal((await session().bringBack())?.detail, "Emptied.");
    device.network = down;
    assert.equal((await session().bringBack())?.code, "no_answer");
    const failed = await session().asNewJob();
    assert.ok("problem" in failed && failed.problem.code === "no_answer");
  });

  test("a job is taken out by the revision one has seen, and by no other", async () => {
    const { id, bay } = await opened();
    bay.elsewhere(id, job("Seen by nobody here"));
    assert.equal(await session().remove(), false);
    assert.equal(session().document?.title, "Seen by nobody here", "it is shown first");
    assert.equal(await session().remove(), true);
    assert.throws(() => bay.there(id));
    session().close();
    assert.equal(await session().remove(), false, "with no job open there is none to take out");
  });

  test("an answer that comes late does not put its job on the screen", async () => {
    const bay = new Bay({ slow: job("Slow"), quick: job("Quick") });
    let answerSlow = () => {};
    const waits = new Promise<void>((done) => {
      answerSlow = done;
    });
    device.network = async (call) => {
      if (call.path.endsWith("/slow")) await waits;
      return bay.network(call);
    };
    const slow = session().open("slow");
    await session().open("quick");
    answerSlow();
    await slow;
    assert.equal(session().view?.id, "quick");
    session().close();
    assert.equal(session().view, null);
  });

  test("a job that does not open says so, and is not called missing", async () => {
    device.network = down;
    await session().open("nowhere");
    assert.equal(session().unopened, "No answer yet.");
    assert.equal(session().missing, false);
    device.network = () => {
      throw new Refused(503, { code: "busy", detail: "The store is busy. Try again." });
    };
    await session().open("nowhere");
    assert.equal(session().unopened, "The store is busy. Try again.");
    session().close();
    assert.equal(session().unopened, null);
  });

  test("a job that was left goes on: an edit of it is sent though another one is on the screen", async () => {
    const bay = new Bay({ here: job("Here"), left: job("Left") });
    device.network = bay.network;
    await session().open("left");
    await session().open("here");
    session().changeJob("left", retitled("Read by an instrument"));
    await until(() => bay.there("left").revision === 2, "saved");
    assert.equal(session().document?.title, "Here");
    session().changeJob("never-opened", retitled("nothing"));
    assert.equal(bay.calls.filter((call) => call.startsWith("PUT")).length, 1);
  });

  test("of many jobs that were left the oldest are let go", async () => {
    const many = Array.from({ length: 16 }, (_, index) => `many-${index}`);
    const bay = new Bay(Object.fromEntries(many.map((id) => [id, job(id)])));
    device.network = bay.network;
    for (const id of many) await session().open(id);
    session().changeJob("many-0", retitled("nobody holds it any more"));
    session().changeJob("many-15", retitled("on the screen"));
    await idle();
    assert.equal(bay.there("many-0").revision, 1);
    assert.equal(bay.there("many-15").document.title, "on the screen");
    // Opened again it is as the server has it.
    await session().open("many-0");
    assert.equal(session().document?.title, "many-0");
  });

  test("what was kept of a job that is not on the screen is sent, or it is said why not", async () => {
    const bay = new Bay({ kept: job("Truck") });
    device.network = bay.network;
    await record("gone", "kept", kept("Kept on the phone"), 1);
    assert.equal(await session().sendKept("kept"), null);
    await until(() => bay.there("kept").revision === 2, "saved");
    await record("gone", "gone-for-good", kept("Kept for nobody"), 1);
    assert.equal(await session().sendKept("gone-for-good"), "No such job.");
    device.network = down;
    assert.equal(
      await session().sendKept("gone-for-good"),
      "No answer from the program. Is it still running?",
    );
    await (await leftBehind("gone-for-good"))?.forget();
  });

  test("kept over a revision that is no more, it is opened to choose and not sent", async () => {
    const bay = new Bay({ moved: job("Truck") });
    device.network = bay.network;
    bay.elsewhere("moved", job("Theirs"));
    await record("gone", "moved", kept("Mine"), 1);
    const said = await session().sendKept("moved");
    assert.equal(said, "It was changed somewhere else: open it and choose.");
    assert.equal(bay.there("moved").document.title, "Theirs");
    await session().open("moved");
    assert.equal(session().state, "asked");
    session().takeTheirs();
    await idle();
  });

  test("of all that is unsent each job is named once, the newest first", async () => {
    await record("one", "unsent-a", kept("A, older"), 1);
    await record("two", "unsent-a", kept("A, newer"), 5);
    await record("one", "unsent-b", kept("B"), 3);
    const all = (await unsent()).filter(({ job: of }) => of.startsWith("unsent-"));
    assert.deepEqual(
      all.map(({ job: of, title, at }) => [of, title, at]),
      [
        ["unsent-a", "A, newer", 5],
        ["unsent-b", "B", 3],
      ],
    );
    assert.equal(
      (await leftBehind("unsent-a"))?.kept.document.title,
      "A, older",
      "the oldest is taken up first",
    );
    for (const id of ["unsent-a", "unsent-a", "unsent-b"]) await (await leftBehind(id))?.forget();
    assert.deepEqual(
      (await unsent()).filter(({ job: of }) => of.startsWith("unsent-")),
      [],
    );
  });

  test("a window's own lock tells the others that it lives", async () => {
    const before = device.held.size;
    live();
    const ours = [...device.held].filter((name) => name.startsWith("derecho.window."));
    assert.ok(device.held.size > before || ours.length > 0);
    assert.match(ours[0] ?? "", /^derecho\.window\.[0-9a-f-]{36}$/);
  });
}

/** A store's writes are done in turn: one more turn of each. */
async function settledStore() {
  for (let turn = 0; turn < 5; turn += 1) await new Promise((done) => setTimeout(done, 2));
}
