/** How well letters fit a text: 0 where they begin it, 1 where they begin a word of it, 2 where they stand anywhere; null where they do not. */
export function fits(text: string, letters: string): number | null {
  const [t, q] = [text.toLowerCase(), letters.trim().toLowerCase()];
  if (q === '' || t.startsWith(q)) return 0;
  if (t.includes(` ${q}`)) return 1;
  return t.includes(q) ? 2 : null;
}

/** Those that fit, the best first, each kept in its order otherwise. */
export function fitting<T>(all: readonly T[], letters: string, text: (one: T) => string): T[] {
  return all
    .map((one, i) => ({ one, i, fit: fits(text(one), letters) }))
    .filter((x) => x.fit !== null)
    .sort((a, b) => a.fit! - b.fit! || a.i - b.i)
    .map((x) => x.one);
}
