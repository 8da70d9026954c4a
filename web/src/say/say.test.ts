import { readFileSync, readdirSync } from "node:fs";

import { compileMessage, type CompiledMessage } from "@lingui/message-utils/compileMessage";
import ts from "typescript";
import { describe, expect, it } from "vitest";

import { say, type Code } from "@/say";
import catalogue from "@/say/en.json";

const ROOT = new URL("../", import.meta.url).pathname;
const files = readdirSync(ROOT, { recursive: true, encoding: "utf8" }).filter(
  (name) => /\.tsx?$/.test(name) && !/\.(test|d)\./.test(name),
);
/** Attributes that are read or heard. */
const HEARD = ["aria-label", "alt", "label", "placeholder", "title"];
const worded = (text: string) => /\p{L}{3}/u.test(text);

interface Said {
  where: string;
  code: string;
  given: string[];
}

const said: Said[] = [];
const strings = new Set<string>();
const literals: string[] = [];

function keysOf(node: ts.Node | undefined): string[] {
  if (!node || !ts.isObjectLiteralExpression(node)) return [];
  return node.properties.map((p) => p.name?.getText() ?? "");
}

function look(node: ts.Node, file: string): void {
  if (ts.isStringLiteral(node)) strings.add(node.text);
  if (ts.isJsxText(node) && worded(node.text)) literals.push(`${file}: ${node.text.trim()}`);
  if (ts.isJsxAttribute(node) && node.initializer && ts.isStringLiteral(node.initializer)) {
    const [name, text] = [node.name.getText(), node.initializer.text];
    if (HEARD.includes(name) && worded(text)) literals.push(`${file}: ${name}="${text}"`);
  }
  if (ts.isCallExpression(node) && node.expression.getText() === "say") {
    const [code, values] = node.arguments;
    if (code && ts.isStringLiteral(code))
      said.push({ where: file, code: code.text, given: keysOf(values) });
  }
  if (ts.isJsxSelfClosingElement(node) && node.tagName.getText() === "Say") {
    const given: string[] = [];
    let code = "";
    for (const a of node.attributes.properties) {
      if (!ts.isJsxAttribute(a) || !a.initializer) continue;
      if (ts.isStringLiteral(a.initializer)) code = a.initializer.text;
      else if (ts.isJsxExpression(a.initializer)) given.push(...keysOf(a.initializer.expression));
    }
    said.push({ where: file, code, given });
  }
  ts.forEachChild(node, (child) => look(child, file));
}

for (const file of files) {
  const source = readFileSync(ROOT + file, "utf8");
  look(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX), file);
}

/** The places and tags of a message. */
function placesOf(message: CompiledMessage | string): string[] {
  const tokens = typeof message === "string" ? [message] : message;
  const found = tokens.flatMap((token) => {
    if (typeof token === "string") return [...token.matchAll(/<(\w+)\/?>/g)].map((m) => m[1] ?? "");
    const [name, , options] = token;
    const chosen = options && typeof options === "object" ? Object.values(options) : [];
    return [name, ...chosen.flatMap((said) => (said ? placesOf(said as CompiledMessage) : []))];
  });
  return [...new Set(found)].filter((name) => name !== "#").sort();
}

describe("the catalogue", () => {
  it("has every word: none stand in a component", () => {
    expect(literals).toEqual([]);
  });

  it("has every code that is said, and none that nobody says", () => {
    const known = new Set<string>(Object.keys(catalogue));
    expect(said.filter((s) => !known.has(s.code))).toEqual([]);
    expect([...known].filter((code) => !strings.has(code))).toEqual([]);
  });

  it("has its places filled wherever a message is said", () => {
    const wrong = said.filter(
      (s) =>
        String(placesOf(compileMessage(catalogue[s.code as Code]))) !==
        String([...new Set(s.given)].sort()),
    );
    expect(wrong).toEqual([]);
  });

  it("counts by the rules of its language, and leaves out what is not there", () => {
    expect(say("kitchen.readings_understood", { readings: 1 })).toBe("1 reading understood");
    expect(say("kitchen.readings_understood", { readings: 3 })).toBe("3 readings understood");
    expect(say("batch.by", { by: null })).toBe(", by ");
  });
});
