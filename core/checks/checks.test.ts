import { describe, expect, it } from 'vitest';
import { codingOf } from '../bills/index.ts';
import { checkOf, checks, runChecks, type CheckedBill, type Facts, type Setting } from './index.ts';

const rules = new Map([['s20', { id: 's20', code: 'S20', rate: '20', recoverable: '100', reverseCharge: false }]]);
const rules20 = rules.get('s20')!;
const facts: Facts = {
  baseCurrency: 'GBP',
  taxRules: rules,
  taxTolerance: null,
  needsCostCentre: new Set(['a']),
  dimensions: [],
  needsDimensions: new Map(),
  combinations: [],
  codes: new Map(),
  gathering: new Set(['top']),
  assetAccounts: new Set(['machine']),
  stockRows: new Set(['l1']),
  closed: new Set(['old-account', 'old-centre', 'old-code']),
  duplicate: null,
  hasRate: true,
  charges: new Map(),
  closedMonth: null,
  overBudget: [],
  chargedTwice: [],
  turnTaken: null,
  addressedTo: null,
  bank: { supplier: 'Quillhaven', verified: ['GB33QUIL00000000000001'], waiting: ['GB33QUIL00000000000002'] },
  blocked: null,
  sameTaxId: null,
  sameIban: null,
  differences: [],
  broken: [],
  awaits: null,
  today: '2026-11-20',
  known: null,
  sender: null,
  alike: null,
  elsewhere: null,
  samePaper: null,
  layoutNew: null,
  waiting: new Map(),
  verified: new Set(),
  orders: { unknown: null, closed: [], otherCurrency: null, compared: [], beside: [] },
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
  terms: null,
  purchaseOrder: null,
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
      ...codingOf({ accountId: 'a', costCentreId: 'c', taxCodeId: 's20' }),
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
describe('what was found and what was expected', () => {
  const of = (...args: Parameters<typeof run>) => run(...args).map((e) => [e.code, e.found, e.expected]);
  it('are said by themselves where each is one value', () => {
    expect(of({ tax: '10.00', gross: '110.00' })).toEqual([['tax-unexplained', '10.00', '20.00']]);
    expect(of({ supplierIban: 'GB33QUIL00000000000009' })).toEqual([
      ['bank-differs', 'GB33 QUIL 0000 0000 0000 09', 'GB33 QUIL 0000 0000 0000 01'],
    ]);
    const alike = { id: 'b2', number: 'Q-01', issueDate: null, how: 'with a zero more' };
    expect(of({ invoiceNumber: 'Q-1' }, { alike })).toEqual([['duplicate-alike', 'Q-1', 'Q-01']]);
    expect(of({}, { orders: { ...facts.orders, otherCurrency: { order: '7', currency: 'EUR' } } })).toEqual([
      ['order-currency', 'GBP', 'EUR'],
    ]);
  });
  it('are nothing where something is missing', () => expect(of(oneLine({ accountId: null }))).toEqual([['account-missing', null, null]]));
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

it('a supplier that is blocked stops its bills, with the reason, until somebody overrules it; for another reason anew', () => {
  const [found] = run({}, { blocked: { supplier: 'Quillhaven', because: 'court case' } });
  expect(found).toMatchObject({
    code: 'supplier-blocked',
    path: 'supplierId',
    severity: 'stops',
    settledBy: ['overrule'],
    key: 'court case',
  });
  expect(found!.sentence).toBe('Quillhaven is blocked: court case.');
});

describe('the company’s own dimensions', () => {
  const project = { field: 'dimension1', name: 'Project', always: false } as const;
  const eu = { field: 'dimension2', name: 'EU fund', always: true } as const;
  const said = (...args: Parameters<typeof run>) => run(...args).map((e) => [e.path, e.sentence, e.many]);
  it('are asked for where the account needs one, or always, and by their name', () => {
    const needs = { dimensions: [project, eu], needsDimensions: new Map([['a', ['dimension1' as const]]]) };
    expect(said({}, needs)).toEqual([
      ['l1.dimension1', 'Row 1 needs a project.', 'need a project'],
      ['l1.dimension2', 'Row 1 needs an EU fund.', 'need an EU fund'],
    ]);
    expect(codes(oneLine({ accountId: 'b', dimension2: 'f' }), needs)).toEqual([]);
    // A dimension that is closed is not asked for, and rows of text alone need none.
    expect(codes({}, { ...needs, dimensions: [project], needsDimensions: new Map([['a', ['dimension3' as const]]]) })).toEqual([]);
    expect(codes({ lines: [good.lines[0]!, { ...good.lines[0]!, id: 't', kind: 'text', amount: null }] }, needs)).toHaveLength(2);
  });
  it('that are closed on the bill’s day are told', () =>
    expect(said(oneLine({ dimension1: 'p' }), { dimensions: [project], closed: new Set(['p']) })).toEqual([
      ['l1.dimension1', 'Row 1 has a project that is closed on the bill’s day. Choose another.', 'have a project that is closed on the bill’s day. Choose another'],
    ])); // prettier-ignore
});

describe('what goes together', () => {
  const ranges = (from: string, to = from, open = false) => [{ from, to, open }];
  const rule = { whenField: 'accountId', when: ranges('6100', '6199', true), onlyField: 'taxCodeId', only: ranges('Z0') } as const;
  const codesOf = new Map([['a', '61005'], ['b', '6200'], ['s20', 'S20'], ['z0', 'Z0']]); // prettier-ignore
  const found = (line: Parameters<typeof oneLine>[0]) => run(oneLine(line), { combinations: [rule], codes: codesOf });
  it('is told at the cell that does not fit, with the rule', () =>
    expect(found({})[0]).toMatchObject({
      code: 'combination-barred',
      path: 'l1.taxCodeId',
      severity: 'stops',
      sentence: 'Row 1 has tax code S20. Where the account is 6100 to 6199, the tax code must be Z0.',
    }));
  it('is no matter outside the rule’s range, or where a cell is empty: that is another check’s', () => {
    expect(found({ accountId: 'b' })).toEqual([]);
    const rules = new Map([['z0', { ...rules20, id: 'z0', code: 'Z0' }], ['s20', rules20]]); // prettier-ignore
    expect(run(oneLine({ taxCodeId: 'z0' }), { combinations: [rule], codes: codesOf, taxRules: rules }).map((e) => e.code)).not.toContain(
      'combination-barred',
    );
    expect(found({ taxCodeId: null }).map((e) => e.code)).toEqual(['tax-code-missing']);
  });
  it('holds for a company’s own dimensions, by their names', () => {
    const own = { whenField: 'dimension1', when: ranges('P1'), onlyField: 'costCentreId', only: ranges('3', '3', true) } as const;
    const more = {
      combinations: [own],
      dimensions: [{ field: 'dimension1', name: 'Project', always: false } as const],
      codes: new Map([['p', 'P1'], ['c', '200']]), // prettier-ignore
    };
    expect(run(oneLine({ dimension1: 'p' }), more)[0]!.sentence).toBe(
      'Row 1 has cost centre 200. Where the project is P1, the cost centre must be 3*.',
    );
  });
});

describe('fields that a company may want', () => {
  const wanted = ['order-missing', 'terms-missing', 'quantity-missing'] as const;
  it('are not asked for until it says so', () => expect(codes()).toEqual([]));
  it('stop or ask as it says, where they are empty', () => {
    const all = new Map(wanted.map((code): [string, Setting] => [code, 'stops']));
    expect(codes({}, {}, all)).toEqual([...wanted]);
    expect(run({}, {}, new Map([['order-missing', 'asks']]))).toMatchObject([{ path: 'purchaseOrder', severity: 'asks' }]);
    const [line] = good.lines;
    const whole = { purchaseOrder: 'PO-1', terms: '30 days', lines: [{ ...line!, quantity: '1', unitPrice: '100.00' }] };
    expect(codes(whole, {}, all)).toEqual([]);
    // Freight has no quantity.
    const charge = { ...whole, lines: [...whole.lines, { ...line!, id: 'l2', kind: 'charge' as const, amount: '0.00' }] };
    expect(codes(charge, {}, all)).not.toContain('quantity-missing');
  });
});
