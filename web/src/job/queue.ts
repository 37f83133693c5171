/**
 * The edits of one job in one window, from typed to acknowledged. Pure but for what it is given: the server,
 * a shelf on this device, a clock. Every edit is on the shelf until the server has it, or is shown as not sent.
 *
 * Not here: which job is on the screen (`session`), and where the shelf is (`offline_store`).
 */
import type { Answer, FieldError, Job, JobView, Problem } from "../api/client";
import { type Pointed, valueAt, withValueAt } from "./pointers";

/**
 * idle: the server has everything. sending: on its way. waiting: no answer, or the server cannot just now;
 * tried again. refused: something of it cannot be taken as it is. asked: changed elsewhere, the person chooses.
 * gone: the job was taken out elsewhere; what was typed stays here.
 */
export type QueueState = "idle" | "sending" | "waiting" | "refused" | "asked" | "gone";

/** What the program does to a job by itself. */
export type Step = "undo" | "redo" | "settle" | { restore: number };

export type Server = {
  get: (id: string) => Promise<Answer<JobView>>;
  put: (view: JobView, document: Job, key: string) => Promise<Answer<JobView>>;
  step: (view: JobView, step: Step, key: string) => Promise<Answer<JobView>>;
};

/** What is kept on this device while the server does not have it. */
export type Kept = { basedOn: number; document: Job; keys: string[] };

export type OfflineStore = { keep: (id: string, kept: Kept | null) => Promise<void> };

export type Clock = { after: (ms: number, run: () => void) => () => void; key: () => string };

/** A value that the server would not take, held back so that everything else is saved. */
type Held = Pointed & { fault: FieldError };

const RETRY_MS = 2000;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

export class JobQueue {
  state: QueueState = "idle";
  /** What is wrong with what was refused. */
  faults: FieldError[] = [];
  /** Why it waits or was refused, in words. */
  why: string | null = null;
  /** Why the server cannot keep anything just now, by its own word: its disk is full, say. */
  cause: string | null = null;
  /** The newer job, while the person has to choose. */
  conflict: JobView | null = null;
  /** Whether this device would not keep what was typed. */
  unkept = false;
  document: Job;

  private isGone = false;
  private sending = false;
  private stuck = false;
  private held: Held[] = [];
  private steps: { step: Step; key: string; done: () => void }[] = [];
  /** Names of edits whose answer has not come: the server may have made them. */
  private keys: string[] = [];
  private meanwhile: ((job: Job) => Job)[] = [];
  private stopWaiting: (() => void) | undefined;
  private shelving: Promise<void> = Promise.resolve();

  constructor(
    public view: JobView,
    private server: Server,
    private offlineStore: OfflineStore,
    private clock: Clock,
    private changed: () => void,
  ) {
    this.document = view.document;
  }

  /**
   * Takes up what was kept on this device before, into a queue that is idle. Resolves once this window keeps it
   * itself; rejects where the device would not, and then the record it came from must stay.
   */
  resume(kept: Kept): Promise<void> {
    this.takeUp(kept);
    return this.shelving.then(() => {
      if (this.unkept) throw new Error("not kept");
    });
  }

  private takeUp(kept: Kept) {
    this.keys = kept.keys;
    if (same(kept.document, this.view.document)) {
      this.keys = [];
      this.shelve();
      return;
    }
    this.document = kept.document;
    this.shelve();
    const mine = this.view.edit !== undefined && kept.keys.includes(this.view.edit);
    if (kept.basedOn !== this.view.revision && !mine) this.ask(this.view);
    else this.pump();
  }

  change(edit: (job: Job) => Job) {
    this.document = edit(this.document);
    // What was refused and is now another value is tried again.
    this.held = this.held.filter((held) => same(valueAt(this.document, held.pointer), held.value));
    if (this.sending) this.meanwhile.push(edit);
    // A step pressed before must not take back what was typed after it.
    else this.dropSteps();
    this.stuck = false;
    this.shelve();
    this.pump();
  }

  /** Done after every edit before it; resolves when it was made or could not be. */
  step(step: Step): Promise<void> {
    return new Promise((done) => {
      this.steps.push({ step, key: this.clock.key(), done });
      this.pump();
    });
  }

  /** Gives what was refused up; everything else stays. */
  dropRefused() {
    this.document = this.held.length > 0 ? this.sendable() : this.view.document;
    this.held = [];
    this.faults = [];
    this.stuck = false;
    this.shelve();
    this.pump();
  }

  keepMine() {
    if (!this.conflict) return;
    this.view = this.conflict;
    this.conflict = null;
    this.shelve();
    this.pump();
  }

  takeTheirs() {
    if (!this.conflict) return;
    this.held = [];
    this.adopt(this.conflict);
    this.conflict = null;
    this.pump();
  }

  /** The job as another window or device left it, where there is nothing of this one on its way. */
  refresh(view: JobView) {
    if (view.revision <= this.view.revision || !this.isIdle()) return;
    this.adopt(view);
    this.changed();
  }

  /** The server does not have the job any more. */
  lost() {
    this.isGone = true;
    this.dropSteps();
    this.stop();
    this.pump();
  }

  /** It is back: what was typed meanwhile goes on top of it. */
  backAgain(view: JobView) {
    this.isGone = false;
    this.why = null;
    this.view = view;
    this.shelve();
    this.pump();
  }

  /** Gives everything up that the server does not have; it went elsewhere. */
  abandon(): Promise<void> {
    this.held = [];
    this.keys = [];
    this.document = this.view.document;
    this.shelve();
    this.pump();
    return this.shelving;
  }

  isIdle(): boolean {
    return (
      !this.isGone &&
      !this.sending &&
      this.steps.length === 0 &&
      !this.conflict &&
      same(this.document, this.view.document)
    );
  }

  /** Tries again at once. */
  again() {
    this.stopWaiting?.();
    this.stopWaiting = undefined;
    this.pump();
  }

  stop() {
    this.stopWaiting?.();
    this.stopWaiting = undefined;
  }

  private dropSteps() {
    for (const { done } of this.steps.splice(0)) done();
  }

  private sendable(): Job {
    return this.held.reduce(
      (job, { pointer }) => withValueAt(job, pointer, valueAt(this.view.document, pointer)),
      this.document,
    );
  }

  /** A document of the server with what it would not take in its place again. */
  private withHeld(document: Job): Job {
    return this.held.reduce((job, { pointer, value }) => withValueAt(job, pointer, value), document);
  }

  private adopt(view: JobView) {
    this.view = view;
    this.document = view.document;
    this.keys = [];
    this.shelve();
  }

  private ask(newer: JobView) {
    this.conflict = newer;
    this.pump();
  }

  private pump() {
    this.state = this.next();
    this.changed();
  }

  private next(): QueueState {
    if (this.isGone) return "gone";
    if (this.conflict) return "asked";
    if (this.sending) return "sending";
    if (this.stopWaiting) return "waiting";
    if (this.stuck) return "refused";
    const wanted = this.sendable();
    if (!same(wanted, this.view.document)) {
      void this.send(wanted);
      return "sending";
    }
    const step = this.steps[0];
    if (step) {
      void this.make(step);
      return "sending";
    }
    return this.held.length > 0 ? "refused" : "idle";
  }

  private async send(wanted: Job) {
    const key = this.clock.key();
    this.sending = true;
    this.meanwhile = [];
    this.keys.push(key);
    this.shelve();
    const sent = this.document;
    const result = await this.server.put(this.view, wanted, key);
    this.sending = false;
    if ("data" in result) {
      this.why = null;
      this.cause = null;
      this.keys = [];
      this.view = result.data;
      // As the server writes it, with what is held back in its place.
      if (this.document === sent) this.document = this.withHeld(result.data.document);
      this.faults = this.held.map((held) => held.fault);
      this.shelve();
    } else this.failed(result, key);
    this.pump();
  }

  private async make({ step, key, done }: { step: Step; key: string; done: () => void }) {
    this.sending = true;
    this.meanwhile = [];
    this.keys.push(key);
    const result = await this.server.step(this.view, step, key);
    this.sending = false;
    if ("data" in result) {
      this.why = null;
      this.cause = null;
      this.steps.shift();
      this.keys = [];
      this.view = result.data;
      // Typed on while it was under way: on top of it.
      this.document = this.meanwhile.reduce((job, edit) => edit(job), this.withHeld(result.data.document));
      this.shelve();
      done();
    } else {
      const again = this.failed(result, key, true);
      // Meant for what was on the screen then.
      if (this.conflict || this.meanwhile.length > 0) this.dropSteps();
      else if (!again) {
        this.steps.shift();
        done();
      }
    }
    this.pump();
  }

  /** What comes of a call that was not taken; true where it is tried again. */
  private failed(result: { problem: Problem } | { silent: true }, key: string, ofStep = false): boolean {
    if ("silent" in result) return this.wait("No answer yet.", null);
    const { problem } = result;
    if (problem.status >= 500 || problem.status === 429) return this.wait(problem.detail, problem.detail);
    this.cause = null;
    if (problem.code === "no_such_job") {
      this.lost();
      return false;
    }
    if (problem.code === "changed_elsewhere" && problem.current) {
      const newer = problem.current;
      if (newer.edit !== undefined && this.keys.includes(newer.edit)) {
        // An edit of this window, whose answer was lost: go on from there.
        this.view = newer;
        this.keys = [];
        this.shelve();
        return true;
      }
      if (same(this.sendable(), this.view.document) && this.held.length === 0) this.adopt(newer);
      else this.conflict = newer;
      this.dropSteps();
      return false;
    }
    this.why = problem.detail;
    // Not made, for certain: nobody need wait for its answer.
    this.keys = this.keys.filter((other) => other !== key);
    // Nothing to take back, say: no edit waits for it.
    if (ofStep) return false;
    const faults = problem.errors ?? [];
    const fresh = faults.filter(
      ({ pointer }) => pointer !== "" && !this.held.some((h) => h.pointer === pointer),
    );
    const before = this.sendable();
    this.held.push(
      ...fresh.map((fault) => ({
        pointer: fault.pointer,
        value: valueAt(this.document, fault.pointer),
        fault,
      })),
    );
    this.faults = this.held.length > 0 ? this.held.map((held) => held.fault) : faults;
    // Held back, is it another document? If not, all of it waits for the person.
    this.stuck = faults.length === 0 || fresh.length === 0 || same(before, this.sendable());
    if (this.stuck && faults.length > 0) this.faults = faults;
    return false;
  }

  private wait(why: string, cause: string | null): true {
    this.why = why;
    this.cause = cause;
    this.stopWaiting = this.clock.after(RETRY_MS, () => {
      this.stopWaiting = undefined;
      this.pump();
    });
    return true;
  }

  /** One after another: a slow device must not write what is older last. */
  private shelve() {
    const done = same(this.document, this.view.document) && this.keys.length === 0;
    const kept = done ? null : { basedOn: this.view.revision, document: this.document, keys: [...this.keys] };
    this.shelving = this.shelving
      .then(() => this.offlineStore.keep(this.view.id, kept))
      .then(
        () => this.mark(false),
        () => this.mark(true),
      );
  }

  private mark(unkept: boolean) {
    if (this.unkept === unkept) return;
    this.unkept = unkept;
    this.changed();
  }
}
