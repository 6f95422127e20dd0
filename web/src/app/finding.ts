/** What can be found by its name, and how it is found. */
export interface Entry {
  id: string;
  group: string;
  name: string;
  sub?: string;
  to: string;
}

const MOST = 7;

const plain = (s: string): string =>
  s
    .normalize("NFD")
    .replace(/\p{Diacritic}/gu, "")
    .toLowerCase();

/** How well an entry answers: 0 its name begins so, 1 a word of it does, 2 somewhere; -1 not. */
export function fits(e: Entry, asked: string): number {
  const words = plain(asked).split(/\s+/).filter(Boolean);
  const name = plain(e.name);
  const all = `${name} ${plain(e.sub ?? "")}`;
  if (!words.every((w) => all.includes(w))) return -1;
  const [first = ""] = words;
  if (name.startsWith(first)) return 0;
  return all.split(/[\s,]+/).some((w) => w.startsWith(first)) ? 1 : 2;
}

/** The best few of each group, groups in the order in which they are given. */
export function found(entries: readonly Entry[], asked: string, most = MOST): Entry[] {
  const groups = [...new Set(entries.map((e) => e.group))];
  return groups.flatMap((g) =>
    entries
      .filter((e) => e.group === g)
      .map((e) => ({ e, n: fits(e, asked) }))
      .filter(({ n }) => n >= 0)
      .sort((a, b) => a.n - b.n)
      .slice(0, most)
      .map(({ e }) => e),
  );
}
