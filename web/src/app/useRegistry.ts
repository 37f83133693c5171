/** The shelf of instruments as it is now, by the server's events, and what fields took from it. */
import { create } from "zustand";
import { answer, client, type Schemas, type Unit } from "../api/client";
import { useSession } from "../job/session";
import { offer } from "../ui/taking";

type Shown = Schemas["Shown"];
type Held = Schemas["Held"];

type Registry = {
  shown: Shown;
  /** What came of the last reading, in words. */
  says: string | null;
  /** Whether that was not taken. */
  refused: boolean;
};

export const useRegistry = create<Registry>()(() => ({
  shown: { ways: [], instruments: [] },
  says: null,
  refused: false,
}));

const KINDS: Record<Schemas["InstrumentKind"], string> = {
  tape: "a tape",
  finder: "an angle finder",
  wrench: "a torque wrench",
  scales: "wheel scales",
  height_stick: "a height stick",
  turn_counter: "a turn counter",
};

const labelOf = (field: HTMLInputElement) =>
  field.labels?.[0]?.textContent?.trim() || field.getAttribute("aria-label") || "this field";

/** What a sheet keeps of the instrument it was read with. */
function keptOf({ instrument, overdue }: Held): Schemas["SheetInstrument"] | undefined {
  if (instrument.kind !== "tape" || (instrument.unit !== "mm" && instrument.unit !== "in")) return undefined;
  const unit: Unit = instrument.unit;
  const entry = (value: number) => ({ text: `${value} ${unit}`, unit });
  return {
    id: instrument.id,
    resolution: entry(instrument.resolution),
    good_to: entry(instrument.good_to),
    ...(instrument.checked && { checked: instrument.checked }),
    overdue,
  };
}

/** A reading went into a field: written down, and kept with its sheet. */
function took(held: Held, job: string, field: string) {
  void answer(client.POST("/api/v1/instruments/log", { body: { held, job, field } }));
  const sheet = /^\/sheets\/(\d+)\/(left|right)\//.exec(field);
  const kept = keptOf(held);
  if (!sheet || !kept) return;
  useSession.getState().changeJob(job, (old) => ({
    ...old,
    sheets: (old.sheets ?? []).map((known, index) =>
      index === Number(sheet[1]) ? { ...known, instrument: kept } : known,
    ),
  }));
}

/** The way of a practice vehicle's tape: it reads for its own lesson alone, never into the job of a vehicle. */
export const readsFor = (way: string, job: string | undefined) =>
  !way.startsWith("practice:") || way === `practice:${job}`;

function held(reading: Held) {
  if (!readsFor(reading.way, useSession.getState().view?.id)) return;
  const came = offer({ kind: reading.instrument.kind, text: reading.text });
  const from = `${reading.instrument.id}: ${reading.text}`;
  if ("nobody" in came)
    return useRegistry.setState({ says: `${from}. No field is waiting for it.`, refused: false });
  if ("wrong" in came) {
    const says = `${from} not used: “${labelOf(came.wrong)}” does not take a reading from ${KINDS[reading.instrument.kind]}.`;
    return useRegistry.setState({ says, refused: true });
  }
  const overdue = reading.overdue ? " Its calibration check is overdue." : "";
  useRegistry.setState({ says: `${from} into “${labelOf(came.taken)}”.${overdue}`, refused: false });
  const job = useSession.getState().view?.id;
  if (job) took(reading, job, came.taken.dataset.pointer ?? "");
}

/** What goes from the window that follows the server to the others of this browser. */
type Reported = { event: "hello" } | { event: "shelf"; shown: Shown } | { event: "held"; held: Held };

const ONE_OF_ALL = "derecho.shelf";

/**
 * Follows the server's events, one stream for all windows of a browser: it has few connections to one place, and a
 * stream each would take them all. A window that is seen holds the lock, follows, and tells the others; when it is
 * hidden or closed the next one that is seen follows. Without locks each follows for itself while it is seen. A lost
 * connection is taken up again by the browser itself.
 */
export function followRegistry() {
  const others = new BroadcastChannel(ONE_OF_ALL);
  let events: EventSource | undefined;
  let last: Shown | undefined;
  let letGo: (() => void) | undefined;
  const tell = (reported: Reported) => others.postMessage(reported);
  const take = (reported: Reported) => {
    if (reported.event === "shelf") useRegistry.setState({ shown: reported.shown });
    // A reading is for the window somebody looks at.
    else if (reported.event === "held" && !document.hidden) held(reported.held);
    else if (reported.event === "hello" && events && last) tell({ event: "shelf", shown: last });
  };
  others.onmessage = ({ data }: MessageEvent<Reported>) => take(data);
  const open = () => {
    events = new EventSource("/api/v1/instruments/events");
    const pass = (reported: Reported) => {
      take(reported);
      tell(reported);
    };
    events.addEventListener("shelf", ({ data }) => {
      last = JSON.parse(data) as Shown;
      pass({ event: "shelf", shown: last });
    });
    events.addEventListener("held", ({ data }) => pass({ event: "held", held: JSON.parse(data) as Held }));
  };
  const shut = () => {
    events?.close();
    events = undefined;
    letGo?.();
    letGo = undefined;
  };
  let asking: AbortController | undefined;
  const follow = () => {
    if (document.hidden) {
      asking?.abort();
      asking = undefined;
      shut();
    } else if (!events && !asking) {
      if (!navigator.locks) return open();
      tell({ event: "hello" });
      asking = new AbortController();
      const { signal } = asking;
      const whileHeld = () =>
        new Promise<void>((resolve) => {
          if (signal.aborted) return resolve();
          letGo = resolve;
          open();
        });
      navigator.locks.request(ONE_OF_ALL, { signal }, whileHeld).catch(() => undefined);
    }
  };
  document.addEventListener("visibilitychange", follow);
  follow();
}

export const join = (way: string) => answer(client.POST("/api/v1/instruments", { body: { way } }));
export const leave = (way: string) =>
  answer(client.DELETE("/api/v1/instruments", { params: { query: { way } } }));
export const order = (id: string, what: "ask" | "zero") =>
  answer(client.POST("/api/v1/instruments/{id}/{order}", { params: { path: { id, order: what } } }));
