import { priced } from '../bills/index.ts';
import { decOrNull, fixed, formatAmount, type Decimal } from '../money/index.ts';
import { prove } from '../proof/index.ts';
import { explainedTax, taxParts, taxTolerance } from '../tax/index.ts';
import type { Change, Check, CheckedBill, Facts } from './types.ts';

/** What the codes' rates make of a bill's tax; null where a row has no code or amount, or the sums are off anyway. */
export function taxByRates(bill: CheckedBill, taxRules: Facts['taxRules']): Decimal | null {
  if (bill.tax === null || priced(bill.lines).length === 0 || !prove(bill).holds) return null;
  const taxed = priced(bill.lines).map((l) => ({
    amount: decOrNull(l.amount),
    rule: l.taxCodeId ? taxRules.get(l.taxCodeId) : undefined,
  }));
  if (taxed.some((l) => !l.rule || !l.amount)) return null;
  return explainedTax(
    taxed.map((l) => ({ amount: l.amount!, rule: l.rule! })),
    bill.pricesIncludeTax,
    bill.currency,
  );
}

/** Tax that the codes' rates don't explain as far as it may differ: what the bill says and what they make; null where they do. */
function unexplained(bill: CheckedBill, facts: Facts): { found: string; expected: string } | null {
  const explained = taxByRates(bill, facts.taxRules);
  if (explained === null || bill.tax === null) return null;
  return explained
    .minus(bill.tax)
    .abs()
    .gt(taxTolerance(priced(bill.lines).length, bill.currency, facts.taxTolerance))
    ? { found: formatAmount(bill.tax, bill.currency), expected: formatAmount(explained, bill.currency) }
    : null;
}

/** How many ways to explain a tax are offered. */
const mostChanges = 2;

/** Ways to part the bill so that its tax is explained. */
function partings(bill: CheckedBill, facts: Facts): Change[] {
  const lines = priced(bill.lines).map((l) => ({ id: l.id, amount: decOrNull(l.amount)!, taxCodeId: l.taxCodeId })),
    open = [...facts.taxRules.values()].filter((r) => !facts.closed.has(r.id));
  return taxParts(lines, decOrNull(bill.tax)!, open, bill.pricesIncludeTax, bill.currency)
    .slice(0, mostChanges)
    .map(({ taxed, free, net, gross, rest, lines: whole, parted }) => ({
      kind: 'tax-parts',
      label: `${formatAmount(bill.pricesIncludeTax ? gross : net, bill.currency)} ${taxed.code}, ${formatAmount(rest, bill.currency)} ${free.code}`,
      taxCodeId: taxed.id,
      freeCodeId: free.id,
      lines: whole,
      parted: parted && { line: parted.line, amount: fixed(parted.amount, bill.currency) },
    }));
}

export const sumChecks: Check[] = [
  {
    code: 'proof-off',
    scope: 'sums',
    needs: [],
    severity: 'stops',
    adjustable: false,
    settledBy: [],
    what: 'Lines, charges and tax make the total',
    run(bill) {
      if (priced(bill.lines).length === 0 || !bill.gross) return [];
      const proof = prove(bill);
      return proof.holds ? [] : [{ path: 'proof', sentence: proof.sentence }];
    },
  },
  {
    code: 'tax-unexplained',
    scope: 'sums',
    needs: ['taxRules', 'taxTolerance', 'closed'],
    severity: 'stops',
    adjustable: true,
    settledBy: ['overrule'],
    what: 'The tax codes explain the tax',
    run(bill, facts) {
      const off = unexplained(bill, facts);
      if (!off) return [];
      const sentence = `The tax codes make ${off.expected}, the invoice says ${off.found}. Check the codes on the lines.`;
      return [{ path: 'tax', sentence, key: `${bill.tax}`, changes: partings(bill, facts), ...off }];
    },
  },
];
