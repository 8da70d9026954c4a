import { setupI18n, type Messages } from "@lingui/core";

import others from "virtual:say/languages";

const asked = typeof document === "undefined" ? "en" : document.documentElement.lang;
const other = others[asked];
const locale = other ? asked : "en";
export const i18n = setupI18n({ locale, messages: { [locale]: {} } });
/** How dates are written; English is that of the house. */
export const region = locale === "en" ? "en-GB" : locale;
if (other) i18n.load(locale, (await other()).default);

/** The English that a file says, brought by the file. */
export function load(messages: Messages): void {
  i18n.load("en", messages);
}
