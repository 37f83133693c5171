// The texts of a source of the client that a person reads: where they stand in it, and what they say.
import { parseAst } from "vite";

type Node = { type: string; start: number; end: number; [field: string]: unknown };

/** A text in a source: where it stands, what it says, and what the source has there. */
export type Text = {
  start: number;
  end: number;
  says: string;
  of: "jsx" | "attribute" | "literal" | "template";
};

/** Attributes whose texts nobody reads. */
const UNREAD =
  /^(className|path|id|role|type|to|href|rel|target|accept|name|value|look|kind|side|align|sideOffset|autoComplete|inputMode|d|transform|data-.*|aria-(live|hidden|controls|labelledby|describedby|current|haspopup|orientation)|fill|stroke.*|textAnchor|dominantBaseline|viewBox|x|y|dx|dy|points|key|htmlFor|method|pattern|enterKeyHint|of|edge|place|stage)$/;
/** Classes of the styles: small words with hyphens, colons and brackets. */
const CLASSES = /^[a-z0-9:[\]().,_/%#*&>!+'=-]+( [a-z0-9:[\]().,_/%#*&>!+'=-]+)*$/;

/** Fields whose texts are read, be they single words. */
const LABELS = new Set(["label", "word", "title", "hint", "ask"]);

const isNode = (value: unknown): value is Node =>
  typeof value === "object" && value !== null && typeof (value as Node).type === "string";

/** Whether a text is one that is read: words, not a key, an address or a style. */
export function isRead(text: string): boolean {
  if (!/[A-Za-z]{2}/.test(text) || /^(https?:|\/|\.\.?\/|#|@)/.test(text)) return false;
  if (text.includes(" ")) return !(CLASSES.test(text) && /(^| )[^ ]*[a-z0-9][:[-][a-z0-9([]/.test(text));
  return /^[A-Z][a-z]+[.…:?]?$/.test(text);
}

/** A text between tags as it is shown: lines are trimmed and joined, as JSX has it. */
export function shown(raw: string): string {
  const lines = raw.split(/\r?\n/);
  const last = lines.length - 1;
  return lines
    .map((line, at) => {
      const from = at === 0 ? line : line.replace(/^[ \t]+/, "");
      return at === last ? from : from.replace(/[ \t]+$/, "");
    })
    .filter((line) => line !== "")
    .join(" ");
}

/** Every text of a source that a person may read. */
export function textsOf(code: string, language: "ts" | "tsx"): Text[] {
  const found: Text[] = [];
  const walk = (node: Node, above: Node | null) => {
    if (/^(Import|Export)(All|Named)?Declaration$/.test(node.type) && node.source && !node.declaration)
      return;
    if (/^TS/.test(node.type) && !/^TS(As|Satisfies|NonNull)/.test(node.type)) return;
    if (node.type === "JSXAttribute") {
      const name = (node.name as { name?: unknown }).name;
      if (typeof name === "string" && UNREAD.test(name)) return;
      const value = node.value;
      if (isNode(value) && value.type === "Literal") {
        const says = value.value as string;
        if (/[A-Za-z]{2}/.test(says))
          found.push({ start: value.start, end: value.end, says, of: "attribute" });
        return;
      }
    }
    if (node.type === "JSXText") {
      const says = shown(node.value as string);
      if (/[A-Za-z]{2}/.test(says)) found.push({ start: node.start, end: node.end, says, of: "jsx" });
      return;
    }
    if (node.type === "Literal" && typeof node.value === "string") {
      const key = above?.type === "Property" && above.key === node && above.computed !== true;
      const compared = above?.type === "BinaryExpression";
      const named = above?.type === "Property" && LABELS.has(String((above.key as { name?: string }).name));
      if (!key && !compared && (isRead(node.value) || (named && /[A-Za-z]{2}/.test(node.value)))) {
        found.push({ start: node.start, end: node.end, says: node.value, of: "literal" });
      }
      return;
    }
    if (node.type === "TemplateLiteral") {
      const quasis = node.quasis as Node[];
      const cooked = quasis.map((quasi) => (quasi.value as { cooked: string }).cooked);
      if (isRead(cooked.join("x ").trim()) || cooked.some((part) => isRead(part.trim()))) {
        for (const [at, quasi] of quasis.entries()) {
          const says = cooked[at] ?? "";
          const { raw } = quasi.value as { raw: string };
          // Where a part is told with its marks, the mark before it is one character.
          const start = quasi.start + (quasi.end - quasi.start === raw.length ? 0 : 1);
          if (says) found.push({ start, end: start + raw.length, says, of: "template" });
        }
      }
    }
    for (const [field, value] of Object.entries(node)) {
      if (field === "type" || field === "typeArguments" || field === "typeAnnotation") continue;
      for (const child of Array.isArray(value) ? value : [value]) if (isNode(child)) walk(child, node);
    }
  };
  walk(parseAst(code, { lang: language }) as unknown as Node, null);
  return found;
}

/** The same texts as sentences: the parts of a template in one, with {} where something stands in it. */
export function sentencesOf(code: string, language: "ts" | "tsx"): string[] {
  const sentences: string[] = [];
  let template: { end: number; says: string } | null = null;
  for (const text of textsOf(code, language)) {
    if (text.of === "template" && template && code.slice(template.end, text.start).startsWith("${")) {
      template = { end: text.end, says: `${template.says}{}${text.says}` };
      sentences[sentences.length - 1] = template.says;
      continue;
    }
    template = text.of === "template" ? { end: text.end, says: text.says } : null;
    sentences.push(text.says.trim());
  }
  return sentences.filter((says) => /[A-Za-z]{2}/.test(says));
}
