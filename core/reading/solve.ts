import { dec, sum, zero, type Decimal } from '../money/index.ts';
import type { NamedAmount, TaxRow } from './totals.ts';
import type { ReadLine } from './types.ts';

export interface Solution {
  gross: NamedAmount | null;
  net: NamedAmount | null;
  /** Sum of the printed taxes; null when no tax is printed. */
  tax: { value: Decimal; from: NamedAmount[] } | null;
  charges: NamedAmount[];
  includesTax: boolean;
  /** Net + tax = total. */
  totalHolds: boolean;
  /** Lines + charges = net (or total, with prices that include tax). */
  linesHold: boolean;
}

const role = (amount: NamedAmount, name: 'gross' | 'net' | 'tax' | 'goods' | 'balance' | 'deposit'): number => amount.roles.get(name) ?? 0;

/** Every way to read the tax: one amount, the sum of the rates' taxes, or none printed. */
function taxOptions(amounts: NamedAmount[], rows: TaxRow[]): { value: Decimal; from: NamedAmount[]; score: number }[] {
  const taxed = amounts.filter((a) => role(a, 'tax') > 0);
  const options = taxed.map((a) => ({ value: a.value, from: [a], score: role(a, 'tax') }));
  const rated = taxed.filter((a, i) => a.rate !== null && taxed.findIndex((b) => b.rate === a.rate) === i);
  if (rated.length > 1) options.push({ value: sum(rated.map((a) => a.value)), from: rated, score: 1 });
  if (rows.length > 0) {
    const value = sum(rows.map((r) => dec(r.tax)));
    options.push({ value, from: amounts.filter((a) => rows.some((r) => r.row === a.row && a.value.eq(r.tax))), score: 0.9 });
  }
  options.push({ value: zero, from: [], score: 0.25 });
  return options;
}

/** The subset of loose amounts in the totals block that makes lines + charges = target; fewest left out first. Null when none does. */
function chargesFor(target: Decimal, lines: Decimal, loose: NamedAmount[]): NamedAmount[] | null {
  const rest = target.minus(lines);
  if (rest.isZero()) return [];
  const usable = loose.slice(0, 10);
  let best: { list: NamedAmount[]; named: number } | null = null;
  for (let bits = 1; bits < 1 << usable.length; bits++) {
    const list = usable.filter((_, i) => bits & (1 << i)).map((a) => (a.roles.has('discount') && a.value.isPositive() ? { ...a, value: a.value.negated() } : a));
    if (!sum(list.map((a) => a.value)).eq(rest)) continue;
    const named = list.filter((a) => a.roles.has('charge') || a.roles.has('discount')).length - 0.5 * list.length;
    if (!best || named > best.named) best = { list, named };
  }
  return best?.list ?? null;
}

/**
 * Finds net, tax, total and charges: of all assignments of the printed amounts, the one that the labels speak for most and that
 * makes net + tax = total and lines + charges = net. Nothing is computed into place: every value is printed.
 */
export function solve(amounts: NamedAmount[], rows: TaxRow[], lines: ReadLine[]): Solution {
  const lineSum = sum(lines.map((l) => dec(l.amount.value)));
  const usable = amounts.filter((a) => role(a, 'balance') === 0 && role(a, 'deposit') < 0.7);
  const grosses = usable.filter((a) => role(a, 'gross') > 0);
  const nets = usable.filter((a) => role(a, 'net') > 0 || role(a, 'goods') > 0);
  let best: Solution | null = null, most = -Infinity;
  const largest = usable.reduce((m, a) => (a.value.gt(m) ? a.value : m), zero);
  const candidates = grosses.length ? grosses : usable.filter((a) => a.value.eq(largest)).slice(0, 1);
  for (const gross of candidates) for (const tax of taxOptions(usable, rows)) {
    // With a printed tax of zero the total is the net, and is often printed once.
    const same = tax.from.length > 0 && tax.value.isZero() ? [gross] : [];
    for (const net of [...nets, ...same, null]) {
      const totalHolds = net ? net.value.plus(tax.value).eq(gross.value) : tax.from.length === 0;
      const taxed = tax.from.length > 0;
      const loose = usable.filter((a) => a !== gross && a !== net && !tax.from.includes(a) && role(a, 'gross') < 0.7 && role(a, 'net') < 0.7 && !(role(a, 'tax') > 0)
        && !a.value.eq(gross.value) && a.label !== '' && lines.length > 0);
      const exclusive = net ? chargesFor(net.value, lineSum, loose.filter((a) => !role(a, 'goods'))) : null;
      const inclusive = taxed && !tax.value.isZero() || !net ? chargesFor(gross.value, lineSum, loose.filter((a) => !role(a, 'goods'))) : null;
      const linesHold = lines.length > 0 && (exclusive !== null || inclusive !== null);
      const score = 2 * role(gross, 'gross') + (net ? (net === gross ? 0.3 : Math.max(1.2 * role(net, 'net'), 0.7 * role(net, 'goods'))) : 0) + tax.score
        + (totalHolds && net ? 4 : 0) + (linesHold ? 3 : 0) - 0.4 * ((exclusive ?? inclusive)?.length ?? 0) + (gross.value.eq(largest) ? 0.3 : 0)
        - (gross.row / 1e5) + (totalHolds && taxed ? 1 : 0);
      if (score > most) {
        most = score;
        const charges = exclusive ?? inclusive ?? loose.filter((a) => a.roles.has('charge') || a.roles.has('discount'));
        best = { gross, net, tax: taxed ? { value: tax.value, from: tax.from } : null, charges, includesTax: exclusive === null && inclusive !== null && net !== null, totalHolds, linesHold };
      }
    }
  }
  return best ?? { gross: null, net: null, tax: null, charges: [], includesTax: false, totalHolds: false, linesHold: false };
}
