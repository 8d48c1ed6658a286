import type { Cells } from './cells.ts';
import type { Column } from './heading.ts';
import { holds, numberCell, type NumberCell } from './values.ts';
import type { NumberStyle } from '../../numbers/index.ts';

/** Which columns multiply to the amount. Indexes into the columns; `per` is what the price is for (1, 100, 1000). */
export interface Product {
  amount: number;
  quantity: number | null;
  price: number | null;
  discount: number | null;
  per: number;
  perColumn: number | null;
  pence: boolean;
  proven: number;
  /** Neither headings nor decimals say which factor is the price. */ doubtful: boolean;
}

const perOf = (text: string): number => (/\b1[., ]?000\b/.test(text) ? 1000 : /\b100\b/.test(text) ? 100 : 1);
const wanted = (columns: Column[], ...roles: Column['role'][]): number[] =>
  roles.flatMap((role) => columns.flatMap((c, i) => (c.role === role ? [i] : [])));

/** True for 1, 2, 3, …: a column headed "No." that counts the lines. */
const counts = (values: (string | null)[]): boolean => values.filter((v) => v !== null).every((v, i) => v === String(i + 1));

/**
 * Finds quantity, price, discount and amount by their arithmetic: of all columns that may be each, the combination whose product
 * is the amount on most rows; the headings decide between equals. Rows are cells by column.
 */
export function productOf(columns: Column[], rows: Cells[], style: NumberStyle, currency: string): Product | null {
  const numbers: (NumberCell | null)[][] = rows.map((cells) => cells.map((words) => numberCell(words, style)));
  const filled = (i: number): number => numbers.filter((row) => row[i]).length;
  const amounts = wanted(columns, 'amount', 'grossAmount', 'other').filter((i) =>
    numbers.some((row) => row[i]?.decimals || (currency === 'JPY' && row[i])),
  );
  if (amounts.length === 0) return null;
  const quantities = wanted(columns, 'quantity', 'otherQuantity', 'unit', 'other', 'position').filter((i) => filled(i) > 0);
  const prices = wanted(columns, 'unitPrice', 'otherPrice', 'other', 'taxRate').filter((i) => filled(i) > 0);
  const discounts: (number | null)[] = [...wanted(columns, 'discount'), null];
  const perColumns: (number | null)[] = [
    ...wanted(columns, 'per', 'otherQuantity').filter((i) => numbers.some((r) => ['100', '1000', '10'].includes(r[i]?.value ?? ''))),
    null,
  ];
  const most = Math.max(...amounts.map(filled));
  let best: Product = {
    amount: amounts.find((i) => filled(i) === most && columns[i]!.role !== 'other') ?? amounts[0]!,
    quantity: null,
    price: null,
    discount: null,
    per: 1,
    perColumn: null,
    pence: false,
    proven: 0,
    doubtful: false,
  };
  for (const amount of amounts)
    for (const quantity of quantities)
      for (const price of prices) {
        if (new Set([amount, quantity, price]).size < 3) continue;
        for (const discount of discounts)
          for (const perColumn of perColumns) {
            if (perColumn === quantity) continue;
            const pers = perColumn !== null ? [1] : [...new Set([perOf(columns[price]!.text), 1, 100, 1000])];
            for (const per of pers) {
              const pence = numbers.some((r) => r[price]?.pence);
              const proven = numbers.filter((r) => {
                const q = r[quantity],
                  p = r[price],
                  a = r[amount];
                if (!q || !p || !a || q.percent || a.percent) return false;
                const d = discount !== null ? (r[discount]?.value.replace('-', '') ?? null) : null;
                const each = (perColumn !== null ? Number(r[perColumn]?.value ?? 1) || 1 : per) * (p.pence ? 100 : 1);
                return holds(q.value, p.value, d, each, a.value, currency);
              }).length;
              if (proven > best.proven) best = { amount, quantity, price, discount, per, perColumn, pence, proven, doubtful: false };
            }
          }
      }
  settleFactors(best, columns, numbers, currency);
  if (best.proven === 0) {
    best.quantity =
      wanted(columns, 'quantity')[0] ??
      wanted(columns, 'position').find((i) => !counts(numbers.map((row) => row[i]?.value ?? null))) ??
      null;
    best.price = wanted(columns, 'unitPrice')[0] ?? null;
    best.discount = wanted(columns, 'discount')[0] ?? null;
    if (best.price !== null) best.per = perOf(columns[best.price]!.text);
  } else if (best.discount === null) best.discount = wanted(columns, 'discount')[0] ?? null;
  return best;
}

/**
 * Either factor of a product may be the price. Headings decide; where they say nothing, the one with decimals more often is the price.
 */
function settleFactors(best: Product, columns: Column[], numbers: (NumberCell | null)[][], currency: string): void {
  const { quantity, price } = best;
  if (quantity === null || price === null) return;
  const speaks = (i: number, ...roles: Column['role'][]) => roles.includes(columns[i]!.role);
  if (speaks(quantity, 'quantity', 'otherQuantity') || speaks(price, 'unitPrice', 'otherPrice')) return;
  // Yen have no decimals: what has some is a quantity there.
  const decimals = (i: number) => (currency === 'JPY' ? -1 : 1) * numbers.filter((row) => row[i]?.value.includes('.')).length;
  const told = speaks(price, 'quantity', 'otherQuantity') || speaks(quantity, 'unitPrice', 'otherPrice');
  if (told || decimals(quantity) > decimals(price)) [best.quantity, best.price] = [price, quantity];
  best.doubtful = !told && decimals(quantity) === decimals(price);
  const size = (i: number) => numbers.reduce((t, row) => t + Number(row[i]?.value ?? 0), 0);
  if (best.doubtful && size(quantity) > size(price)) [best.quantity, best.price] = [price, quantity];
}
