import type { Shapes } from "@/api/client";

export type Role = Shapes["KitchenRef"]["role"];

/** What each role is called and does. */
export const ROLES: Record<Role, { name: string; does: string }> = {
  chef: { name: "chef", does: "changes everything" },
  cook: { name: "cook", does: "cooks and records" },
  viewer: { name: "reader", does: "reads" },
};
