/** The amount a typed line begins with. */
export const AMOUNT =
  /^\s*[-\d.,/½¼¾⅓⅔⅛\s]*\s*(?:[a-zA-Z]{1,4}\.?|cups?|tablespoons?|teaspoons?|pinch|sticks?)?\s+(?:of\s+)?/;

/** What a typed line calls its ingredient, without the amount. */
export function nameOf(text: string): string {
  return text.replace(AMOUNT, "").trim() || text.trim();
}
