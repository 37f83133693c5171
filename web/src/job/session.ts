/**
 * The jobs of this window: a queue of edits for each that was opened, and which of them is on the screen. A
 * queue goes on when its job is left.
 */
import { create } from "zustand";
import {
  answer,
  client,
  type FieldError,
  ifMatch,
  type Job,
  type JobView,
  type Problem,
} from "../api/client";
import { draftsForward, keptForward } from "./forward";
import { leftBehind, live, offlineStore } from "./offlineStore";
import { type Clock, JobQueue, type QueueState, type Server, type Step } from "./queue";

export type SaveState = QueueState;

type Session = {
  view: JobView | null;
  /** The document with changes not saved yet. */
  document: Job | null;
  state: SaveState;
  faults: FieldError[];
  /** Why it waits or was refused. */
  why: string | null;
  /** Why the server cannot keep anything just now, by its own word. */
  cause: string | null;
  /** Whether this device would not keep what is not saved. */
  unkept: boolean;
  missing: boolean;
  /** What was typed into a job that is missing, and is still on this device. */
  left: Job | null;
  /** What kept the job from opening, while it is tried again. */
  unopened: string | null;
  /** The newer job, while the person has to choose. */
  conflict: JobView | null;
  open: (id: string) => Promise<void>;
  close: () => void;
  /** Changes a job, on the screen or not. */
  changeJob: (id: string, edit: (job: Job) => Job) => void;
  step: (step: Step) => Promise<void>;
  dropChange: () => void;
  /** Takes the job out of the bay; false where that failed. */
  remove: () => Promise<boolean>;
  keepMine: () => void;
  takeTheirs: () => void;
  /** Brings the job back into the bay, with what was typed here; else why not. */
  bringBack: () => Promise<Problem | null>;
  /** Makes a job of its own of what is here; else why not. */
  asNewJob: () => Promise<{ made: string } | { problem: Problem }>;
  /** Sends what was kept of a job that is not on the screen; why not, where it stays here. */
  sendKept: (id: string) => Promise<string | null>;
};

const RETRY_MS = 2000;
/** Jobs kept at hand in a window. */
const MOST_OPEN = 12;

const server: Server = {
  get: (id) => answer(client.GET("/api/v1/jobs/{id}", { params: { path: { id } } })),
  put: ({ id, revision }, body, key) =>
    answer(
      client.PUT("/api/v1/jobs/{id}", { params: { path: { id }, header: ifMatch(revision, key) }, body }),
    ),
  step: ({ id, revision }, step, key) => {
    const header = ifMatch(revision, key);
    if (typeof step === "object") {
      const path = { id, revision: step.restore };
      return answer(
        client.POST("/api/v1/jobs/{id}/revisions/{revision}/restore", { params: { path, header } }),
      );
    }
    const params = { path: { id }, header };
    if (step === "undo") return answer(client.POST("/api/v1/jobs/{id}/undo", { params }));
    if (step === "redo") return answer(client.POST("/api/v1/jobs/{id}/redo", { params }));
    return answer(client.POST("/api/v1/jobs/{id}/settle", { params }));
  },
};

const clock: Clock = {
  after: (ms, run) => {
    const timer = setTimeout(run, ms);
    return () => clearTimeout(timer);
  },
  key: () => crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}`,
};

const NO_ANSWER: Problem = {
  type: "about:blank",
  title: "No answer",
  status: 0,
  code: "no_answer",
  detail: "No answer from the program. Is it still running?",
};

const CLOSED = {
  view: null,
  document: null,
  state: "idle" as const,
  faults: [],
  why: null,
  cause: null,
  unkept: false,
  missing: false,
  left: null,
  unopened: null,
  conflict: null,
};

const queues = new Map<string, JobQueue>();

/** Jobs of which other windows may have left something. */
const unasked = new Set<string>();

/** Jobs for which that is being looked at: one record at a time, and the next once this one is put away. */
const taking = new Set<string>();

/** Takes up what windows that are gone have left, one after another, each when the one before is done with. */
async function takeUpLeft(queue: JobQueue) {
  const { id } = queue.view;
  if (taking.has(id)) return;
  taking.add(id);
  while (unasked.has(id) && queue.isIdle()) {
    // A device that keeps nothing has nothing to take up.
    const left = await leftBehind(id).catch(() => undefined);
    const kept = left && (await keptForward(left.kept, queue.view.document).catch(() => undefined));
    if (!left || !kept) unasked.delete(id);
    // Typed into meanwhile: when that is saved.
    else if (!queue.isIdle()) break;
    // Kept here first, then away: between the two it is there twice, never not at all.
    else
      await queue
        .resume(kept)
        .then(left.forget)
        .catch(() => unasked.delete(id));
  }
  taking.delete(id);
}

type Around = {
  get: () => Session;
  here: () => JobQueue | undefined;
  queueOf: (view: JobView) => JobQueue;
  /** The job wanted on the screen. */
  wanted: () => string | null;
};

/** What becomes of edits whose job is gone, or is not on the screen. */
const leftover = ({
  get,
  here,
  queueOf,
  wanted,
}: Around): Pick<Session, "bringBack" | "asNewJob" | "sendKept"> => ({
  bringBack: async () => {
    const id = wanted();
    if (id === null) return null;
    const result = await answer(client.POST("/api/v1/removed-jobs/{id}", { params: { path: { id } } }));
    if ("silent" in result) return NO_ANSWER;
    if ("problem" in result) return result.problem;
    const queue = queues.get(id);
    if (queue) queue.backAgain(result.data);
    else await get().open(id);
    return null;
  },

  asNewJob: async () => {
    const id = wanted();
    const queue = here();
    const body = queue?.document ?? get().left;
    if (id === null || !body) return { problem: NO_ANSWER };
    const { settled: _, ...open } = body;
    const result = await answer(client.POST("/api/v1/jobs", { body: open }));
    if ("silent" in result) return { problem: NO_ANSWER };
    if ("problem" in result) return result;
    // It is in the bay now: nothing of it waits here any more.
    await queue?.abandon();
    // A device that keeps nothing has nothing to put away.
    const next = () => leftBehind(id).catch(() => undefined);
    for (let left = await next(); left; left = await next()) await left.forget();
    queues.delete(id);
    return { made: result.data.id };
  },

  sendKept: async (id) => {
    const reported = (queue: JobQueue) =>
      queue.state === "asked" ? "It was changed somewhere else: open it and choose." : queue.why;
    const known = queues.get(id);
    if (known) {
      known.again();
      return reported(known);
    }
    const result = await server.get(id);
    if ("silent" in result) return NO_ANSWER.detail;
    if ("problem" in result) return result.problem.detail;
    const queue = queues.get(id) ?? queueOf(result.data);
    unasked.add(id);
    await takeUpLeft(queue);
    return reported(queue);
  },
});

export const useSession = create<Session>()((set, get) => {
  /** The job wanted on the screen, whatever answers come late. */
  let wanted: string | null = null;
  let retry: ReturnType<typeof setTimeout> | undefined;

  const show = (queue: JobQueue) => {
    if (queue.view.id !== wanted) return;
    const { view, document, state, faults, why, cause, unkept, conflict } = queue;
    const there = { missing: false, left: null, unopened: null };
    set({ view, document, state, faults, why, cause, unkept, conflict, ...there });
  };

  const queueOf = (view: JobView) => {
    const queue: JobQueue = new JobQueue(view, server, offlineStore, clock, () => {
      show(queue);
      if (queue.isIdle()) void takeUpLeft(queue);
    });
    queues.set(view.id, queue);
    // A job that was left is kept a while: a figure may still be read for it. The oldest go first.
    const done = [...queues].filter(([id, other]) => id !== wanted && id !== view.id && other.isIdle());
    for (const [id] of done.slice(0, Math.max(0, queues.size - MOST_OPEN))) queues.delete(id);
    return queue;
  };

  const here = () => (wanted ? queues.get(wanted) : undefined);

  return {
    ...CLOSED,

    open: async (id) => {
      clearTimeout(retry);
      wanted = id;
      set(CLOSED);
      const known = queues.get(id);
      if (known) show(known);
      const result = await server.get(id);
      if (wanted !== id) return;
      if ("data" in result) {
        const there = queues.get(id);
        there?.refresh(result.data);
        const queue = there ?? queueOf(result.data);
        unasked.add(id);
        // Before anything can be typed over it.
        await draftsForward(id);
        if (queue.isIdle()) await takeUpLeft(queue);
        return show(queue);
      }
      const isMissing = "problem" in result && result.problem.status === 404;
      if (known) return isMissing ? known.lost() : undefined;
      if (isMissing) {
        const left = await leftBehind(id).catch(() => undefined);
        return wanted === id ? set({ missing: true, left: left?.kept.document ?? null }) : undefined;
      }
      set({ unopened: "problem" in result ? result.problem.detail : "No answer yet." });
      retry = setTimeout(() => void get().open(id), RETRY_MS);
    },

    close: () => {
      clearTimeout(retry);
      wanted = null;
      set(CLOSED);
    },

    changeJob: (id, edit) => queues.get(id)?.change(edit),
    step: (step) => here()?.step(step) ?? Promise.resolve(),
    dropChange: () => here()?.dropRefused(),
    keepMine: () => here()?.keepMine(),
    takeTheirs: () => here()?.takeTheirs(),

    ...leftover({ get, here, queueOf, wanted: () => wanted }),

    remove: async () => {
      const queue = here();
      if (!queue) return false;
      const { id, revision } = queue.view;
      const result = await answer(
        client.DELETE("/api/v1/jobs/{id}", { params: { path: { id }, header: ifMatch(revision) } }),
      );
      if ("problem" in result && result.problem.current) queue.refresh(result.problem.current);
      if ("data" in result) queues.delete(id);
      return "data" in result;
    },
  };
});

/** Looks after the window itself: its lock, a warning before it is closed, another try when a network comes. */
export function watchWindow() {
  live();
  addEventListener("beforeunload", (event) => {
    // What is gone on the server is kept on this device whatever becomes of the window.
    const waits = (queue: JobQueue) => !queue.isIdle() && queue.state !== "gone";
    if ([...queues.values()].some(waits)) event.preventDefault();
  });
  addEventListener("online", () => {
    for (const queue of queues.values()) queue.again();
  });
}
