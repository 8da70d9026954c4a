import { readdirSync, readFileSync } from "node:fs";

import { compileMessage, type CompiledMessage } from "@lingui/message-utils/compileMessage";
import type { Plugin } from "vite";

const WHOLE = "virtual:say/";
const LANGUAGES = `${WHOLE}languages`;
const OF_A_FILE = "virtual:said/";
/** A language nobody speaks: what is still plain English in it is in no catalogue. */
const PSEUDO = "en-XA";
const PLAIN = "abcdefghiklmnoprstuvwyzABCDEFGHIKLMNOPRSTUVWYZ";
const ACCENTED = "àƀçđéƒĝĥîķļɱñöþŕšţûṽŵýžÀƁÇĐÉƑĜĤÎĶĻṀÑÖÞŔŠŢÛṼŴÝŽ";

/** Accented, and a third longer: cut off where there is no room for a longer language. */
function accented(text: string): string {
  return text.replace(/<[^>]*>|\p{L}{2,}/gu, (word) =>
    word.startsWith("<")
      ? word
      : [...word].map((c) => ACCENTED[PLAIN.indexOf(c)] ?? c).join("") +
        "·".repeat(Math.floor(word.length / 3)),
  );
}

function pseudo(message: CompiledMessage | string): CompiledMessage {
  if (typeof message === "string") return [accented(message)];
  return message.map((token) => {
    if (typeof token === "string") return accented(token);
    const [name, format, options] = token;
    if (!options || typeof options === "string") return token;
    const others = Object.entries(options).map(([key, said]) => [
      key,
      key === "offset" ? said : pseudo(said as CompiledMessage),
    ]);
    return [name, format, Object.fromEntries(others)];
  }) as CompiledMessage;
}

/**
 * The catalogues, compiled when the front end is built: no parser goes to the browser, and each
 * file brings the English it says, so that a page loads no more of it than it shows.
 */
export function catalogues(): Plugin {
  const folder = new URL("./src/say/", import.meta.url).pathname;
  const saidBy = new Map<string, string[]>();
  const read = (language: string) =>
    JSON.parse(readFileSync(`${folder}${language}.json`, "utf8")) as Record<string, string>;
  const english = read("en");
  const compiled = (words: [string, string][], made: (m: CompiledMessage) => CompiledMessage) =>
    JSON.stringify(Object.fromEntries(words.map(([k, m]) => [k, made(compileMessage(m))])));
  return {
    name: "catalogues",
    enforce: "pre",
    // The program says which language it speaks; the development server speaks English.
    transformIndexHtml: (html, page) =>
      page.server ? html.replace("{{ language }}", "en") : undefined,
    resolveId: (id) => (id.startsWith(WHOLE) || id.startsWith(OF_A_FILE) ? `\0${id}` : undefined),
    transform(source, id) {
      const file = id.split("?")[0] ?? id;
      if (id.startsWith("\0") || !/\/src\/.*\.tsx?$/.test(file)) return undefined;
      const codes = [...source.matchAll(/"(\w+\.\w+)"/g)].map((m) => m[1] ?? "");
      const said = [...new Set(codes)].filter((code) => code in english);
      if (said.length === 0) return undefined;
      saidBy.set(`${file}.js`, said);
      return { code: `import "${OF_A_FILE}${file}.js";${source}`, map: null };
    },
    load(id) {
      if (id.startsWith(`\0${OF_A_FILE}`)) {
        const codes = saidBy.get(id.slice(OF_A_FILE.length + 1)) ?? [];
        const words = codes.map((code): [string, string] => [code, english[code] ?? ""]);
        return `import { load } from "@/say/i18n";\nload(${compiled(words, (m) => m)});`;
      }
      if (!id.startsWith(`\0${WHOLE}`)) return undefined;
      const language = id.slice(WHOLE.length + 1);
      if (id === `\0${LANGUAGES}`) {
        const found = readdirSync(folder).flatMap((name) => /^(.+)\.json$/.exec(name)?.[1] ?? []);
        const others = [...found.filter((name) => name !== "en"), PSEUDO];
        const rows = others.map((name) => `"${name}": () => import("${WHOLE}${name}")`);
        return `export default { ${rows.join(", ")} };`;
      }
      // What nobody has put into it yet is said in English.
      const words = Object.entries(
        language === PSEUDO ? english : { ...english, ...read(language) },
      );
      return `export default ${compiled(words, language === PSEUDO ? pseudo : (m) => m)};`;
    },
  };
}
