/** Walking from reading to reading. */
const FIELDS = "input[data-tape]";

/** Goes to the field after this one, in the order one walks round the vehicle. */
export function focusNext(from: HTMLInputElement) {
  const all = [...document.querySelectorAll<HTMLInputElement>(FIELDS)];
  const next = all[all.indexOf(from) + 1];
  if (next) {
    next.focus();
    next.select();
  } else {
    from.blur();
  }
}

/** Goes to the first reading that is still empty. */
export function focusNextEmpty() {
  const empty = [...document.querySelectorAll<HTMLInputElement>(FIELDS)].find((field) => field.value === "");
  empty?.focus();
}
