import { describe, expect, it } from 'vitest';
import { checkOf, checks, runChecks, type CheckedBill, type Facts, type Setting } from './index.ts';

const rules = new Map([['s20', { id: 's20', code: 'S20', rate: '20', recoverable: '100', reverseCharge: false }]]);
const facts: Facts = {
  baseCurrency: 'GBP',
  taxRules: rules,
  needsCostCentre: new Set(['a']),
  gathering: new Set(['top']),
  closed: new Set(['old-account', 'old-centre', 'old-code']),
  duplicate: null,
  hasRate: true,
  addressedTo: null,
  bank: { supplier: 'Quillhaven', verified: ['GB33QUIL00000000000001'], waiting: ['GB33QUIL00000000000002'] },
  sameTaxId: null,
  sameIban: null,
  differences: [],
  broken: [],
  awaits: null,
};
const good: CheckedBill = {
  kind: 'invoice',
  supplierId: 's',
  supplierName: null,
  supplierTaxId: null,
  supplierIban: null,
  invoiceNumber: '1',
  issueDate: '2026-11-03',
  dueDate: '2026-12-03',
  currency: 'GBP',
  net: '100.00',
  tax: '20.00',
  gross: '120.00',
  pricesIncludeTax: false,
  unsure: [],
  lines: [
    {
      id: 'l1',
      kind: 'line',
      description: 'Pots',
      quantity: null,
      unitPrice: null,
      priceQuantity: '1',
      discountPercent: null,
      amount: '100.00',
      accountId: 'a',
      costCentreId: 'c',
      taxCodeId: 's20',
    },
  ],
};
const run = (bill: Partial<CheckedBill> = {}, more: Partial<Facts> = {}, settings?: Map<string, Setting>) =>
  runChecks({ ...good, ...bill }, { ...facts, ...more }, settings);
const codes = (...args: Parameters<typeof run>) => run(...args).map((e) => e.code);
const oneLine = (change: Partial<CheckedBill['lines'][number]>) => ({ lines: [{ ...good.lines[0]!, ...change }] });

describe('the registry', () => {
  it('has each code once, and says in words what it looks for', () => {
    expect(new Set(checks.map((c) => c.code)).size).toBe(checks.length);
    for (const c of checks) expect(c.what, c.code).toMatch(/^[A-Z].{8,80}[^.]$/);
    expect([checkOf('duplicate')?.scope, checkOf('nothing')]).toEqual(['supplier', undefined]);
  });
});
describe('what keeps a bill from being sent on', () => {
  it('is nothing for a whole bill', () => expect(run()).toEqual([]));
  it.each<[string, Partial<CheckedBill>]>([
    ['supplier-missing', { supplierId: null }],
    ['number-missing', { invoiceNumber: null }],
    ['date-missing', { issueDate: null }],
    ['due-missing', { dueDate: null }],
    ['due-early', { dueDate: '2026-11-01' }],
    ['total-missing', { gross: null }],
    ['total-negative', { gross: '-120.00' }],
    ['total-zero', { gross: '0.00', tax: '0', lines: [{ ...good.lines[0]!, amount: '0' }], net: '0' }],
    ['tax-missing', { tax: null, gross: '100.00' }],
    ['proof-off', { gross: '121.00' }],
    ['lines-missing', { lines: [] }],
    ['account-missing', oneLine({ accountId: null })],
    ['cost-centre-missing', oneLine({ costCentreId: null })],
    ['tax-code-missing', oneLine({ taxCodeId: null })],
    ['amount-missing', oneLine({ amount: null })],
    ['description-missing', oneLine({ description: ' ' })],
    ['account-closed', oneLine({ accountId: 'old-account' })],
    ['account-gathers', oneLine({ accountId: 'top' })],
    ['cost-centre-closed', oneLine({ costCentreId: 'old-centre' })],
    ['tax-code-closed', oneLine({ taxCodeId: 'old-code' })],
    ['tax-unexplained', { tax: '10.00', gross: '110.00' }],
    ['bank-differs', { supplierIban: 'GB33 QUIL 0000 0000 0000 09' }],
  ])('%s', (code, bill) =>
    expect(
      run(bill)
        .filter((e) => e.severity === 'stops')
        .map((e) => e.code),
    ).toContain(code),
  );
  it('a tax that the rate does not explain comes with what would explain it: the part that carries it, and the rest', () => {
    const both = new Map([...rules, ['z0', { id: 'z0', code: 'Z0', rate: '0', recoverable: '100', reverseCharge: false }]]);
    const phone = { net: '95.00', tax: '5.00', gross: '100.00', pricesIncludeTax: true };
    const [found] = run(phone, { taxRules: both });
    expect(found).toMatchObject({
      code: 'tax-unexplained',
      changes: [
        {
          kind: 'tax-parts',
          label: '30.00 S20, 70.00 Z0',
          taxCodeId: 's20',
          freeCodeId: 'z0',
          lines: [],
          parted: { line: 'l1', amount: '30.00' },
        },
      ],
    });
    expect(run(phone, { taxRules: both, closed: new Set(['z0']) })[0]!.changes).toEqual([]);
  });
  it('a credit note needs no due date', () => expect(codes({ kind: 'credit-note', dueDate: null })).toEqual([]));
  it('a number used before, or no rate for a foreign bill', () => {
    expect(codes({}, { duplicate: 'another bill' })).toEqual(['duplicate']);
    expect(codes({ currency: 'EUR' }, { hasRate: false })).toEqual(['rate-missing']);
  });
  it('names a line by its id, and its row in words', () =>
    expect(run(oneLine({ accountId: null }))).toEqual([
      expect.objectContaining({ path: 'l1.accountId', sentence: 'Row 1 needs an account.' }),
    ]));
});
describe('bank details on the page', () => {
  const asked = (supplierIban: string | null, bank = facts.bank) => run({ supplierIban }, { bank });
  it('that are verified, or not printed, ask nothing', () => {
    expect(asked('GB33QUIL00000000000001')).toEqual([]);
    expect(asked(null)).toEqual([]);
  });
  it('that are not verified stop the bill and say which account is', () =>
    expect(asked('GB33QUIL00000000000009')[0]!.sentence).toBe(
      'The page asks for payment to GB33 QUIL 0000 0000 0000 09; the verified account of Quillhaven is GB33 QUIL 0000 0000 0000 01.',
    ));
  it('that wait for a second person, or of a supplier without any, say so', () => {
    expect(asked('GB33QUIL00000000000002')[0]!.sentence).toContain('a second person still has to verify');
    expect(asked('GB33QUIL00000000000009', { supplier: 'New Ltd', verified: [], waiting: [] })[0]!.sentence).toContain(
      'no verified bank account yet',
    );
  });
  it('another IBAN is another finding', () =>
    expect(asked('GB33QUIL00000000000009')[0]!.key).not.toBe(asked('GB33QUIL00000000000008')[0]!.key));
});
describe('what asks and keeps nothing back', () => {
  it.each<[string, Partial<CheckedBill>, Partial<Facts>]>([
    ['unsure', { unsure: ['dueDate'] }, {}],
    ['company-differs', {}, { addressedTo: 'Marrowby Nursery Trading Ltd' }],
    ['tax-number-shared', {}, { sameTaxId: 'Twin Ltd' }],
    ['bank-shared', {}, { sameIban: 'Twin Ltd' }],
    ['e-invoice-rule', {}, { broken: [{ rule: 'BR-1', path: 'lines', sentence: 'Something is missing.' }] }],
  ])('%s', (code, bill, more) => expect(run(bill, more)).toEqual([expect.objectContaining({ code, severity: 'asks' })]));
});
describe('a difference between data and page', () => {
  const difference = { field: 'grossTotal', path: 'gross', data: '1120.00', page: '1130.00', sentence: 'They differ.', choosable: true };
  it('stops the bill with both values to choose from', () =>
    expect(run({}, { differences: [difference] })).toEqual([
      expect.objectContaining({
        code: 'data-differs',
        severity: 'stops',
        key: 'grossTotal',
        choices: [
          { take: 'data', label: 'Data: 1,120.00', value: '1120.00' },
          { take: 'page', label: 'Page: 1,130.00', value: '1130.00' },
        ],
      }),
    ]));
});
describe('the document of a bill that repeats', () => {
  it('is waited for until its day, missed after it, and confirmed to go on without', () => {
    const codes = (awaits: Facts['awaits']) => run({}, { awaits }).map((e) => [e.code, e.severity, e.settledBy]);
    expect(codes({ by: '2026-11-11', missed: false })).toEqual([['document-awaited', 'stops', ['confirm']]]);
    expect(codes({ by: '2026-11-11', missed: true })).toEqual([['document-missed', 'stops', ['confirm']]]);
    expect(codes(null)).toEqual([]);
  });
});
describe('a company’s settings', () => {
  it('change a severity or switch a check off where the check allows it', () => {
    const early = { dueDate: '2026-11-01' };
    expect(run(early, {}, new Map([['due-early', 'asks']]))).toEqual([expect.objectContaining({ severity: 'asks' })]);
    expect(run(early, {}, new Map([['due-early', 'off']]))).toEqual([]);
  });
  it('change nothing where posting needs it', () =>
    expect(run({ supplierId: null }, {}, new Map([['supplier-missing', 'off']]))[0]).toMatchObject({ severity: 'stops' }));
});
