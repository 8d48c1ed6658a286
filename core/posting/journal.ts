import { codingOf, type Coding } from '../bills/index.ts';
import { allocate, dec, fixed, formatAmount, roundTo, sum, zero, type Decimal } from '../money/index.ts';
import { netOf, taxByCode, withheldOf, type TaxRule, type TaxShare } from '../tax/index.ts';

/** Who and what bears a cost, beside its account: kept with the expense, and with tax that cannot be reclaimed. */
export type Bearer = Omit<Coding, 'accountId' | 'taxCodeId'>;
/** What of a line's coding bears its cost. */
export function bearerOf(coding: Partial<Coding>): Bearer {
  const { accountId: _account, taxCodeId: _code, ...bearer } = codingOf(coding);
  return bearer;
}
export interface PostingLine {
  id: string;
  description: string;
  amount: string;
  accountId: string;
  bearer: Bearer;
  rule: TaxRule & { accountId: string; outputAccountId: string | null; withheldAccountId?: string | null };
}
export interface PostingBill {
  kind: 'invoice' | 'credit-note';
  currency: string;
  baseCurrency: string;
  /** Units of base currency for one of the bill's; "1" in base currency. */
  rate: string;
  tax: string | null;
  gross: string;
  pricesIncludeTax: boolean;
  supplierId: string;
  supplierName: string;
  invoiceNumber: string;
  payableAccountId: string;
  /** Where the cents go that are left over in base currency; without one to the largest entry. */ roundingAccountId?: string | null;
  lines: PostingLine[];
}
export interface JournalLine {
  accountId: string;
  /** Null for tax and for what is owed. */
  bearer: Bearer | null;
  taxCodeId: string | null;
  supplierId: string | null;
  billLineId: string | null;
  description: string;
  debit: string;
  credit: string;
  /** In the bill's currency, credits negative. */ currencyAmount: string;
}
/** What a bill says of one tax code, in the company's currency; negative for a credit note. */
export interface TaxLine {
  taxCodeId: string;
  net: string;
  /** Charged by the supplier, or owed by the buyer itself. */ tax: string;
  /** Of the tax: what is reclaimed; the rest is borne by the cost. */ reclaimed: string;
  /** Of the tax: what the buyer owes itself. */ owed: string;
  /** Held back from the supplier. */ withheld: string;
}
/** Base amount owed to the supplier, negative for a credit note. */
export interface Journal {
  lines: JournalLine[];
  /** By tax code, in the order of the lines. */ taxes: TaxLine[];
  total: string;
  payable: string;
  openAmount: string;
}

interface Entry {
  accountId: string;
  /** Null for tax and for what is owed. */
  bearer: Bearer | null;
  taxCodeId: string | null;
  supplierId: string | null;
  billLineId: string | null;
  description: string;
  amount: Decimal;
  /** What it is of its tax code, and how much of a cost is tax that it bears. */
  part: 'net' | 'reclaimed' | 'owed' | 'withheld';
  borne: Decimal;
}

/**
 * The journal entry of a bill: expense for each line, tax that can be reclaimed, and the supplier's payable against them; a credit
 * note the other way round. Tax that cannot be reclaimed stays with the lines that bear it. Reverse charge tax is owed, and
 * reclaimed at once as far as the code allows (Directive 2006/112/EC, art. 168 and 196); use tax is the same with nothing reclaimed. What
 * is withheld is owed to the state in the supplier's stead, who gets so much less. In a foreign currency the payable is converted once; the cents left over go to their account, or to the largest entry.
 * Throws RangeError when the bill's lines and tax are not its total, or a reverse charge code has no account for the tax owed.
 */
export function journalOf(bill: PostingBill): Journal {
  const sign = bill.kind === 'credit-note' ? -1 : 1;
  const lines = bill.lines.map((line) => ({ ...line, amount: dec(line.amount) }));
  const shares = taxByCode(
    lines.map((l) => ({ amount: l.amount, rule: l.rule })),
    bill.pricesIncludeTax,
    bill.tax === null ? zero : dec(bill.tax),
    bill.currency,
  );
  const entries: Entry[] = [];
  for (const share of shares) {
    const own = lines.filter((l) => l.rule.id === share.rule.id);
    const nets = own.map((l) => netOf(l, bill.pricesIncludeTax, bill.currency));
    const [first] = nets;
    // Rounding of prices with tax: the lines' nets are made to add up to the code's net.
    if (first) nets[0] = first.plus(share.net.minus(sum(nets)));
    const rule = own[0]!.rule;
    const owed = rule.reverseCharge ? roundTo(share.net.times(rule.rate).div(100), bill.currency) : zero;
    if (!owed.isZero() && !rule.outputAccountId) throw new RangeError(`Tax code ${rule.code} has no account for the tax that is owed`);
    const charged = rule.reverseCharge ? owed : share.tax,
      recoverable = rule.reverseCharge ? roundTo(owed.times(rule.recoverable).div(100), bill.currency) : share.recoverable;
    const borne = allocate(
      charged.minus(recoverable),
      own.map((l) => l.amount.abs()),
      bill.currency,
    );
    for (const [i, line] of own.entries())
      entries.push({
        accountId: line.accountId,
        bearer: line.bearer,
        taxCodeId: line.rule.id,
        supplierId: null,
        billLineId: line.id,
        description: line.description,
        amount: nets[i]!.plus(borne[i]!),
        part: 'net',
        borne: borne[i]!,
      });
    const tax = { bearer: null, taxCodeId: rule.id, supplierId: null, billLineId: null, borne: zero },
      onNet = `on ${formatAmount(share.net, bill.currency)}`;
    if (!recoverable.isZero())
      entries.push({ ...tax, accountId: rule.accountId, description: `${rule.code} ${onNet}`, amount: recoverable, part: 'reclaimed' });
    if (!owed.isZero())
      entries.push({
        ...tax,
        accountId: rule.outputAccountId!,
        description: `${rule.code} owed ${onNet}`,
        amount: owed.negated(),
        part: 'owed',
      });
  }
  const gross = dec(bill.gross);
  const withheld = shares.flatMap((share) => withholding(share, lines, bill.currency));
  if (!sum(entries.map((e) => e.amount)).eq(gross))
    throw new RangeError(
      `Lines and tax make ${formatAmount(sum(entries.map((e) => e.amount)), bill.currency)}, the total is ${formatAmount(gross, bill.currency)}`,
    );
  const order = new Map(bill.lines.map((l, i) => [l.id, i]));
  const sorted = [...entries, ...withheld]
    .filter((e) => !e.amount.isZero())
    .sort((a, b) => (order.get(a.billLineId ?? '') ?? 1e6) - (order.get(b.billLineId ?? '') ?? 1e6));
  const due = gross.plus(sum(withheld.map((e) => e.amount)));
  const basePayable = roundTo(due.times(bill.rate), bill.baseCurrency);
  const { parts: base, rest } = inBase(sorted, basePayable, bill);
  const payable: Omit<Entry, 'part' | 'borne'> = {
    accountId: bill.payableAccountId,
    bearer: null,
    taxCodeId: null,
    supplierId: bill.supplierId,
    billLineId: null,
    description: `${bill.supplierName} ${bill.invoiceNumber}`,
    amount: due.negated(),
  };
  const rounding = {
    ...payable,
    accountId: bill.roundingAccountId!,
    supplierId: null,
    description: 'Rounding of the exchange',
    amount: zero,
  };
  const pairs = [
    ...sorted.map((entry, i) => ({ entry, amount: base[i]! })),
    ...(rest.isZero() ? [] : [{ entry: rounding, amount: rest }]),
    { entry: payable, amount: basePayable.negated() },
  ];
  return {
    lines: pairs
      .filter((p) => !p.amount.isZero())
      .map(({ entry, amount }) => side(entry, amount.times(sign), entry.amount.times(sign), bill)),
    total: fixed(sum(pairs.map((p) => p.amount.times(sign)).filter((a) => a.isPositive())), bill.baseCurrency),
    payable: fixed(basePayable.times(sign), bill.baseCurrency),
    openAmount: fixed(due.times(sign), bill.currency),
    taxes: shares.map((s) => taxLine(s.rule.id, sorted, base, bill, sign)),
  };
}

/** What is held back from the supplier under a code. */
function withholding(share: TaxShare, lines: readonly { rule: PostingLine['rule'] }[], currency: string): Entry[] {
  const held = withheldOf(share, currency);
  if (held.isZero()) return [];
  const { withheldAccountId } = lines.find((l) => l.rule.id === share.rule.id)!.rule;
  if (!withheldAccountId) throw new RangeError(`Tax code ${share.rule.code} has no account for what is withheld`);
  return [
    {
      accountId: withheldAccountId,
      bearer: null,
      taxCodeId: share.rule.id,
      supplierId: null,
      billLineId: null,
      description: `${share.rule.code} withheld on ${formatAmount(share.net, currency)}`,
      amount: held.negated(),
      part: 'withheld',
      borne: zero,
    },
  ];
}

/** What the entries say of a tax code, in base currency: so that a summary by code is the ledger's own. */
function taxLine(taxCodeId: string, entries: readonly Entry[], base: readonly Decimal[], bill: PostingBill, sign: number): TaxLine {
  const own = entries.flatMap((entry, i) => (entry.taxCodeId === taxCodeId ? [{ ...entry, base: base[i]! }] : []));
  const of = (part: Entry['part']) => sum(own.filter((e) => e.part === part).map((e) => e.base));
  const borne = sum(own.map((e) => (bill.currency === bill.baseCurrency ? e.borne : roundTo(e.borne.times(bill.rate), bill.baseCurrency))));
  const show = (amount: Decimal) => fixed(amount.times(sign), bill.baseCurrency);
  return {
    taxCodeId,
    net: show(of('net').minus(borne)),
    tax: show(of('reclaimed').plus(borne)),
    reclaimed: show(of('reclaimed')),
    owed: show(of('owed').negated()),
    withheld: show(of('withheld').negated()),
  };
}

/**
 * Entries in base currency, each at the rate. The cents left over to the payable are the rest where they have an account; else the largest
 * entry takes them.
 */
function inBase(entries: Entry[], payable: Decimal, bill: PostingBill): { parts: Decimal[]; rest: Decimal } {
  if (bill.currency === bill.baseCurrency) return { parts: entries.map((e) => e.amount), rest: zero };
  const parts = entries.map((e) => roundTo(e.amount.times(bill.rate), bill.baseCurrency));
  const rest = payable.minus(sum(parts));
  if (bill.roundingAccountId) return { parts, rest };
  const largest = parts.reduce((at, part, i) => (part.abs().gt(parts[at]!.abs()) ? i : at), 0);
  if (parts.length > 0) parts[largest] = parts[largest]!.plus(rest);
  return { parts, rest: zero };
}

function side(
  entry: Omit<Entry, 'part' | 'borne'>,
  amount: Decimal,
  currencyAmount: Decimal,
  { currency, baseCurrency }: PostingBill,
): JournalLine {
  const { accountId, bearer, taxCodeId, supplierId, billLineId, description } = entry;
  const debit = amount.isPositive();
  return {
    accountId,
    bearer,
    taxCodeId,
    supplierId,
    billLineId,
    description,
    debit: debit ? fixed(amount, baseCurrency) : '0',
    credit: debit ? '0' : fixed(amount.negated(), baseCurrency),
    currencyAmount: fixed(currencyAmount, currency),
  };
}
