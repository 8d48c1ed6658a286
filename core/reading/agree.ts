import type { Read, ReadLine } from './types.ts';

const cells = ['code', 'description', 'quantity', 'unitPrice', 'taxRate'] as const;
type Cell = (typeof cells)[number];
/** Cells that a person should look at where two ways to read them disagree. */
const weighty = new Set<Cell>(['description', 'quantity', 'unitPrice']);

/** What is said where two ways to read a line disagree: as sure as either is alone, so a person looks at it. */
const doubt = 0.5;
/** From here on what a cell's own items look like is believed against its column's heading. */
const believed = 0.9;

const plain = (read: Read | null): string => read?.value.replace(/[^\p{L}\p{N}]/gu, '').toLowerCase() ?? '';
const alike = (cell: Cell, a: Read | null, b: Read | null): boolean =>
  cell === 'quantity' || cell === 'unitPrice' || cell === 'taxRate'
    ? (a === null) === (b === null) && (a === null || Number(a.value) === Number(b!.value))
    : plain(a) === plain(b);

/** Whether two readings of a document's lines have the same amounts in the same places. */
export const sameLines = (a: readonly ReadLine[], b: readonly ReadLine[]): boolean =>
  a.length === b.length &&
  a.every(({ amount: { mark } }, i) => {
    const other = b[i]!.amount.mark;
    return mark && other && mark.page === other.page && Math.abs(mark.y - other.y) < 1 && Math.abs(mark.x + mark.w - other.x - other.w) < 1;
  });

const unsure = (read: Read, rival: Read | null): Read => ({
  ...read,
  confidence: Math.min(read.confidence, doubt),
  ...(rival ? { rivals: [{ value: rival.value, mark: rival.mark, confidence: Math.min(rival.confidence, doubt) }] } : {}),
});

/** Whether a text goes on where another ends. */
const goesOn = (a: Read, b: Read): boolean => plain(b).length > 0 && plain(a).length > plain(b).length && plain(a).startsWith(plain(b));

/** Whether they stand in one printed row. */
const oneRow = ({ mark: a }: Read, { mark: b }: Read): boolean => a !== null && b !== null && Math.abs(a.y - b.y) < 1 && a.h < b.h + 2;

/** Whether two texts have nothing to do with each other: neither is part of the other. */
const apart = (a: Read, b: Read): boolean => !plain(a).includes(plain(b)) && !plain(b).includes(plain(a));

/** Of a cell under a heading whose words are known, and what its items look like, the likelier one: the latter where the heading found nothing, too little, or what does not multiply. */
function likelier(cell: Cell, headed: Read | null, seen: Read | null, longer: boolean, code: Read | null): Read | null {
  if (!headed || (seen?.proof && !headed.proof)) return seen;
  if (cell !== 'description' || !seen) return headed;
  // A code that was told by its own looks is no description, nor part of what stands behind it.
  const coded = code !== null && code.value !== '' && [plain(code), plain(code) + plain(seen)].includes(plain(headed));
  const told = seen.confidence >= believed && (apart(seen, headed) || (goesOn(seen, headed) && (longer || oneRow(seen, headed))));
  return coded || told ? seen : headed;
}

/**
 * Lines of the way that explains most, with the same lines read by another that tells columns by other means: where both agree a cell is
 * sure, where not the likelier one is said and a person looks at it, the other at hand. `headed`: the first is the one under headings.
 */
export function together(lines: readonly ReadLine[], others: readonly ReadLine[], headed: boolean): ReadLine[] {
  // A row below that most lines have is a part of them; what one of many has is a remark.
  const more = lines.filter(({ description: d }, i) => d && others[i]!.description && goesOn(others[i]!.description!, d)).length;
  const longer = more >= 0.4 * lines.length;
  return lines.map((own, i) => {
    const other = others[i]!;
    // Quantity, price and discount make the amount together: all are of one way.
    const multiplied = headed && other.amount.proof !== null && own.amount.proof === null;
    const line = multiplied ? { ...other, code: own.code, description: own.description, taxRate: own.taxRate } : { ...own };
    for (const cell of cells) {
      const [mine, theirs] = [own[cell], other[cell]];
      if (alike(cell, mine, theirs)) continue;
      const factor = (cell === 'quantity' || cell === 'unitPrice') && own.amount.proof !== other.amount.proof;
      const taken = factor
        ? line[cell]
        : headed
          ? likelier(cell, mine, theirs, longer, other.code)
          : cell === 'taxRate'
            ? (mine ?? theirs)
            : mine;
      line[cell] = taken && weighty.has(cell) && !taken.proof ? unsure(taken, taken === mine ? theirs : mine) : taken;
    }
    return line;
  });
}
