import type { Shapes } from "@/api/client";

export type Wishes = Shapes["WishesIn"];

/** Nothing wished: where every wish starts from. */
export const NO_WISHES: Wishes = {
  set_class: null,
  less_eggy: false,
  whole_eggs: false,
  swaps: [],
  without: [],
  eggs_bought_as: "",
  have: "",
};
