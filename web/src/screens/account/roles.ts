import type { Shapes } from "@/api/client";
import { say } from "@/say";

export type Role = Shapes["KitchenRef"]["role"];

/** What each role is called and does. */
export const ROLES: Record<Role, { name: string; does: string }> = {
  chef: { name: say("account.chef"), does: say("account.changes_everything") },
  cook: { name: say("account.cook"), does: say("account.cooks_and_records") },
  viewer: { name: say("account.reader"), does: say("account.reads") },
};

/** The roles to choose from, each with what it does. */
export const ROLE_OPTIONS = (Object.keys(ROLES) as Role[]).map(
  (role) => [role, `${ROLES[role].name}: ${ROLES[role].does}`] as const,
);
