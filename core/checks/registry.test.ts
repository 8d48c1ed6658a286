import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dimensionFields, type DimensionField } from '../bills/index.ts';
import {
  checkOf,
  checks,
  runChecks,
  stopsCoding,
  type CheckedBill,
  type CheckedLine,
  type Dimension,
  type Facts,
  type Setting,
} from './index.ts';

/** Any bill that a page or a person may make, and any facts beside it. */
const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });
const amount = fc.integer({ min: -500_000, max: 500_000 }).map((minor) => (minor / 100).toFixed(2));
const day = fc.constantFrom('2026-01-31', '2026-02-28', '2026-11-25', '2027-03-01');
const iban = fc.constantFrom('GB12XQZB00123456987654', 'GB37XQZB00161331926819', 'DE30000000990532013000');
const name = fc.constantFrom('Quillhaven Glass Ltd', 'Mossgarth & Sons', '<b>Ltd</b>');
const line = (id: string): fc.Arbitrary<CheckedLine> =>
  fc.record({
    id: fc.constant(id),
    kind: fc.constantFrom('line', 'charge', 'stock', 'asset'),
    description: fc.constantFrom('', 'Pots', 'Delivery'),
    quantity: maybe(amount),
    unitPrice: maybe(amount),
    priceQuantity: fc.constantFrom('1', '100', '0'),
    discountPercent: maybe(fc.constantFrom('0', '10', '100', '150')),
    amount: maybe(amount),
    accountId: maybe(fc.constantFrom('a', 'old-account')),
    costCentreId: maybe(fc.constantFrom('c', 'old-centre')),
    taxCodeId: maybe(fc.constantFrom('s20', 'rc', 'old-code', 'unknown')),
    ...(Object.fromEntries(dimensionFields.slice(2).map((f) => [f, fc.constant(null)])) as Record<
      Exclude<DimensionField, 'dimension1' | 'dimension2'>,
      fc.Arbitrary<null>
    >),
    dimension1: maybe(fc.constantFrom('p', 'old-project')),
    dimension2: maybe(fc.constant('f')),
  });
const lines = fc.nat(4).chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => line(`l${i}`)))) as fc.Arbitrary<CheckedLine[]>;
const paths = ['gross', 'net', 'issueDate', 'l0.amount', 'l1.quantity', 'l9.amount', 'lines'];
const bill: fc.Arbitrary<CheckedBill> = fc.record({
  kind: fc.constantFrom('invoice', 'credit-note'),
  supplierId: maybe(fc.constant('s')),
  supplierName: maybe(name),
  supplierTaxId: maybe(fc.constant('GB918223107')),
  supplierIban: maybe(iban),
  invoiceNumber: maybe(fc.constant('A-1')),
  issueDate: maybe(day),
  terms: fc.constantFrom('30 days', null),
  purchaseOrder: fc.constantFrom('PO-1', null),
  dueDate: maybe(day),
  currency: fc.constantFrom('GBP', 'EUR', 'JPY'),
  net: maybe(amount),
  tax: maybe(amount),
  gross: maybe(amount),
  pricesIncludeTax: fc.boolean(),
  lines,
  unsure: fc.subarray(paths),
});
const rules = new Map(
  [
    { id: 's20', code: 'S20', rate: '20', recoverable: '100', reverseCharge: false },
    { id: 'rc', code: 'RC', rate: '20', recoverable: '50', reverseCharge: true },
  ].map((rule) => [rule.id, rule]),
);
const facts: fc.Arbitrary<Facts> = fc.record({
  baseCurrency: fc.constant('GBP'),
  taxRules: fc.constant(rules),
  taxTolerance: maybe(fc.constantFrom('0.05', '1')),
  needsCostCentre: fc.constantFrom(new Set<string>(), new Set(['a'])),
  closed: fc.constant(new Set(['old-account', 'old-centre', 'old-code', 'old-project'])),
  dimensions: fc.subarray<Dimension>([
    { field: 'dimension1', name: 'Project', always: false },
    { field: 'dimension2', name: 'EU fund', always: true },
  ]),
  needsDimensions: fc.constantFrom(new Map(), new Map([['a', ['dimension1', 'dimension2'] as const]])),
  combinations: fc.uniqueArray(
    fc.record({
      whenField: fc.constantFrom('accountId' as const, 'dimension1' as const),
      when: fc.constant([{ from: '61', to: '62', open: true }]),
      onlyField: fc.constantFrom('taxCodeId' as const, 'dimension2' as const),
      only: fc.constantFrom([{ from: 'S20', to: 'S20', open: false }], [{ from: 'X', to: 'X', open: true }]),
    }),
    { selector: (c) => `${c.whenField} ${c.onlyField} ${c.only[0]!.from}` },
  ),
  codes: fc.constant(new Map([['a', '6100'], ['p', '62'], ['f', 'F-1'], ['s20', 'S20'], ['rc', 'RC']])), // prettier-ignore
  assetAccounts: fc.constant(new Set(['b'])),
  stockRows: fc.constantFrom(new Set<string>(), new Set(['l1'])),
  gathering: fc.constantFrom(new Set<string>(), new Set(['a'])),
  duplicate: maybe(fc.constant('A-1 of 3 Nov 2026')),
  hasRate: fc.boolean(),
  charges: fc.constantFrom<Facts['charges'][]>(
    new Map(),
    new Map([['l1', { trouble: '2.00 is still to be shared.', places: [{ goods: 'Pots', stops: 'needs a cost centre.' }] }]]),
  ),
  samePaper: maybe(fc.constant({ id: crypto.randomUUID(), company: null, number: 'A-2', day: '2026-11-03' })),
  layoutNew: maybe(fc.constant(5)),
  verified: fc.constantFrom(new Set<string>(), new Set(['not-as-known s'])),
  waiting: fc.constantFrom(new Map(), new Map([['not-as-known s', 'New sender and new look.']])),
  closedMonth: maybe(fc.constant('2026-10')),
  overBudget: fc.subarray<Facts['overBudget'][number]>([{ row: 'l0', account: '6100', centre: null, year: 2026, planned: '100.00', over: '5.00' }]), // prettier-ignore
  chargedTwice: fc.subarray<Facts['chargedTwice'][number]>([
    { row: 'l1', from: '2026-11-01', to: '2026-11-30', other: { id: crypto.randomUUID(), number: 'X-1', from: '2026-10-15', to: '2026-11-14' } }, // prettier-ignore
  ]),
  turnTaken: maybe(fc.constant({ name: 'Rent', day: '2026-11-01', id: crypto.randomUUID(), number: null })),
  addressedTo: maybe(fc.constant('Marrowby Nursery Trading Ltd')),
  bank: maybe(fc.record({ supplier: name, verified: fc.array(iban, { maxLength: 2 }), waiting: fc.array(iban, { maxLength: 1 }) })),
  blocked: maybe(fc.record({ supplier: name, because: fc.constant('a claim is open') })),
  sameTaxId: maybe(name),
  sameIban: maybe(name),
  differences: fc.uniqueArray(
    fc.record({
      field: fc.constantFrom('grossTotal', 'netTotal', 'invoiceNumber'),
      path: fc.constantFrom('gross', 'net', 'invoiceNumber'),
      data: amount,
      page: amount,
      sentence: fc.constant('They differ.'),
      choosable: fc.boolean(),
    }),
    { selector: (d) => d.field, maxLength: 3 },
  ),
  today: fc.constant('2026-11-20'),
  known: maybe(fc.record({ name: fc.constant('Fernwick'), currency: fc.constantFrom('GBP', 'EUR'), taxIds: fc.array(fc.string(), { maxLength: 2 }), habit: maybe(fc.record({ bills: fc.constant(24), least: fc.constant('1.00'), most: fc.constant('10.00'), totals: fc.constant(['1.00', '10.00']) })), numbers: fc.constantFrom<string[][]>([], ['A-1', 'A-2', 'A-3', 'A-4', 'A-5', 'A-6']), lastPrices: fc.constant(new Map()) })), // prettier-ignore
  sender: maybe(fc.record({ domain: fc.constant('x.example'), known: fc.boolean() })),
  alike: maybe(fc.record({ id: fc.uuid(), number: fc.constant('X-1'), issueDate: maybe(fc.constant('2026-11-02')), how: fc.constant('with a zero more or less') })), // prettier-ignore
  elsewhere: maybe(
    fc.record({
      id: maybe(fc.uuid()),
      company: maybe(fc.constant('Nursery')),
      supplier: fc.constant('Fernwick'),
      number: fc.constant('X-1'),
    }),
  ),
  orders: fc.record({
    unknown: maybe(fc.record({ number: fc.string(), of: maybe(fc.string()), maybe: maybe(fc.constant('PO-1')) })),
    closed: fc.uniqueArray(fc.string(), { maxLength: 2 }),
    otherCurrency: maybe(fc.record({ order: fc.string(), currency: fc.constant('EUR') })),
    compared: fc.constant([]),
    beside: fc.constant([]),
  }),
  awaits: maybe(fc.record({ by: fc.constant('2026-11-11'), missed: fc.boolean() })),
  broken: fc.uniqueArray(
    fc.record({ rule: fc.constantFrom('BR-1', 'BR-2'), path: fc.constant('lines'), sentence: fc.constant('Something is missing.') }),
    { selector: (b) => b.rule },
  ),
});
const settings = fc
  .dictionary(fc.constantFrom(...checks.map((c) => c.code)), fc.constantFrom<Setting>('stops', 'asks', 'off'))
  .map((of) => new Map(Object.entries(of)));
const place = (e: { code: string; path: string; key: string }) => `${e.code} ${e.path} ${e.key}`;

describe('whatever a bill holds, the checks', () => {
  it('find each thing once, so that settling one never settles another', () =>
    fc.assert(
      fc.property(bill, facts, (of, known) => {
        const found = runChecks(of, known).map(place);
        expect(new Set(found).size, found.join('; ')).toBe(found.length);
      }),
    ));
  it('say it in a sentence, at a place that the bill has', () =>
    fc.assert(
      fc.property(bill, facts, (of, known) => {
        const ids = new Set(of.lines.map((l) => l.id));
        for (const e of runChecks(of, known)) {
          expect(e.sentence).toMatch(/^\p{Lu}.*[.?]$|^<b>Ltd/u);
          const [first, cell] = e.path.split('.');
          if (cell !== undefined) expect(ids.has(first!), `${e.code} at ${e.path}`).toBe(true);
          expect(e.sentence).not.toMatch(/\bnull\b|undefined|NaN|Infinity/);
        }
      }),
    ));
  it('find the same at each run, in the same order, and change nothing', () =>
    fc.assert(
      fc.property(bill, facts, (of, known) => {
        const before = structuredClone(of);
        expect(runChecks(of, known)).toEqual(runChecks(of, known));
        expect(of).toEqual(before);
      }),
    ));
  it('take only what a company may set: severities change, findings stay, what posting needs is never off', () =>
    fc.assert(
      fc.property(bill, facts, settings, (of, known, set) => {
        const plain = runChecks(of, known);
        const asSet = runChecks(of, known, set);
        const off = (code: string) => checkOf(code)!.adjustable && set.get(code) === 'off';
        // What is off until a company wants it is not among the plain ones.
        const usual = asSet.filter((e) => checkOf(e.code)!.severity !== 'off');
        expect(usual.map(place)).toEqual(plain.filter((e) => !off(e.code)).map(place));
        for (const e of asSet) {
          const check = checkOf(e.code)!;
          expect(e.severity).toBe(check.adjustable ? (set.get(e.code) ?? check.severity) : check.severity);
        }
      }),
    ));
  it('stop posting for what rows are coded with, and for nothing else', () =>
    fc.assert(
      fc.property(bill, facts, (of, known) => {
        const said = new Set(
          runChecks(of, known)
            // What a charge is shared over is looked at as the goods' own rows are.
            .filter((e) => checkOf(e.code)!.scope === 'lines' && e.code !== 'charge-shared')
            .map((e) => e.sentence),
        );
        const stops = stopsCoding(of.lines, known);
        if (stops !== null) expect(said).toContain(stops);
        const coded = /closed on|gathers|not in use|needs a cost centre|needs a project|needs an? EU fund|must be/;
        expect(stops !== null, [...said].join(' ')).toBe([...said].some((sentence) => coded.test(sentence)));
      }),
    ));
  it('look only at the facts that they name', () =>
    fc.assert(
      fc.property(bill, facts, (of, known) => {
        for (const check of checks) {
          const asked = new Set<string>();
          const watched = new Proxy(known, {
            get: (target, fact) => (asked.add(String(fact)), Reflect.get(target, fact) as unknown),
          });
          check.run(of, watched);
          for (const fact of asked) expect(check.needs as readonly string[], `${check.code} asks ${fact}`).toContain(fact);
        }
      }),
    ));
});
