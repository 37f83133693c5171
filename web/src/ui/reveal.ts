/**
 * Going to a field by its place in the document, wherever it is folded away. Sections and folds keep their fields on
 * the page while they are shut, and open when something in them is to be seen.
 */
import { type RefObject, useEffect, useRef } from "react";

const EVENT = "derecho-reveal";
/** A stage that was just gone to draws itself first. */
const LONGEST_WAIT_MS = 8000;
const STAGE_DRAWN_MS = 1500;

const visible = (element: Element) => element.checkVisibility();

/** Lets what holds fields open itself. */
export function useReveal(host: RefObject<HTMLElement | null>, open: () => void) {
  const latest = useRef(open);
  latest.current = open;
  useEffect(() => {
    const element = host.current;
    const reveal = () => latest.current();
    element?.addEventListener(EVENT, reveal);
    return () => element?.removeEventListener(EVENT, reveal);
  }, [host]);
}

/** Opens everything an element is folded away in, outermost first. */
function openAround(element: Element) {
  const hosts: Element[] = [];
  for (let host = element.parentElement; host; host = host.parentElement) {
    if (host.hasAttribute("data-reveals")) hosts.unshift(host);
  }
  for (const host of hosts) host.dispatchEvent(new CustomEvent(EVENT));
}

/** The field of a place, one under it, or, where there is none for a while, the nearest one above it. */
function fieldOf(pointer: string, waited: number): HTMLElement | undefined {
  const all = [...document.querySelectorAll<HTMLElement>("[data-pointer]")];
  const at = (element: HTMLElement) => element.dataset.pointer ?? "";
  const above = waited < STAGE_DRAWN_MS ? [] : all.filter((element) => pointer.startsWith(`${at(element)}/`));
  return (
    all.find((element) => at(element) === pointer) ??
    all.find((element) => at(element).startsWith(`${pointer}/`)) ??
    above.sort((a, b) => at(b).length - at(a).length)[0]
  );
}

/** Goes to the field of a place in the document: opens what it is in, brings it into view, takes the focus there. */
export function goToField(pointer: string, since = performance.now()) {
  const field = fieldOf(pointer, performance.now() - since);
  if (field) openAround(field);
  requestAnimationFrame(() => {
    if (field?.isConnected && visible(field)) {
      const target = field.matches("input, textarea, button")
        ? field
        : (field.querySelector<HTMLElement>("input, textarea, select, button") ?? field);
      target.scrollIntoView({ block: "center" });
      target.focus();
      return;
    }
    if (performance.now() - since < LONGEST_WAIT_MS) goToField(pointer, since);
  });
}
