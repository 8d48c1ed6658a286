/** Codes from one to another, both included; a single code is from itself to itself. `open`: and whatever begins so. */
export interface Range {
  from: string;
  to: string;
  open: boolean;
}
const plain = (code: string): string => code.toUpperCase();

/**
 * Reads which codes are meant: single ones, `63*` for all that begin so, `6100 to 6199`; commas between.
 * `{ trouble }`: one sentence on what cannot be read.
 */
export function parseRanges(text: string): { ranges: Range[] } | { trouble: string } {
  const ranges: Range[] = [];
  for (const part of text.split(/[,;\n]/).map((p) => p.trim())) {
    if (part === '') continue;
    const words = part.split(/\s+/);
    if (words.length === 1) {
      const [code] = words as [string];
      if (/^\d+[-–]\d+$/.test(code)) return { trouble: `For a range write “${code.replace(/[-–]/, ' to ')}”.` };
      const open = code.endsWith('*'),
        bare = plain(open ? code.slice(0, -1) : code);
      if (bare.includes('*')) return { trouble: `“${part}”: * stands only at the end.` };
      if (bare === '') return { trouble: '“*” alone means every code: leave the condition out instead.' };
      ranges.push({ from: bare, to: bare, open });
      continue;
    }
    if (words.length !== 3 || !/^(to|[-–])$/i.test(words[1]!)) return { trouble: `“${part}” is neither a code nor a range: 6100 to 6199.` };
    const [from, to] = [plain(words[0]!), plain(words[2]!)];
    if (`${from}${to}`.includes('*')) return { trouble: `“${part}”: a range has no *.` };
    if (from.length !== to.length) return { trouble: `“${part}”: both ends need as many characters, as in 090 to 110.` };
    if (from > to) return { trouble: `“${part}” ends before it begins.` };
    ranges.push({ from, to, open: true });
  }
  return ranges.length > 0 ? { ranges } : { trouble: 'Write codes, or a range: 6100 to 6199.' };
}

/** Whether a code is one of those that are meant. */
export function inRanges(ranges: readonly Range[], code: string): boolean {
  const own = plain(code);
  return ranges.some(({ from, to, open }) => {
    if (!open) return own === from;
    const begin = own.slice(0, from.length);
    return begin.length === from.length && from <= begin && begin <= to;
  });
}

/** As people write it: "6100 to 6199, 63*, 6500". Reads back as the same. */
export const formatRanges = (ranges: readonly Range[]): string =>
  ranges.map(({ from, to, open }) => (from !== to ? `${from} to ${to}` : `${from}${open ? '*' : ''}`)).join(', ');
