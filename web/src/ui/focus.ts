/** Walking from reading to reading. */
const FIELDS = "input[data-tape]";

/** The fields one can see: a section that is shut keeps its own. */
const fields = () =>
  [...document.querySelectorAll<HTMLInputElement>(FIELDS)].filter((field) => field.checkVisibility());

/** Goes to the field after this one, in the order one walks round the vehicle. */
export function focusNext(from: HTMLInputElement) {
  const all = fields();
  const next = all[all.indexOf(from) + 1];
  if (next) {
    next.focus();
    next.select();
  } else {
    from.blur();
  }
  const before = next?.value;
  /** Comes back to a field that was refused, unless typing has gone on meanwhile. */
  return () => {
    const gone = next ? document.activeElement !== next || next.value !== before : false;
    if (!gone) from.focus();
  };
}

/** Goes to the first reading that is still empty. */
export function focusNextEmpty() {
  const empty = fields().find((field) => field.value === "");
  empty?.focus();
}

/** Keys belong to the field or dialog one is in; space and arrows to the control. */
export function isTaken(event: KeyboardEvent): boolean {
  const element = event.target instanceof Element ? event.target : null;
  if (!element) return false;
  if (element.closest("input, textarea, select, [contenteditable], [role=dialog], [role=menu]")) return true;
  return event.key === " " && element.closest("button, a, [role=radio]") !== null;
}
