declare module "virtual:say/*" {
  import type { Messages } from "@lingui/core";
  const messages: Messages;
  export default messages;
}
