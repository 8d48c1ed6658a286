const plain = (value: string): string =>
  value
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** How alike two texts are, 0 to 1, as the scorer has it: 1 less the edits between them over the longer one's length (Levenshtein). */
export function similarity(a: string, b: string): number {
  const [s, t] = [plain(a), plain(b)];
  if (s === t) return 1;
  const longer = Math.max(s.length, t.length);
  if (!s || !t || Math.abs(s.length - t.length) > 0.3 * longer) return 0;
  let before = Array.from({ length: t.length + 1 }, (_, i) => i);
  for (let i = 1; i <= s.length; i++) {
    const row = [i];
    for (let j = 1; j <= t.length; j++)
      row[j] = Math.min(row[j - 1]! + 1, before[j]! + 1, before[j - 1]! + (s[i - 1] === t[j - 1] ? 0 : 1));
    before = row;
  }
  return 1 - before[t.length]! / longer;
}
