/** Options under a name; the first, without one, stands above the rest. */
export interface Group {
  name: string | null;
  options: readonly { value: string; label: string }[];
}

/** Small letters without accents: "crème" is found by "creme". */
const plain = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** What is left when every word typed is in the option or in the name of its group. */
export function narrowed(groups: readonly Group[], typed: string): Group[] {
  const words = plain(typed).split(/\s+/).filter(Boolean);
  return groups
    .map(({ name, options }) => ({
      name,
      options: options.filter(({ label }) => {
        const said = plain(`${label} ${name ?? ""}`);
        return words.every((word) => said.includes(word));
      }),
    }))
    .filter((group) => group.options.length > 0);
}
