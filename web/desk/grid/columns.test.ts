import fc from 'fast-check';
import { expect, it } from 'vitest';
import { emptyCells } from '@ledgerline/core/bills';
import type { Choice } from '@ledgerline/contract';
import { choosable, hideable, menuWidth, numberWidth, placeColumns, standingOf, standingsOf, stands } from './columns';

const choice: Choice = { id: 'k', code: '6040', name: 'Irrigation and watering parts', detail: null, terms: null } as never;
const line = (more: object) =>
  ({
    ...emptyCells(),
    id: 'a',
    marks: {},
    kind: 'line',
    description: 'Pump',
    quantity: '7',
    unit: null,
    unitPrice: '588.00',
    amount: '4116.00',
    accountId: 'k',
    costCentreId: null,
    taxCodeId: null,
    ...more,
  }) as never;
type OfBill = Parameters<typeof placeColumns>[0];
const bill = (...lines: object[]): OfBill => ({ currency: 'GBP', lines: lines.map(line), dimensions: [], exceptions: [] });
const width = (text: string, size: number) => text.length * size * 0.5;
const place = (b: ReturnType<typeof bill>, room: number) =>
  Object.fromEntries(placeColumns(b, (id) => (id ? choice : null), room, width).map((c) => [c.id, c.width]));

it('account shows code and name where there is room, and the description has the rest', () => {
  const wide = place(bill({}), 1200);
  expect(wide['accountId']).toBe(Math.min(230, Math.ceil(width('6040 Irrigation and watering parts', 14) + 14)));
  expect(Object.values(wide).reduce((a, b) => a + b, numberWidth + menuWidth)).toBe(1200);
});
it('where there is too little, account and cost centre give, not the figures', () => {
  const [wide, narrow] = [place(bill({}), 1200), place(bill({}), 480)];
  for (const id of ['quantity', 'unitPrice', 'amount', 'taxCodeId']) expect(narrow[id], id).toBe(wide[id]);
  expect(narrow['accountId']!).toBeLessThan(wide['accountId']!);
});
it('has a column for units only where a row has one', () => {
  expect(place(bill({}), 800)['unit']).toBeUndefined();
  expect(place(bill({}, { id: 'b', unit: 'h' }), 800)['unit']).toBeGreaterThan(0);
});
it('item code and unit give way to codes and names, unless they are asked for', () => {
  const coded = bill({ code: 'QG-604', unit: 'pc' });
  const ids = (room: number, shown: 'code'[] = []) =>
    placeColumns(coded, () => choice, room, width, { widths: {}, hidden: [], shown }).map((c) => c.id);
  expect(ids(1200)).toEqual(expect.arrayContaining(['code', 'unit']));
  expect(ids(640)).not.toContain('code');
  expect(ids(640, ['code'])).toContain('code');
});
it('a column stands as somebody wants it, and as usual when that is taken back', () => {
  const nobody = { widths: {}, hidden: [], shown: [] };
  for (const id of hideable)
    for (const first of standingsOf(id))
      for (const then of standingsOf(id)) {
        const one = { ...nobody, ...stands(nobody, id, first) },
          two = { ...one, ...stands(one, id, then) };
        expect([standingOf(one, id), standingOf(two, id)], id).toEqual([first, then]);
        const there = placeColumns(bill({}), () => null, 2000, width, two).some((c) => c.id === id);
        expect(there, `${id} ${then}`).toBe(then === 'always');
        if (then === standingsOf(id)[0]) expect(two).toEqual(nobody);
      }
});
it('no column is below its least, and all fit wherever that is possible', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 300, max: 2000 }),
      fc.array(fc.string({ maxLength: 60 }), { minLength: 1, maxLength: 5 }),
      (room, texts) => {
        const placed = placeColumns(
          bill(...texts.map((description, i) => ({ id: String(i), description, unitPrice: '9'.repeat(i * 4 + 1) }))),
          () => choice,
          room,
          width,
        );
        for (const c of placed) expect(c.width, c.id).toBeGreaterThanOrEqual(c.least);
        const sum = placed.reduce((n, c) => n + c.width, numberWidth + menuWidth),
          fixed = placed.reduce(
            (n, c) => n + (['accountId', 'costCentreId', 'description'].includes(c.id) ? c.least : c.width),
            numberWidth + menuWidth,
          );
        expect(sum).toBeLessThanOrEqual(Math.max(room, fixed) + 2);
      },
    ),
  );
});
it('what somebody sized stays so wide, what they left out is not there', () => {
  const of = (view: Parameters<typeof placeColumns>[4], room = 480) => placeColumns(bill({}), () => choice, room, width, view);
  const sized = of({ widths: { accountId: 200, amount: 10 }, hidden: ['quantity'], shown: [] });
  expect(sized.find((c) => c.id === 'accountId')!.width).toBe(200);
  expect(sized.find((c) => c.id === 'amount')!.width, 'never below its least').toBe(62);
  expect(sized.some((c) => c.id === 'quantity')).toBe(false);
});

const own: OfBill['dimensions'] = [
  { field: 'dimension1', name: 'Project', always: false },
  { field: 'dimension2', name: 'Fund', always: false },
];
it('a company’s own dimension is there where a row has one or is asked for one, and stands before the tax', () => {
  const shown = (b: OfBill, names: ('dimension1' | 'dimension2')[] = []) =>
    placeColumns({ ...b, dimensions: own }, () => choice, 1600, width, { widths: {}, hidden: [], shown: names }).map((c) => c.id);
  expect(shown(bill({}))).not.toContain('dimension1');
  expect(shown(bill({ dimension1: 'p' })).slice(-3)).toEqual(['costCentreId', 'dimension1', 'taxCodeId']);
  const wanted = { ...bill({}), exceptions: [{ path: 'a.dimension2' }] as never };
  expect(shown(wanted).slice(-2)).toEqual(['dimension2', 'taxCodeId']);
  expect(shown(bill({}), ['dimension2'])).toContain('dimension2');
});
it('a company’s own dimension can be asked for always, and never be left out', () => {
  expect(choosable(own).map((c) => c.head)).toEqual(expect.arrayContaining(['Project', 'Fund']));
  expect(choosable([]).some((c) => c.id === 'dimension1')).toBe(false);
  expect(standingsOf('dimension1')).toEqual(['needed', 'always']);
});
