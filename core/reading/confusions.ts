/** Letters and strokes that ink makes look like a digit, each with that digit. */
export const digitLike: Readonly<Record<string, string>> = {
  O: '0',
  o: '0',
  D: '0',
  Q: '0',
  l: '1',
  I: '1',
  i: '1',
  '|': '1',
  '!': '1',
  Z: '2',
  z: '2',
  A: '4',
  S: '5',
  s: '5',
  G: '6',
  B: '8',
  g: '9',
};

/** Digits that ink makes look like a capital letter, each with that letter. */
export const letterLike: Readonly<Record<string, string>> = { '0': 'O', '1': 'I', '2': 'Z', '5': 'S', '6': 'G', '8': 'B' };

/** What a character of a figure may be instead. */
const alike: Readonly<Record<string, string>> = {
  ...digitLike,
  '0': '8',
  '1': '7',
  '2': '7',
  '3': '8',
  '4': '9',
  '5': '6',
  '6': '5',
  '7': '1',
  '8': '03',
  '9': '4',
};

/** A way to read a figure otherwise, and how much it takes to believe it. */
export interface Misreading {
  text: string;
  cost: number;
}

/**
 * What a number on paper may be when it was misread: one character for one that looks like it; a decimal point that was lost or taken
 * for another sign, more likely where `places` says that its column has decimals (null: not known); a stroke of a line or a speck taken
 * for its first or last digit. As it was read is not among them.
 */
export function misreadings(text: string, places: number | null): Misreading[] {
  const out = new Map<string, number>();
  const add = (other: string, cost: number) => {
    if (other !== text && other !== '' && (out.get(other) ?? Infinity) > cost) out.set(other, cost);
  };
  for (let i = 0; i < text.length; i++) for (const other of alike[text[i]!] ?? '') add(text.slice(0, i) + other + text.slice(i + 1), 1.6);
  // What was taken for another character once was often taken for it throughout: "12.14" for "72.74".
  for (const own of new Set(text))
    for (const other of alike[own] ?? '') if (text.indexOf(own) < text.lastIndexOf(own)) add(text.replaceAll(own, other), 2.2);
  const bare = text.replace(/[^\d]/g, '');
  const now = /[.,](\d+)$/.exec(text)?.[1]?.length ?? 0;
  for (const sign of ['.', ','])
    for (const wanted of places === null ? [2] : [places].filter((p) => p > 0))
      if (bare.length > wanted || (places !== null && bare.length >= wanted))
        add(`${bare.slice(0, -wanted) || '0'}${sign}${bare.slice(-wanted)}`, places !== null && now !== places ? 1 : 2.4);
  if (places === 0 && /^\d{1,3}[.,]\d{3}$/.test(text)) add(bare, 1);
  else if (/^\d{1,3}[.,]\d{3}$/.test(text)) add(bare, 2);
  // The sign between thousands was taken for a digit: "13667.33" for "1'667.33".
  const long = /^(\d{5,})([.,]\d{2})$/.exec(text);
  if (long)
    for (let i = 1; i < long[1]!.length; i++)
      if ((long[1]!.length - 1 - i) % 3 === 0) add(long[1]!.slice(0, i) + long[1]!.slice(i + 1) + long[2]!, 2);
  if (/^[17]\d/.test(text)) add(text.slice(1), 2.2);
  if (/\d[17]$/.test(text)) add(text.slice(0, -1), 2.4);
  return [...out].map(([other, cost]) => ({ text: other, cost }));
}

/** How often letters and digits take turns in a word: a code that a recogniser got wrong has more turns than one that is right. */
export const turnsOf = (text: string): number => (text.match(/\p{L}(?=\d)|\d(?=\p{L})/gu) ?? []).length;
