import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dec, roundTo, sum } from '../money/index.ts';
import { taxByCode } from '../tax/index.ts';
import { bearerOf, journalOf, type PostingBill } from './index.ts';

const rule = (id: string, rate: string, recoverable = '100', reverseCharge = false) => ({
  id,
  code: id,
  rate,
  recoverable,
  reverseCharge,
  accountId: 'tax',
  outputAccountId: 'owed' as string | null,
});
const withheld = { ...rule('W20', '20'), withheld: '20', withheldAccountId: 'held' as string | null };
const rules = [
  rule('S20', '20'),
  rule('R5', '5'),
  rule('Z0', '0'),
  rule('N20', '20', '0'),
  rule('H', '20', '50'),
  rule('RC', '20', '100', true),
  rule('RH', '20', '50', true),
  withheld,
];
const amount = fc.integer({ min: -50_000, max: 500_000 }).map((n) => dec(n).div(100).toFixed(2));

/** What the supplier gets: the total without what is withheld on the lines of a code. */
const owedFor = (bill: PostingBill) => {
  const lines = bill.lines.map((l) => ({ amount: dec(l.amount), rule: l.rule }));
  const shares = taxByCode(lines, bill.pricesIncludeTax, dec(bill.tax ?? '0'), bill.currency);
  const held = shares.map((s) => roundTo(s.net.times(s.rule.withheld ?? 0).div(100), bill.currency));
  return dec(bill.gross).minus(sum(held));
};
const anyBill = fc
  .record({
    lines: fc.array(fc.record({ amount, rule: fc.constantFrom(...rules) }), { minLength: 1, maxLength: 9 }),
    pricesIncludeTax: fc.boolean(),
    kind: fc.constantFrom('invoice' as const, 'credit-note' as const),
    foreign: fc.boolean(),
    roundingAccountId: fc.option(fc.constant('rounding')),
    rate: fc.integer({ min: 1, max: 40_000 }).map((n) => dec(n).div(10_000).toFixed()),
  })
  .map(({ lines, pricesIncludeTax, kind, foreign, rate, roundingAccountId }): PostingBill => {
    const taxed = lines.map((l) => ({ amount: dec(l.amount), rule: l.rule }));
    const tax = sum(taxByCode(taxed, pricesIncludeTax, null, 'GBP').map((s) => s.tax));
    const gross = sum(taxed.map((l) => l.amount)).plus(pricesIncludeTax ? 0 : tax);
    return {
      kind,
      roundingAccountId,
      currency: foreign ? 'EUR' : 'GBP',
      baseCurrency: 'GBP',
      rate: foreign ? rate : '1',
      tax: tax.toFixed(),
      gross: gross.toFixed(),
      pricesIncludeTax,
      supplierId: 's',
      supplierName: 'S',
      invoiceNumber: '1',
      payableAccountId: 'payable',
      lines: lines.map((l, i) => ({
        id: String(i),
        description: `Line ${i}`,
        amount: l.amount,
        accountId: 'expense',
        bearer: bearerOf({}),
        rule: l.rule,
      })),
    };
  });

describe('a journal entry', () => {
  it('balances to the penny, in base currency and in the bill’s own, whatever the lines, taxes and rate', () => {
    fc.assert(
      fc.property(anyBill, (bill) => {
        const { lines } = journalOf(bill);
        expect(sum(lines.map((l) => dec(l.debit).minus(l.credit))).toFixed()).toBe('0');
        expect(lines.every((l) => Number(l.debit) > 0 !== Number(l.credit) > 0)).toBe(true);
        if (bill.currency === 'GBP') expect(sum(lines.map((l) => dec(l.currencyAmount))).toFixed()).toBe('0');
      }),
      { numRuns: 500 },
    );
  });
  it('owes the supplier the total at the rate', () => {
    fc.assert(
      fc.property(anyBill, (bill) => {
        const payable = journalOf(bill).payable;
        expect(dec(payable).abs().toFixed()).toBe(roundTo(owedFor(bill).times(bill.rate), 'GBP').abs().toFixed());
      }),
    );
  });
  it('of a credit note is the invoice’s the other way round', () => {
    fc.assert(
      fc.property(anyBill, (bill) => {
        const one = journalOf({ ...bill, kind: 'invoice' }).lines,
          other = journalOf({ ...bill, kind: 'credit-note' }).lines;
        expect(other.map((l) => [l.credit, l.debit])).toEqual(one.map((l) => [l.debit, l.credit]));
      }),
    );
  });
  const plain = (r: PostingBill['lines'][number]['rule'], over: Partial<PostingBill> = {}): PostingBill => ({
    kind: 'invoice',
    currency: 'GBP',
    baseCurrency: 'GBP',
    rate: '1',
    tax: '20.00',
    gross: '120.00',
    pricesIncludeTax: false,
    supplierId: 's',
    supplierName: 'S',
    invoiceNumber: '1',
    payableAccountId: 'payable',
    lines: [
      {
        id: 'a',
        description: 'Pots',
        amount: '100.00',
        accountId: 'expense',
        bearer: bearerOf({ costCentreId: 'c', dimension2: 'fund' }),
        rule: r,
      },
    ],
    ...over,
  });
  it('says by tax code what the ledger has: net and tax, less what is owed and withheld, is what the supplier gets', () => {
    fc.assert(
      fc.property(anyBill, (bill) => {
        const { taxes, lines, payable } = journalOf(bill);
        const of = (field: 'net' | 'tax' | 'reclaimed' | 'owed' | 'withheld') => sum(taxes.map((t) => dec(t[field])));
        const on = (account: string) => sum(lines.filter((l) => l.accountId === account).map((l) => dec(l.debit).minus(l.credit)));
        // What is left over in base currency is of no code.
        const coded = of('net').plus(of('tax')).minus(of('owed')).minus(of('withheld'));
        expect(coded.plus(on('rounding')).toFixed(2)).toBe(dec(payable).toFixed(2));
        expect([on('tax'), on('owed').negated(), on('held').negated()].map((a) => a.toFixed(2))).toEqual(
          [of('reclaimed'), of('owed'), of('withheld')].map((a) => a.toFixed(2)),
        );
      }),
      { numRuns: 500 },
    );
  });
  it('holds back what a code says, and owes the supplier the rest', () => {
    const bill = plain(withheld);
    expect(accounts(bill)).toEqual([
      ['expense', '100.00', '0'],
      ['tax', '20.00', '0'],
      ['held', '0', '20.00'],
      ['payable', '0', '100.00'],
    ]);
    const { taxes, openAmount } = journalOf(bill);
    expect([openAmount, taxes]).toEqual([
      '100.00',
      [{ taxCodeId: 'W20', net: '100.00', tax: '20.00', reclaimed: '20.00', owed: '0.00', withheld: '20.00' }],
    ]);
    expect(() => journalOf(plain({ ...withheld, withheldAccountId: null }))).toThrow('W20 has no account for what is withheld');
  });
  it('use tax is owed by the buyer and borne by the cost', () => {
    const bill = plain(rule('UT', '7', '0', true), { tax: '0', gross: '100.00' });
    expect(accounts(bill)).toEqual([
      ['expense', '107.00', '0'],
      ['owed', '0', '7.00'],
      ['payable', '0', '100.00'],
    ]);
    expect(journalOf(bill).taxes).toEqual([{ taxCodeId: 'UT', net: '100.00', tax: '7.00', reclaimed: '0.00', owed: '7.00', withheld: '0.00' }]); // prettier-ignore
  });
  const accounts = (bill: PostingBill) => journalOf(bill).lines.map((l) => [l.accountId, l.debit, l.credit]);
  it('keeps tax that cannot be reclaimed with the expense', () =>
    expect(accounts(plain(rules[3]!))).toEqual([
      ['expense', '120.00', '0'],
      ['payable', '0', '120.00'],
    ]));
  it('splits tax that can be reclaimed in part', () =>
    expect(accounts(plain(rules[4]!))).toEqual([
      ['expense', '110.00', '0'],
      ['tax', '10.00', '0'],
      ['payable', '0', '120.00'],
    ]));
  it('owes and reclaims reverse charge tax at once', () =>
    expect(accounts(plain(rules[5]!, { tax: '0', gross: '100.00' }))).toEqual([
      ['expense', '100.00', '0'],
      ['tax', '20.00', '0'],
      ['owed', '0', '20.00'],
      ['payable', '0', '100.00'],
    ]));
  it('keeps reverse charge tax that cannot be reclaimed with the expense', () =>
    expect(accounts(plain(rules[6]!, { tax: '0', gross: '100.00' }))).toEqual([
      ['expense', '110.00', '0'],
      ['tax', '10.00', '0'],
      ['owed', '0', '20.00'],
      ['payable', '0', '100.00'],
    ]));
  it('is refused for a reverse charge code without an account for the tax owed', () =>
    expect(() => journalOf(plain({ ...rules[5]!, outputAccountId: null }, { tax: '0', gross: '100.00' }))).toThrow(
      'RC has no account for the tax that is owed',
    ));
  it('takes the tax out of prices that include it', () =>
    expect(accounts(plain(rules[0]!, { pricesIncludeTax: true, gross: '100.00', tax: '16.67' }))).toEqual([
      ['expense', '83.33', '0'],
      ['tax', '16.67', '0'],
      ['payable', '0', '100.00'],
    ]));
  it('is refused when lines and tax are not the total', () =>
    expect(() => journalOf(plain(rules[0]!, { gross: '119.00' }))).toThrow('make 120'));
});

it('the cents left over in base currency go to their account, and every other entry stays at the rate', () => {
  const line = (id: string, of: string) => ({ id, description: id, amount: of, accountId: 'cost', bearer: bearerOf({}), rule: rule('Z0', '0') }); // prettier-ignore
  // Three times 0.05 at 0.5 is 0.025: 0.03 each, 0.09 in all, where 0.15 is 0.08.
  const bill: PostingBill = {
    kind: 'invoice',
    currency: 'EUR',
    baseCurrency: 'GBP',
    rate: '0.5',
    tax: '0',
    gross: '0.15',
    pricesIncludeTax: false,
    supplierId: 's',
    supplierName: 'S',
    invoiceNumber: '1',
    payableAccountId: 'payable',
    lines: ['a', 'b', 'c'].map((id) => line(id, '0.05')),
  };
  const shown = (more: Partial<PostingBill>) =>
    journalOf({ ...bill, ...more }).lines.map((l) => [l.accountId, Number(l.debit) - Number(l.credit), Number(l.currencyAmount)]);
  expect(shown({ roundingAccountId: 'rounding' })).toEqual([
    ['cost', 0.03, 0.05],
    ['cost', 0.03, 0.05],
    ['cost', 0.03, 0.05],
    ['rounding', -0.01, 0],
    ['payable', -0.08, -0.15],
  ]);
  expect(shown({}).map((l) => l[1])).toEqual([0.02, 0.03, 0.03, -0.08]);
  expect(shown({ roundingAccountId: 'rounding', kind: 'credit-note' }).map((l) => l[1])).toEqual([-0.03, -0.03, -0.03, 0.01, 0.08]);
  expect(shown({ roundingAccountId: 'rounding', currency: 'GBP', rate: '1' })).toHaveLength(4);
});
