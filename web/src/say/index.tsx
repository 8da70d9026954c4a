import { TransNoContext } from "@lingui/react/server";
import type { ReactElement, ReactNode } from "react";

import type catalogue from "@/say/en.json";
import { i18n } from "@/say/i18n";

/** Every message there is: they stand in one catalogue of ICU messages, by language. */
export type Code = keyof typeof catalogue;

type Text = string | number | false | null | undefined;

const shown = (value: Text) => (value === false || value == null ? "" : value);

/** The words of a code, its values in their places; what is not there is left out. */
export function say(code: Code, values: Record<string, Text> = {}): string {
  const placed = Object.entries(values).map(([key, value]) => [key, shown(value)]);
  return i18n._(code, Object.fromEntries(placed) as Record<string, string | number>);
}

interface SayProps {
  code: Code;
  values?: Record<string, ReactNode>;
  /** What a tag in the message is drawn as. */
  components?: Record<string, ReactElement>;
}

/** The same with elements in it. */
export function Say({ code, values = {}, components = {} }: SayProps) {
  // What somebody typed never opens a tag: it goes in as a node.
  const placed = Object.entries(values).map(([key, value]) => [
    key,
    typeof value === "string" && value.includes("<") ? <>{value}</> : value,
  ]);
  return (
    <TransNoContext
      id={code}
      values={Object.fromEntries(placed) as Record<string, unknown>}
      components={components}
      lingui={{ i18n }}
    />
  );
}
