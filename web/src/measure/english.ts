/** Whose English the client's own texts are in. They are written as in the US; the build hands those that differ here. */
import table from "../../../crates/words/src/regions.tsv?raw";

export const ENGLISHES = ["us", "uk", "au", "ca"] as const;
export type English = (typeof ENGLISHES)[number];

const isEnglish = (text: string | undefined): text is English => ENGLISHES.some((one) => one === text);

/** The English chosen on this device: a cookie, so that papers and what the server says are in it, too. */
export function chosenEnglish(cookies: string): English {
  const own = cookies.split("; ").find((cookie) => cookie.startsWith("english="));
  const code = own?.slice("english=".length);
  return isEnglish(code) ? code : "us";
}

/** Says texts of the US in another English. */
export function inEnglish(english: English): (text: string) => string {
  const column = ENGLISHES.indexOf(english);
  if (column === 0) return (text) => text;
  const rows = table
    .trim()
    .split("\n")
    .slice(1)
    .map((row) => row.split("\t"));
  const own = new Map(rows.map((cells) => [(cells[0] ?? "").toLowerCase(), cells[column] || cells[0] || ""]));
  const words = [...own.keys()].sort((a, b) => b.length - a.length);
  const escaped = words.map((word) => word.replace(/[().]/g, "\\$&"));
  const pattern = new RegExp(`(?<![A-Za-z0-9])(${escaped.join("|")})(?![A-Za-z0-9])`, "gi");
  return (text) =>
    text.replace(pattern, (found) => {
      const word = own.get(found.toLowerCase()) ?? found;
      const capital = found[0] !== found[0]?.toLowerCase();
      return capital ? word[0]?.toUpperCase() + word.slice(1) : word;
    });
}

// Without a browser there is no document, or none with cookies.
export const english = chosenEnglish(globalThis.document?.cookie ?? "");

/** One of the client's own texts in the English chosen. */
export const inOwnWords = inEnglish(english);

const TEN_YEARS = 10 * 365 * 24 * 3600;

/** Remembers an English on this device. Texts are in it once the page is loaded again. */
export function chooseEnglish(code: English): void {
  // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store API is not in every browser.
  document.cookie = `english=${code}; path=/; max-age=${TEN_YEARS}; SameSite=Strict`;
}
