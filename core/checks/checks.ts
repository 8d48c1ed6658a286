import { dec, decOrNull, formatAmount } from '../money/index.ts';
import { prove } from '../proof/index.ts';
import { explainedTax, roundingTolerance, type TaxRule } from '../tax/index.ts';

export interface CheckedLine {
  kind: 'line' | 'charge';
  description: string;
  quantity: string | null;
  unitPrice: string | null;
  priceQuantity: string;
  discountPercent: string | null;
  amount: string | null;
  accountId: string | null;
  costCentreId: string | null;
  taxCodeId: string | null;
}
export interface CheckedBill {
  kind: 'invoice' | 'credit-note';
  supplierId: string | null;
  supplierName: string | null;
  invoiceNumber: string | null;
  issueDate: string | null;
  dueDate: string | null;
  currency: string;
  net: string | null;
  tax: string | null;
  gross: string | null;
  pricesIncludeTax: boolean;
  lines: CheckedLine[];
  unsure: string[];
}
/** What the checks need to know beside the bill. */
export interface CheckContext {
  baseCurrency: string;
  taxRules: ReadonlyMap<string, TaxRule>;
  /** Accounts that need a cost centre. */
  needsCostCentre: ReadonlySet<string>;
  /** Another live bill with the same supplier and number, as people call it. */
  duplicate: string | null;
  hasRate: boolean;
}
/** Something to settle. Blocking ones keep the bill from being sent on. */
export interface Exception {
  code: string;
  path: string;
  sentence: string;
  blocking: boolean;
}

/** Everything that stands between a bill and being sent on, in the order of the desk's fields. */
export function check(bill: CheckedBill, context: CheckContext): Exception[] {
  const found: Exception[] = [];
  const block = (code: string, path: string, sentence: string) => found.push({ code, path, sentence, blocking: true });
  if (!bill.supplierId)
    block(
      'supplier-missing',
      'supplierId',
      bill.supplierName ? `${bill.supplierName} is not among the suppliers. Choose one or make it new.` : 'Choose the supplier.',
    );
  if (!bill.invoiceNumber) block('number-missing', 'invoiceNumber', 'The invoice number is missing.');
  if (!bill.issueDate) block('date-missing', 'issueDate', 'The invoice date is missing.');
  if (!bill.dueDate && bill.kind === 'invoice')
    block('due-missing', 'dueDate', 'The due date is missing. Type a date or the terms, such as net 30.');
  if (bill.issueDate && bill.dueDate && bill.dueDate < bill.issueDate)
    block('due-early', 'dueDate', 'The due date is before the invoice date.');
  if (!bill.gross) block('total-missing', 'gross', 'The invoice total is missing.');
  else if (dec(bill.gross).isNegative())
    block('total-negative', 'gross', 'The total is negative. Make this a credit note with a positive total.');
  if (bill.tax === null && bill.gross !== null) block('tax-missing', 'tax', 'Tax is missing. Type 0 if there is none.');
  if (context.duplicate)
    block('duplicate', 'invoiceNumber', `Number ${bill.invoiceNumber} from this supplier is already on ${context.duplicate}.`);
  if (bill.currency !== context.baseCurrency && !context.hasRate)
    block('rate-missing', 'currency', `There is no exchange rate from ${bill.currency} to ${context.baseCurrency} for the invoice date.`);
  lines(bill, context, block);
  const proof = prove(bill);
  if (!proof.holds && bill.lines.length > 0 && bill.gross) block('proof-off', 'proof', proof.sentence);
  else taxExplained(bill, context, block);
  for (const path of bill.unsure)
    found.push({ code: 'unsure', path, sentence: 'The reader is not sure of this. Look at the page.', blocking: false });
  return found;
}

function lines(bill: CheckedBill, context: CheckContext, block: (code: string, path: string, sentence: string) => void): void {
  if (bill.lines.length === 0) block('lines-missing', 'lines', 'There are no lines. Add one, or more.');
  for (const [i, line] of bill.lines.entries()) {
    const row = `Row ${i + 1}`;
    if (decOrNull(line.amount) === null) block('amount-missing', `lines[${i}].amount`, `${row} has no amount.`);
    if (!line.description.trim()) block('description-missing', `lines[${i}].description`, `${row} has no description.`);
    if (!line.accountId) block('account-missing', `lines[${i}].accountId`, `${row} has no ledger account.`);
    else if (!line.costCentreId && context.needsCostCentre.has(line.accountId))
      block('cost-centre-missing', `lines[${i}].costCentreId`, `${row} needs a cost centre.`);
    if (!line.taxCodeId) block('tax-code-missing', `lines[${i}].taxCodeId`, `${row} has no tax code.`);
  }
}

/** Tax that the codes' rates don't explain beyond rounding. */
function taxExplained(bill: CheckedBill, context: CheckContext, block: (code: string, path: string, sentence: string) => void): void {
  if (bill.tax === null || bill.lines.length === 0) return;
  const taxed = bill.lines.map((l) => ({ amount: decOrNull(l.amount), rule: l.taxCodeId ? context.taxRules.get(l.taxCodeId) : undefined }));
  if (taxed.some((l) => !l.rule || !l.amount)) return;
  const explained = explainedTax(
    taxed.map((l) => ({ amount: l.amount!, rule: l.rule! })),
    bill.pricesIncludeTax,
    bill.currency,
  );
  if (explained.minus(bill.tax).abs().gt(roundingTolerance(bill.lines.length)))
    block(
      'tax-unexplained',
      'tax',
      `The tax codes make ${formatAmount(explained, bill.currency)}, the invoice says ${formatAmount(bill.tax, bill.currency)}. Check the codes on the lines.`,
    );
}
