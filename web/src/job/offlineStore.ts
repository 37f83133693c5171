/**
 * What was typed and the server does not have yet, kept on this device: in IndexedDB, one record a job and
 * window, so that no window writes over another's. A window holds a lock as long as it lives; what a window
 * that is gone has left is taken up by the one that opens the job next.
 */
import type { Kept, OfflineStore } from "./queue";

const DATABASE = "derecho";
const STORE = "unsaved";
const LOCK = "derecho.window.";

const ours = crypto.randomUUID?.() ?? String(Math.random());

type Left = Kept & { job: string; window: string; at: number };

function promised<T>(request: IDBRequest<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });
}

let opened: Promise<IDBDatabase> | undefined;

function database(): Promise<IDBDatabase> {
  opened ??= (async () => {
    const request = indexedDB.open(DATABASE, 1);
    request.onupgradeneeded = () => request.result.createObjectStore(STORE, { keyPath: ["job", "window"] });
    return promised(request);
  })();
  // A device that would not open it may do so later.
  opened.catch(() => {
    opened = undefined;
  });
  return opened;
}

async function within<T>(
  mode: IDBTransactionMode,
  run: (store: IDBObjectStore) => IDBRequest<T>,
): Promise<T> {
  const transaction = (await database()).transaction(STORE, mode, { durability: "strict" });
  const done = new Promise<void>((resolve, reject) => {
    transaction.oncomplete = () => resolve();
    transaction.onabort = () => reject(transaction.error);
  });
  const result = await promised(run(transaction.objectStore(STORE)));
  await done;
  return result;
}

export const offlineStore: OfflineStore = {
  keep: async (job, kept) => {
    if (kept === null) await within("readwrite", (store) => store.delete([job, ours]));
    else await within("readwrite", (store) => store.put({ ...kept, job, window: ours, at: Date.now() }));
  },
};

/** Held for as long as this window lives: its records are its own until then. */
export function live() {
  void navigator.locks?.request(`${LOCK}${ours}`, () => new Promise(() => {}));
}

async function alive(): Promise<Set<string>> {
  const held = (await navigator.locks?.query())?.held ?? [];
  return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])));
}

/** What a window that is gone has left of a job, and how to put its record away once it is kept elsewhere. */
export type LeftBehind = { kept: Kept; forget: () => Promise<void> };

/** A job with something that the server does not have yet. */
export type Unsent = { job: string; title: string; at: number };

/** All jobs with something unsent that no other living window looks after, the newest first. */
export async function unsent(): Promise<Unsent[]> {
  const [all, living] = await Promise.all([within<Left[]>("readonly", (store) => store.getAll()), alive()]);
  const kept = all
    .filter(({ window }) => window === ours || !living.has(window))
    .sort((a, b) => b.at - a.at)
    .map(({ job, document, at }) => ({ job, title: document.title, at }));
  return kept.filter(({ job }, index) => kept.findIndex((other) => other.job === job) === index);
}

/** The oldest record of a job that no living window holds; undefined where there is none. */
export async function leftBehind(job: string): Promise<LeftBehind | undefined> {
  const [left, living] = await Promise.all([
    within<Left[]>("readonly", (store) => store.getAll(IDBKeyRange.bound([job], [job, []]))),
    alive(),
  ]);
  const [oldest] = left
    .filter(({ window }) => window !== ours && !living.has(window))
    .sort((a, b) => a.at - b.at);
  if (!oldest) return undefined;
  const { window, at: _, job: __, ...kept } = oldest;
  return {
    kept,
    forget: async () => {
      await within("readwrite", (store) => store.delete([job, window]));
    },
  };
}
