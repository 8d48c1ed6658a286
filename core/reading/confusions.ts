/** Characters that ink makes look alike, each with what it may be instead. */
const alike: Record<string, string> = {
  '0': 'O8',
  O: '0',
  o: '0',
  D: '0',
  Q: '0',
  '1': '7',
  l: '1',
  I: '1',
  i: '1',
  '|': '1',
  '!': '1',
  '7': '1',
  '5': 'S6',
  S: '5',
  s: '5',
  '8': 'B03',
  B: '8',
  '3': '8',
  '6': '5',
  '4': '9',
  '9': '4',
  Z: '2',
  z: '2',
  '2': '7',
  g: '9',
};

/**
 * What a number on paper may be when it was misread: one character for one that looks like it, a decimal point that was lost or taken
 * for a comma or space, or one between digits that is dust. As it was read is not among them.
 */
export function misreadings(text: string): string[] {
  const out = new Set<string>();
  for (let i = 0; i < text.length; i++)
    for (const other of alike[text[i]!] ?? '') if (/[\d.,]/.test(other)) out.add(text.slice(0, i) + other + text.slice(i + 1));
  const bare = text.replace(/[^\d]/g, '');
  for (const sign of ['.', ','])
    for (const places of [2, 4]) {
      if (bare.length >= places + (places === 2 ? 1 : 0)) out.add(`${bare.slice(0, -places) || '0'}${sign}${bare.slice(-places)}`);
    }
  if (/^\d{1,3}[.,]\d{3}$/.test(text)) out.add(bare);
  out.delete(text);
  return [...out];
}

/** How often letters and digits take turns in a word: a code that a recogniser got wrong has more turns than one that is right. */
export const turnsOf = (text: string): number => (text.match(/\p{L}(?=\d)|\d(?=\p{L})/gu) ?? []).length;
