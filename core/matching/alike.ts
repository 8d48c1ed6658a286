/** With fewer digits a prefix or a zero makes another number: A-7, B-7 and B-70. */
const fewest = 4;
/** A number without spaces and signs, in capitals. */
const bare = (number: string): string => number.toUpperCase().replace(/[^A-Z0-9]/g, '');
/** Letters that are digits misread or mistyped. */
const digits = (text: string): string => text.replace(/O/g, '0').replace(/[IL]/g, '1');
const withoutPrefix = (text: string): string => text.replace(/^[A-Z]+(?=.*[0-9])/, '');

/**
 * What numbers that may be one share: without prefix, letters for digits, and zeros. The database keeps it with each bill
 * (`bill.number_key`), so that one among a million is looked up.
 */
export const numberKey = (number: string): string => digits(withoutPrefix(bare(number))).replace(/0/g, '');

/** How two numbers of one supplier may be the same, in a few words; null where they are two numbers (or written alike to the letter). */
export function numbersAlike(one: string, other: string): string | null {
  const [a, b] = [bare(one), bare(other)];
  if (a === '' || b === '' || numberKey(one) !== numberKey(other)) return null;
  if (a === b) return one.trim() === other.trim() ? null : 'written otherwise';
  if (digits(a) === digits(b)) return 'with a letter for a digit';
  const [p, q] = [digits(withoutPrefix(a)), digits(withoutPrefix(b))];
  if (Math.min(p.length, q.length) < fewest) return null;
  if (p === q) return 'with another prefix';
  if (p.replace(/^0+/, '') === q.replace(/^0+/, '')) return 'with zeros before it';
  // One zero more or less, and nothing else moved: 2026-01 and 2026-10 are two.
  const [short, long] = p.length < q.length ? [p, q] : [q, p];
  if (long.length !== short.length + 1) return null;
  for (let i = 0; i < long.length; i++)
    if (long[i] === '0' && long.slice(0, i) + long.slice(i + 1) === short) return 'with a zero more or less';
  return null;
}
