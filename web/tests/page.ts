/** As much of a page as fields, keys and readings of instruments need: no layout, no drawing. */
import { device } from "./device";

type Made = { data?: Record<string, string>; value?: string; label?: string; inside?: readonly string[] };

/** An element that knows what it is and what it stands in, by selectors. */
export class PageElement extends EventTarget {
  dataset: Record<string, string>;
  isConnected = true;
  visible = true;
  parentElement: PageElement | null = null;
  scrolled = false;
  value: string;
  selected = false;
  labels: { textContent: string }[];
  private inside: readonly string[];

  constructor({ data = {}, value = "", label, inside = [] }: Made = {}) {
    super();
    this.dataset = data;
    this.value = value;
    this.inside = inside;
    this.labels = label === undefined ? [] : [{ textContent: label }];
  }

  closest(selectors: string) {
    return selectors.split(", ").some((one) => this.inside.includes(one)) ? this : null;
  }

  checkVisibility() {
    return this.visible;
  }

  getAttribute() {
    return null;
  }

  hasAttribute(name: string) {
    return name === "data-reveals" && "reveals" in this.dataset;
  }

  /** Every element here that is asked for a field is one. */
  matches() {
    return true;
  }

  scrollIntoView() {
    this.scrolled = true;
  }

  focus() {
    page.activeElement = this;
    device.listeners.get("focusin")?.({ target: this } as never);
  }

  select() {
    this.selected = true;
  }

  blur() {
    page.activeElement = null;
  }
}

export class PageField extends PageElement {}

export const page = {
  activeElement: null as PageElement | null,
  hidden: false,
  fields: [] as PageField[],
  /** The wrench's field of the step that is open. */
  ofTheStep: null as PageField | null,
  changed: new Set<() => void>(),
  querySelectorAll: () => page.fields,
  querySelector: () => page.ofTheStep,
  addEventListener: (_: string, heard: () => void) => page.changed.add(heard),
  show: (shown: boolean) => {
    page.hidden = !shown;
    for (const heard of page.changed) heard();
  },
};

/** A stream of the server's events. */
export class Stream extends EventTarget {
  static open: Stream[] = [];
  constructor(public url: string) {
    super();
    Stream.open.push(this);
  }

  close() {
    Stream.open = Stream.open.filter((other) => other !== this);
  }

  send(event: string, data: unknown) {
    this.dispatchEvent(Object.assign(new Event(event), { data: JSON.stringify(data) }));
  }
}

/** What windows of one browser say to each other. */
export class Channel {
  static all: Channel[] = [];
  onmessage: ((message: { data: unknown }) => void) | null = null;
  constructor(public name: string) {
    Channel.all.push(this);
  }

  postMessage(data: unknown) {
    for (const other of Channel.all) if (other !== this) other.onmessage?.({ data });
  }
}

const put = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

put("Element", PageElement);
put("HTMLInputElement", PageField);
put("document", page);
put("EventSource", Stream);
put("BroadcastChannel", Channel);
