// Builds the client so that its own texts can be said in another country's English, and writes them all down.
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import MagicString from "magic-string";
import type { Plugin } from "vite";
import { sentencesOf, textsOf } from "./texts";

const TABLE = fileURLToPath(new URL("../../crates/words/src/regions.tsv", import.meta.url));
const SAYS = "/src/measure/english.ts";

/** The words of the table's first column. */
function words(): RegExp {
  const rows = readFileSync(TABLE, "utf8").trim().split("\n").slice(1);
  const base = rows.map((row) => row.split("\t")[0] ?? "").filter((word) => word !== "");
  const escaped = base.sort((a, b) => b.length - a.length).map((word) => word.replace(/[().]/g, "\\$&"));
  return new RegExp(`(?<![\\w-])(${escaped.join("|")})(?![\\w-])`, "i");
}

/** A text as a call that says it, as it stands in the source. */
function call(text: { says: string; of: string }): string {
  const said = `__inOwnWords(${JSON.stringify(text.says)})`;
  if (text.of === "template") return `\${${said}}`;
  return text.of === "literal" ? said : `{${said}}`;
}

export function ownWords(): Plugin {
  const regional = words();
  const catalogue = new Map<string, string[]>();
  let root = "";
  return {
    name: "own-words",
    enforce: "pre",
    configResolved(config) {
      root = config.root;
    },
    transform(code, id) {
      const file = id.split("?")[0] ?? id;
      const language = file.endsWith(".tsx") ? "tsx" : file.endsWith(".ts") ? "ts" : null;
      if (!language || !file.startsWith(`${root}/src/`) || file.endsWith(SAYS)) return null;
      catalogue.set(file.slice(root.length + 5), sentencesOf(code, language));
      const said = textsOf(code, language).filter(({ says, of }) => {
        // Words that styles and places use, too.
        const bare = of === "literal" && ["center", "color", "gray"].includes(says);
        return !bare && regional.test(says);
      });
      if (said.length === 0) return null;
      const changed = new MagicString(code);
      for (const text of said) changed.overwrite(text.start, text.end, call(text));
      changed.prepend(`import { inOwnWords as __inOwnWords } from "${SAYS}";\n`);
      return { code: changed.toString(), map: changed.generateMap({ hires: true }) };
    },
    generateBundle() {
      const sorted = Object.fromEntries([...catalogue].sort(([a], [b]) => (a < b ? -1 : 1)));
      this.emitFile({
        type: "asset",
        fileName: "sentences.json",
        source: `${JSON.stringify(sorted, null, 1)}\n`,
      });
    },
  };
}
