import { dec, sum, zero, type Decimal } from '../money/index.ts';
import type { NamedAmount } from './amounts.ts';
import type { TaxRow } from './taxtable.ts';
import type { ReadLine } from './types.ts';

/** The amounts that the judge chose, and which sums hold with them. */
export interface Verdict {
  gross: NamedAmount | null;
  net: NamedAmount | null;
  /** Sum of the printed taxes; null when no tax is printed. */
  tax: { value: Decimal; from: NamedAmount[] } | null;
  charges: NamedAmount[];
  includesTax: boolean;
  /** Net + tax = total, or lines + charges + tax = total where no net is printed. */
  totalHolds: boolean;
  /** Lines + charges = net (or total, with prices that include tax). */
  linesHold: boolean;
  /** False when a printed rate does not make the printed tax. True where nothing can be said. */
  rateHolds: boolean;
  /** The sums that hold, one sentence each. */
  proofs: { total: string | null; lines: string | null };
}

type Role = 'gross' | 'net' | 'tax' | 'goods' | 'balance' | 'deposit';
const role = (amount: NamedAmount, name: Role): number => amount.roles.get(name) ?? 0;
/** Amounts that are the same have the same key, and hardly any others: what it finds is compared exactly. */
const keyOf = (value: number): number => Math.round(value * 10_000);
const key = (value: Decimal): number => keyOf(value.toNumber());

/** How much an amount is called, or looks like, a charge or discount. */
const charged = (a: NamedAmount): number => Math.max(a.roles.get('charge') ?? 0, a.roles.get('discount') ?? 0);

/** Amounts that are taxes beyond doubt and are left over where this tax is chosen: neither it nor a part of it. */
function taxesLeft(amounts: NamedAmount[], tax: TaxOption): NamedAmount[] {
  const left = amounts.filter(
    (a) => role(a, 'tax') >= 0.75 && charged(a) < role(a, 'tax') && !tax.from.includes(a) && !a.value.eq(tax.value),
  );
  return left.length === 0 || sum(left.map((a) => a.value)).eq(tax.value) ? [] : left;
}

/** More than this share of a total is no tax. */
const mostTax = 0.4;

interface TaxOption {
  value: Decimal;
  from: NamedAmount[];
  score: number;
}

/** Every way to read the tax: one amount, the sum of the rates' taxes, the sum of all that are called tax, a tax table, or none printed. */
function taxOptions(amounts: NamedAmount[], rows: TaxRow[]): TaxOption[] {
  // What a rate of nothing goes with is its base.
  const taxed = amounts.filter(
    (a) => role(a, 'tax') > 0 && role(a, 'tax') >= charged(a) && (a.rate === null || Number(a.rate) !== 0 || a.value.isZero()),
  );
  const options: TaxOption[] = taxed.map((a) => ({ value: a.value, from: [a], score: role(a, 'tax') }));
  const rated = taxed.filter((a) => a.rate !== null).filter((a, i, list) => list.findLastIndex((b) => b.rate === a.rate) === i);
  if (rated.length > 1) options.push({ value: sum(rated.map((a) => a.value)), from: rated, score: 1.1 });
  const strong = taxed.filter((a) => role(a, 'tax') >= 0.5 && role(a, 'tax') > charged(a));
  if (strong.length > 1 && strong.length < 6) options.push({ value: sum(strong.map((a) => a.value)), from: strong, score: 0.6 });
  if (rows.length > 0)
    options.push({
      value: sum(rows.map((r) => dec(r.tax))),
      from: amounts.filter((a) => rows.some((r) => r.row === a.row && a.value.eq(r.tax))),
      score: 0.9,
    });
  options.push({ value: zero, from: [], score: 0.25 });
  return options;
}

interface Charges {
  list: NamedAmount[];
  named: number;
}

/** What every set of amounts beside the totals adds up to: the set that its labels call charges or discounts first. */
function chargeSums(loose: NamedAmount[]): Map<number, Charges> {
  const called = (a: NamedAmount) => (a.roles.get('charge') ?? 0) > 0.3 || a.roles.has('discount');
  const usable = [...loose]
    .sort((a, b) => Number(called(b)) - Number(called(a)))
    .slice(0, 9)
    .map((a) => (a.roles.has('discount') && a.value.isPositive() ? { ...a, value: a.value.negated() } : a));
  const values = usable.map((a) => a.value.toNumber()),
    names = usable.map(called);
  const sums = new Map<number, { bits: number; named: number }>([[0, { bits: 0, named: 0 }]]);
  for (let bits = 1; bits < 1 << usable.length; bits++) {
    let total = 0,
      n = 0,
      named = 0;
    for (let i = 0; i < usable.length; i++)
      if (bits & (1 << i)) {
        total += values[i]!;
        n++;
        if (names[i]) named++;
      }
    // Amounts that no word calls a charge may be one by accident, several hardly by anything else.
    if (n - named > 1) continue;
    const at = keyOf(total),
      old = sums.get(at);
    if (!old || (old.bits > 0 && named - 0.5 * n > old.named)) sums.set(at, { bits, named: named - 0.5 * n });
  }
  return new Map([...sums].map(([at, { bits, named }]) => [at, { list: usable.filter((_, i) => bits & (1 << i)), named }]));
}

/** Whether a printed rate explains the printed tax on any of the sums it may be charged on, to a minor unit a line. */
function rateExplains(option: TaxOption, bases: Decimal[], rows: TaxRow[], lines: ReadLine[]): boolean {
  if (option.from.length === 0 || rows.length > 1) return true;
  const taxed = option.value.abs().toNumber(),
    count = Math.max(1, lines.length);
  const rates = [...new Set(option.from.map((a) => a.rate).filter((r): r is string => r !== null))];
  const rate = rates.length === 1 ? rates[0]! : rates.length === 0 && rows.length === 1 ? rows[0]!.rate : null;
  if (rate === null) return true;
  const tolerance = dec('0.011').times(count);
  const own = sum(lines.filter((l) => l.taxRate && dec(l.taxRate.value).eq(rate)).map((l) => dec(l.amount.value)));
  return [...bases, ...rows.map((r) => dec(r.net)), own].some(
    (base) =>
      // A quick look first, then exactly.
      Math.abs((Math.abs(base.toNumber()) * Number(rate)) / 100 - taxed) < 0.02 * count &&
      base.abs().times(rate).div(100).minus(option.value.abs()).abs().lte(tolerance),
  );
}

/**
 * The judge: of all assignments of the printed amounts to net, tax, total and charges, the one that the labels speak for most and
 * that makes lines + charges = net, net × rate = tax and net + tax = total. Nothing is computed into place: every value is printed.
 */
export function judge(amounts: NamedAmount[], rows: TaxRow[], lines: ReadLine[]): Verdict {
  const lineSum = sum(lines.map((l) => dec(l.amount.value)));
  const usable = amounts.filter((a) => role(a, 'balance') === 0 && role(a, 'deposit') < 0.7);
  const deposits = amounts.filter((a) => role(a, 'deposit') > 0).map((a) => a.value.abs());
  const printed = new Set(amounts.map((a) => key(a.value)));
  const largest = usable.reduce((m, a) => (a.value.gt(m) ? a.value : m), zero);
  const grosses = usable.filter((a) => role(a, 'gross') > 0 || a.value.eq(largest));
  const nets = usable.filter((a) => role(a, 'tax') < 0.75 && charged(a) < 0.75);
  const mostTaxed = Math.max(0, ...usable.map((a) => role(a, 'tax')));
  const loose = usable.filter(
    (a) =>
      role(a, 'gross') < 0.7 &&
      role(a, 'net') < 0.7 &&
      // "Energy supplement 2.4%" looks like a tax beside one that is.
      (role(a, 'tax') < Math.max(0.5, mostTaxed) || charged(a) > 0.2) &&
      role(a, 'goods') < 0.5 &&
      !a.roles.has('carried') &&
      a.label !== '',
  );
  const sums = lines.length > 0 ? chargeSums(loose) : new Map<number, Charges>();
  const chargesFor = (target: Decimal, but: NamedAmount[]): NamedAmount[] | null => {
    const wanted = target.minus(lineSum),
      found = sums.get(key(wanted));
    return found &&
      sum(found.list.map((a) => a.value)).eq(wanted) &&
      !found.list.some((a) => but.some((b) => b.row === a.row && b.mark.x === a.mark.x) || a.value.eq(target))
      ? found.list
      : null;
  };
  let best: Verdict | null = null,
    most = -Infinity;
  const options = taxOptions(usable, rows).map((o) => ({ ...o, left: taxesLeft(usable, o) }));
  for (const gross of grosses)
    for (const tax of options) {
      const taxed = tax.from.length > 0;
      if (taxed && tax.value.abs().gt(gross.value.abs().times(mostTax))) continue;
      // With a printed tax of zero the total is the net, and is often printed once.
      const same = taxed && tax.value.isZero() ? [gross] : [];
      for (const net of [...nets.filter((a) => a !== gross), ...same, null]) {
        if (net && tax.from.includes(net)) continue;
        const own = [gross, ...tax.from, ...(net ? [net] : [])];
        const exclusive = chargesFor(net ? net.value : gross.value.minus(tax.value), own);
        const inclusive = taxed && !tax.value.isZero() ? chargesFor(gross.value, own) : null;
        const charges = exclusive ?? inclusive;
        const totalHolds = net ? net.value.plus(tax.value).eq(gross.value) : !taxed || (exclusive !== null && lines.length > 0);
        const linesHold = lines.length > 0 && charges !== null;
        const rateHolds = rateExplains(
          tax,
          [net?.value ?? gross.value.minus(tax.value), ...(exclusive ? [] : [gross.value.minus(tax.value)])],
          rows,
          lines,
        );
        // What is left to pay after a deposit is not the total; the total is printed as well.
        const beforeDeposit = deposits.some((d) => printed.has(key(gross.value.minus(d))));
        const score =
          2 * role(gross, 'gross') +
          (net ? (net === gross ? 0.3 : Math.max(1.2 * role(net, 'net'), 0.7 * role(net, 'goods'), 0.1)) : 0) +
          tax.score +
          (totalHolds && net ? (net === gross ? 1.5 : 4) : 0) +
          (linesHold ? 3 : 0) -
          0.4 * (charges?.length ?? 0) +
          (gross.value.eq(largest) ? 0.3 : 0) -
          gross.row / 1e5 +
          (totalHolds && taxed ? 1 : 0) +
          (taxed && rateHolds ? 0.5 : 0) +
          (beforeDeposit ? 1.5 : 0) -
          // A tax that is printed beyond doubt is explained.
          (tax.left.some((a) => !charges?.some((c) => c.row === a.row && c.mark.x === a.mark.x))
            ? net && net.value.eq(gross.value)
              ? 4
              : 1.2
            : 0);
        if (score <= most) continue;
        most = score;
        best = {
          gross,
          net,
          tax: taxed ? { value: tax.value, from: tax.from } : null,
          charges: charges ?? loose.filter((a) => a !== gross && a !== net && (a.roles.has('charge') || a.roles.has('discount'))),
          includesTax: exclusive === null && inclusive !== null && net !== null,
          totalHolds,
          linesHold,
          rateHolds,
          proofs: { total: null, lines: null },
        };
      }
    }
  if (!best)
    return {
      gross: null,
      net: null,
      tax: null,
      charges: [],
      includesTax: false,
      totalHolds: false,
      linesHold: false,
      rateHolds: true,
      proofs: { total: null, lines: null },
    };
  return { ...best, proofs: sentences(best, lineSum, lines.length) };
}

/** The sums that hold, as a person would say them. */
function sentences(v: Verdict, lineSum: Decimal, count: number): Verdict['proofs'] {
  const places = v.gross!.text.split('.')[1]?.length ?? 0;
  const show = (d: Decimal) => d.toFixed(places);
  const charged = sum(v.charges.map((c) => c.value));
  const goods = `${count} ${count === 1 ? 'line' : 'lines'} ${show(lineSum)}${v.charges.length ? ` ${charged.isNegative() ? '−' : '+'} charges ${show(charged.abs())}` : ''}`;
  const target = v.includesTax || !v.net ? v.gross! : v.net;
  const lines = !v.linesHold
    ? null
    : !v.net && v.tax
      ? `${goods} + tax ${show(v.tax.value)} = ${show(v.gross!.value)}`
      : `${goods} = ${show(target.value)}`;
  // A net that is the total itself, and no tax on it, would add up whatever was read.
  const total = !v.totalHolds
    ? null
    : v.net && v.tax && v.net !== v.gross
      ? `${show(v.net.value)} + ${show(v.tax.value)} = ${show(v.gross!.value)}`
      : lines;
  return { total, lines };
}
