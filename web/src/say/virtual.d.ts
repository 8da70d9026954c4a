declare module "virtual:say/languages" {
  import type { Messages } from "@lingui/core";
  /** The catalogues of other languages, each fetched where it is spoken. */
  const languages: Record<string, () => Promise<{ default: Messages }>>;
  export default languages;
}
