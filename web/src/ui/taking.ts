/**
 * Fields that take a reading from an instrument. A field says which kinds it takes; a reading is offered to the one
 * that is in focus, or was last. Typing always still works.
 */

import { type RefObject, useEffect, useRef } from "react";
import type { Schemas } from "../api/client";

type Kind = Schemas["InstrumentKind"];
export type Offered = { kind: Kind; text: string };

/** What came of an offer. */
export type Offer = { taken: HTMLInputElement } | { wrong: HTMLInputElement } | { nobody: true };

const EVENT = "derecho-offered";
let last: HTMLInputElement | null = null;

/** Remembers the field that was last in focus: a press on the shelf leaves it. */
export function watchFields() {
  addEventListener("focusin", ({ target }) => {
    if (target instanceof HTMLInputElement) last = target;
  });
}

const takes = (field: HTMLInputElement, kind: Kind) => (field.dataset.takes ?? "").split(" ").includes(kind);

/** The field for a kind: the one in focus, the one that was last, or for a wrench that of the open step. */
function fieldFor(kind: Kind): HTMLInputElement | null {
  const focused = document.activeElement;
  if (focused instanceof HTMLInputElement) return focused;
  if (last?.isConnected && takes(last, kind)) return last;
  return kind === "wrench" ? document.querySelector("[data-open] input[data-takes~=wrench]") : null;
}

/** Offers a reading. */
export function offer(offered: Offered): Offer {
  const field = fieldFor(offered.kind);
  if (!field) return { nobody: true };
  if (!takes(field, offered.kind)) return { wrong: field };
  field.dispatchEvent(new CustomEvent(EVENT, { detail: offered.text }));
  return { taken: field };
}

/** Lets a field take readings. */
export function useTaking(input: RefObject<HTMLInputElement | null>, take: (text: string) => void) {
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    const field = input.current;
    const taken = (event: Event) => latest.current((event as CustomEvent<string>).detail);
    field?.addEventListener(EVENT, taken);
    return () => field?.removeEventListener(EVENT, taken);
  }, [input]);
}
