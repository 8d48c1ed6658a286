import { dec, roundTo, sum, zero, type Decimal } from '../money/index.ts';
import type { TaxRule } from './tax.ts';

/** A line as far as its tax goes: its amount as it stands on the bill, with its tax in it or without. */
export interface TaxableLine {
  id: string;
  amount: Decimal;
  /** The tax code that it has now. */ taxCodeId: string | null;
}
/** A way to explain a printed tax: one part of the bill carries it at one rate, the rest is free of it. */
export interface TaxParts {
  taxed: TaxRule;
  free: TaxRule;
  /** What carries tax, without it and with it. */ net: Decimal;
  gross: Decimal;
  /** What does not. */ rest: Decimal;
  /** Lines that carry tax as a whole; all others but the one that is parted are free of it. */ lines: string[];
  /** The line that is parted, and how much of its amount carries tax. */ parted: { line: string; amount: Decimal } | null;
}

/** Sums of more lines than these are not looked through for some that make a part. */
const mostLines = 18;

/**
 * Ways to explain a tax that the rates do not, likeliest first: for each code with a rate the part that carries tax follows from the tax
 * itself (net = tax ÷ rate, with tax = tax × (1 + rate) ÷ rate, to the minor unit), and has to be less than the whole. Lines that make
 * that part exactly carry it as they are; else one line is parted. `rules`: the codes that may be used; `lines`: all that have an amount.
 */
export function taxParts(
  lines: readonly TaxableLine[],
  tax: Decimal,
  rules: readonly TaxRule[],
  includesTax: boolean,
  currency: string,
): TaxParts[] {
  const whole = sum(lines.map((l) => l.amount));
  const usable = rules.filter((r) => !r.reverseCharge),
    used = (r: TaxRule) => lines.filter((l) => l.taxCodeId === r.id).length;
  // A code that the bill has already comes first.
  const byUse = (a: TaxRule, b: TaxRule) => used(b) - used(a) || a.code.localeCompare(b.code);
  const [free] = usable.filter((r) => dec(r.rate).isZero()).sort(byUse);
  if (!free || tax.isZero() || lines.some((l) => l.amount.isNegative() !== tax.isNegative())) return [];
  return (
    usable
      .filter((r) => dec(r.rate).gt(0))
      .sort(byUse)
      // Of codes with one rate that of the bill, or the first.
      .filter((r, i, all) => all.findIndex((o) => dec(o.rate).eq(r.rate)) === i)
      .flatMap((taxed): TaxParts[] => {
        const net = roundTo(tax.times(100).div(taxed.rate), currency),
          gross = net.plus(tax),
          part = includesTax ? gross : net;
        if (part.abs().gte(whole.abs())) return [];
        const some = makingUp(lines, part);
        return [
          { taxed, free, net, gross, rest: whole.minus(part), ...(some ? { lines: some, parted: null } : parting(lines, taxed, part)) },
        ];
      })
      .sort((a, b) => Number(a.parted !== null) - Number(b.parted !== null))
  );
}

/** Lines whose amounts make a sum exactly; null where none do, or different ones do. */
function makingUp(lines: readonly TaxableLine[], part: Decimal): string[] | null {
  if (lines.length < 2 || lines.length > mostLines) return null;
  // In minor units of up to three decimals: exact.
  const amounts = lines.map((l) => l.amount.times(1000).toNumber()),
    wanted = part.times(1000).toNumber();
  const rests = amounts.map((_, i) => amounts.slice(i).reduce((a, b) => a + Math.abs(b), 0));
  const found: string[][] = [];
  const look = (i: number, left: number, chosen: string[]): void => {
    if (found.length > 1) return;
    if (left === 0 && chosen.length > 0) return void found.push(chosen);
    if (i === lines.length || Math.abs(left) > rests[i]!) return;
    look(i + 1, left - amounts[i]!, [...chosen, lines[i]!.id]);
    look(i + 1, left, chosen);
  };
  look(0, wanted, []);
  return found.length === 1 ? found[0]! : null;
}

/** The part taken from lines that have the code already, then from the others in order; the last one is parted. */
function parting(lines: readonly TaxableLine[], taxed: TaxRule, part: Decimal): Pick<TaxParts, 'lines' | 'parted'> {
  const ordered = [...lines].sort((a, b) => Number(b.taxCodeId === taxed.id) - Number(a.taxCodeId === taxed.id));
  const whole: string[] = [];
  let left = part;
  for (const line of ordered) {
    if (line.amount.abs().lte(left.abs())) {
      whole.push(line.id);
      left = left.minus(line.amount);
    } else if (!left.eq(zero)) return { lines: whole, parted: { line: line.id, amount: left } };
    if (left.isZero()) break;
  }
  return { lines: whole, parted: null };
}
