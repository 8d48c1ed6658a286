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

/** A number's letters, and where it has digits: "INV-2041" is "INV9". */
const skeleton = (number: string): string => bare(number).replace(/\d+/g, '9');
const digitsIn = (number: string): number => number.replace(/\D/g, '').length;

/**
 * Whether a number is unlike a supplier's earlier ones: these nearly all have the same letters, this one has others, or two digits more
 * or less than any. Nothing is said of fewer than six.
 */
export function numberUnlike(number: string, earlier: readonly string[]): boolean {
  if (earlier.length < 6) return false;
  const times = new Map<string, number>();
  for (const n of earlier) times.set(skeleton(n), (times.get(skeleton(n)) ?? 0) + 1);
  const [usual, most] = [...times].sort((a, b) => b[1] - a[1])[0]!;
  if (most < 0.9 * earlier.length) return false;
  if (skeleton(number) !== usual) return true;
  return earlier.every((n) => Math.abs(digitsIn(n) - digitsIn(number)) > 1);
}
