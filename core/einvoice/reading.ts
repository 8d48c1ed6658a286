import { dec, decOrNull } from '../money/index.ts';
import type { HeaderField, Read, Reading, ReadLine } from '../reading/index.ts';
import { squash } from '../reading/identifiers.ts';
import { dueDate, parseTerms } from '../terms/index.ts';
import { check, type Broken } from './rules.ts';
import type { EInvoice, EInvoiceLine } from './types.ts';

const read = (value: string | null, proof: string | null = null): Read | null =>
  value === null ? null : { value, mark: null, confidence: 1, proof };
/** "20.00" as a rate is "20". */
const plain = (text: string | null): string | null => decOrNull(text)?.toFixed() ?? null;
/** A currency's code as ISO 4217 forms them; anything else is none. */
const code = (text: string | null): string | null => (text !== null && /^[A-Z]{3}$/.test(text) ? text : null);
const number = (text: string | null): string | null => (text !== null && decOrNull(text) !== null ? text : null);

/** A line's discount in percent: as given, or where the allowance is an exact share of what it is taken from. */
function discountOf(line: EInvoiceLine): string | null {
  const allowance = line.adjustments.length === 1 && !line.adjustments[0]!.charge ? line.adjustments[0]! : null;
  if (!allowance) return null;
  if (number(allowance.percent)) return plain(allowance.percent);
  const base = decOrNull(allowance.base);
  const share =
    base && !base.isZero()
      ? dec(allowance.amount ?? 0)
          .div(base)
          .times(100)
      : null;
  return share && share.decimalPlaces() <= 2 ? share.toString() : null;
}

function lineOf(line: EInvoiceLine): ReadLine {
  const per = number(line.priceQuantity);
  const discountPercent = discountOf(line),
    amount = number(line.amount) ?? '0';
  const made =
    line.quantity && line.price
      ? dec(number(line.quantity) ?? 0)
          .times(number(line.price) ?? 0)
          .div(per && !dec(per).isZero() ? per : 1)
          .times(dec(100).minus(discountPercent ?? 0))
          .div(100)
      : null;
  const proof = made?.minus(amount).abs().lte('0.01')
    ? `${line.quantity} × ${line.price}${per && per !== '1' ? ` ÷ ${per}` : ''}${discountPercent ? ` − ${discountPercent}%` : ''} = ${amount}`
    : null;
  return {
    code: read(line.code),
    description: read(line.name ?? line.description),
    quantity: read(number(line.quantity)),
    unit: read(line.unit),
    unitPrice: read(number(line.price)),
    priceQuantity: per && !dec(per).eq(1) ? per : null,
    discountPercent: read(discountPercent),
    taxRate: read(plain(line.rate)),
    amount: { ...read(amount, proof)! },
    further: [],
  };
}

/** The account where it is an IBAN; a national account number is something else. */
const ibanOf = (account: string | null): string | null =>
  account && /^[A-Z]{2}\d{2}[A-Z0-9]{10,}$/.test(squash(account)) ? squash(account) : null;

/** The due date that terms in words make, where the data has none. */
function dueOf(e: EInvoice): string | null {
  const terms = e.dueDate === null && e.issueDate && e.terms && e.kind === 'invoice' ? parseTerms(e.terms) : null;
  return e.dueDate ?? (terms ? dueDate(e.issueDate!, terms) : null);
}

/** An e-invoice as a reading: every value as the data has it, sure, without marks; broken rules flag their fields. */
export function toReading(e: EInvoice): { reading: Reading; broken: Broken[] } {
  const broken = check(e);
  const t = e.totals,
    net = number(t.net),
    tax = number(t.tax),
    gross = number(t.gross);
  const holds =
    net &&
    gross &&
    dec(net)
      .plus(tax ?? 0)
      .eq(gross)
      ? `${net} + ${tax ?? '0.00'} = ${gross}`
      : null;
  const header: Record<HeaderField, Read | null> = {
    supplierName: read(e.seller.name),
    supplierTaxId: read(e.seller.taxId && squash(e.seller.taxId)),
    supplierIban: read(ibanOf(e.payment.iban)),
    buyerName: read(e.buyer.name),
    invoiceNumber: read(e.number),
    issueDate: read(e.issueDate),
    dueDate: read(dueOf(e)),
    paymentTerms: read(e.terms),
    currency: read(code(e.currency)),
    purchaseOrder: read(e.orderReference),
    netTotal: read(net, holds),
    taxTotal: read(tax, holds),
    grossTotal: read(gross, holds),
  };
  return {
    broken,
    reading: {
      pages: [1],
      kind: e.kind,
      kindConfidence: 1,
      header,
      supplierEmails: e.seller.email ? [e.seller.email.toLowerCase()] : [],
      pricesIncludeTax: false,
      lines: e.lines.map(lineOf),
      charges: e.adjustments
        .filter((a) => number(a.amount))
        .map((a) => ({
          label: a.reason ?? (a.charge ? 'Charge' : 'Allowance'),
          amount: read(a.charge ? a.amount! : dec(a.amount!).negated().toFixed(decimals(a.amount!)))!,
        })),
      taxBreakdown: e.taxes.map((x) => ({ rate: plain(x.rate) ?? '0', net: x.base ?? '0', tax: x.tax ?? '0' })),
      flags: [...new Set(broken.flatMap((b) => b.paths))],
    },
  };
}

const decimals = (text: string): number => text.split('.')[1]?.length ?? 0;
