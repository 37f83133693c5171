/**
 * A browser's window for tests: a device with its store, its locks and its network, before anything of the client is
 * loaded. The network does what a test wants of it.
 */
import "fake-indexeddb/auto";

/** What answers a call; no answer at all where it throws. */
export type Network = (call: { method: string; path: string; headers: Headers; body: unknown }) => unknown;

export class Refused extends Error {
  constructor(
    public status: number,
    public problem: Record<string, unknown>,
  ) {
    super(`${status}`);
  }
}

/** Nobody answers. */
export const down: Network = () => {
  throw new Error("down");
};

/** The device of this run: one window of it is ours. */
export const device = {
  network: down,
  /** Names of locks that windows hold. */
  held: new Set<string>(),
  /** What is listened for on the window. */
  listeners: new Map<string, (event: { preventDefault: () => void }) => void>(),
  texts: new Map<string, string>(),
};

async function answered(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  const request = new Request(input, init);
  const text = await request.text();
  const call = {
    method: request.method,
    path: new URL(request.url).pathname,
    headers: request.headers,
    body: text === "" ? undefined : JSON.parse(text),
  };
  try {
    const data = await device.network(call);
    return Response.json(data ?? {}, { status: 200 });
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    const headers = { "content-type": "application/problem+json" };
    return Response.json({ status: error.status, ...error.problem }, { status: error.status, headers });
  }
}

/** Paths are of the page's own place, as in a browser. */
class OfThisPlace extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === "string" && input.startsWith("/") ? `http://device${input}` : input, init);
  }
}

const put = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

const locks = {
  /** Held at once where nobody holds it, until what is done with it is done. */
  request: async (name: string, ...rest: unknown[]) => {
    device.held.add(name);
    await (rest.at(-1) as () => Promise<void>)();
    device.held.delete(name);
  },
  query: async () => ({ held: [...device.held].map((name) => ({ name })) }),
};

put("window", globalThis);
put("Request", OfThisPlace);
put("fetch", answered);
put("navigator", { locks });
put("addEventListener", (name: string, heard: (event: { preventDefault: () => void }) => void) =>
  device.listeners.set(name, heard),
);
put(
  "localStorage",
  new Proxy(
    {
      getItem: (key: string) => device.texts.get(key) ?? null,
      setItem: (key: string, text: string) => void device.texts.set(key, text),
      removeItem: (key: string) => void device.texts.delete(key),
    },
    {
      ownKeys: () => [...device.texts.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    },
  ),
);
