/**
 * The job open in this window: every change is kept on this device first, then saved to
 * the server, one at a time. A change that could not be saved stays until it can be.
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
} from "../../api/client";

export type SaveState = "saved" | "saving" | "refused" | "waiting";

type Session = {
  view: JobView | null;
  /** The document with changes not saved yet. */
  document: Job | null;
  state: SaveState;
  faults: FieldError[];
  missing: boolean;
  /** The newer job, while the person has to choose. */
  conflict: JobView | null;
  open: (id: string) => Promise<void>;
  close: () => void;
  change: (edit: (job: Job) => Job) => void;
  step: (action: "undo" | "redo" | "settle") => Promise<void>;
  restore: (revision: number) => Promise<void>;
  /** Gives a refused change up: the job is again as it was saved. */
  dropChange: () => void;
  /** Takes the job out of the bay; false where that failed. */
  remove: () => Promise<boolean>;
  keepMine: () => void;
  takeTheirs: () => void;
};

const RETRY_MS = 2000;
const unsavedKey = (id: string) => `derecho.unsaved.${id}`;

type Unsaved = { basedOn: number; document: Job };

function keep(id: string, unsaved: Unsaved) {
  localStorage.setItem(unsavedKey(id), JSON.stringify(unsaved));
}

function kept(id: string): Unsaved | null {
  const text = localStorage.getItem(unsavedKey(id));
  if (text === null) return null;
  try {
    return JSON.parse(text) as Unsaved;
  } catch {
    // Half-written by a browser that was ended: the server's copy is all there is.
    return null;
  }
}

export const useSession = create<Session>()((set, get) => {
  let sending = false;
  let retry: ReturnType<typeof setTimeout> | undefined;

  const adopt = (view: JobView) => {
    localStorage.removeItem(unsavedKey(view.id));
    set({ view, document: view.document, state: "saved", faults: [], conflict: null });
  };

  const refuse = (problem: Problem) => {
    if (problem.code === "changed_elsewhere" && problem.current) set({ conflict: problem.current });
    else set({ state: "refused", faults: problem.errors ?? [] });
  };

  const send = async () => {
    const { view, document, conflict } = get();
    if (!view || !document || sending || conflict || document === view.document) return;
    sending = true;
    set({ state: "saving" });
    const result = await answer(
      client.PUT("/api/v1/jobs/{id}", {
        params: { path: { id: view.id }, header: ifMatch(view.revision) },
        body: document,
      }),
    );
    sending = false;
    if (get().view?.id !== view.id) return;
    if ("data" in result) {
      const meanwhile = get().document;
      if (meanwhile === document) return adopt(result.data);
      // Typed on while this was under way: save that too, on top of it.
      set({ view: result.data, faults: [] });
      if (meanwhile) keep(view.id, { basedOn: result.data.revision, document: meanwhile });
      return send();
    }
    if ("problem" in result) return refuse(result.problem);
    set({ state: "waiting" });
    clearTimeout(retry);
    retry = setTimeout(send, RETRY_MS);
  };

  return {
    view: null,
    document: null,
    state: "saved",
    faults: [],
    missing: false,
    conflict: null,

    open: async (id) => {
      set({ view: null, document: null, missing: false, conflict: null, faults: [], state: "saved" });
      const result = await answer(client.GET("/api/v1/jobs/{id}", { params: { path: { id } } }));
      if (!("data" in result)) {
        if ("problem" in result) set({ missing: true });
        else retry = setTimeout(() => get().open(id), RETRY_MS);
        return;
      }
      const unsaved = kept(id);
      set({ view: result.data, document: result.data.document });
      if (!unsaved) return;
      set({ document: unsaved.document });
      if (unsaved.basedOn === result.data.revision) void send();
      else if (JSON.stringify(unsaved.document) === JSON.stringify(result.data.document)) adopt(result.data);
      else set({ conflict: result.data });
    },

    close: () => {
      clearTimeout(retry);
      set({ view: null, document: null, conflict: null });
    },

    change: (edit) => {
      const { view, document } = get();
      if (!view || !document) return;
      const changed = edit(document);
      keep(view.id, { basedOn: view.revision, document: changed });
      set({ document: changed });
      void send();
    },

    step: async (action) => {
      const { view } = get();
      if (!view) return;
      const params = { path: { id: view.id }, header: ifMatch(view.revision) };
      const call = {
        undo: () => client.POST("/api/v1/jobs/{id}/undo", { params }),
        redo: () => client.POST("/api/v1/jobs/{id}/redo", { params }),
        settle: () => client.POST("/api/v1/jobs/{id}/settle", { params }),
      }[action];
      const result = await answer(call());
      if ("data" in result) adopt(result.data);
      else if ("problem" in result) refuse(result.problem);
    },

    restore: async (revision) => {
      const { view } = get();
      if (!view) return;
      const result = await answer(
        client.POST("/api/v1/jobs/{id}/revisions/{revision}/restore", {
          params: { path: { id: view.id, revision }, header: ifMatch(view.revision) },
        }),
      );
      if ("data" in result) adopt(result.data);
      else if ("problem" in result) refuse(result.problem);
    },

    dropChange: () => {
      const { view } = get();
      if (view) adopt(view);
    },

    remove: async () => {
      const { view } = get();
      if (!view) return false;
      const result = await answer(
        client.DELETE("/api/v1/jobs/{id}", {
          params: { path: { id: view.id }, header: ifMatch(view.revision) },
        }),
      );
      if ("problem" in result) refuse(result.problem);
      return "data" in result;
    },

    keepMine: () => {
      const { conflict, document } = get();
      if (!conflict || !document) return;
      keep(conflict.id, { basedOn: conflict.revision, document });
      set({ view: conflict, conflict: null });
      void send();
    },

    takeTheirs: () => {
      const { conflict } = get();
      if (conflict) adopt(conflict);
    },
  };
});
