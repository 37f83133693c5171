/** A sentence that goes on inside another. */
export function lowered(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}
