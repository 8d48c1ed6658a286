import { describe, expect, it } from 'vitest';
import { Memory, suggest, sure, withAccountTax, type Coding, type LineToCode, type RateCode } from './index.ts';

const codes: RateCode[] = [
  { id: 's20', rate: '20', reverseCharge: false },
  { id: 'r5', rate: '5', reverseCharge: false },
  { id: 'rc', rate: '20', reverseCharge: true },
];
const line = (description: string, more: Partial<LineToCode> = {}): LineToCode => ({
  supplierId: 'moss',
  code: null,
  description,
  amount: '40.00',
  day: '2026-11-20',
  taxRate: null,
  ...more,
});
const usual: Coding = { accountId: 'usual', costCentreId: 'c9', taxCodeId: 's20' };
/** Lines as they were posted, in this order, a day after the other from 1 November. */
function posted(...lines: [description: string, accountId: string, more?: Partial<LineToCode & Coding>][]): Memory {
  const memory = new Memory();
  for (const [i, [description, accountId, more = {}]] of lines.entries())
    memory.learn({ ...line(description), day: `2026-11-${String(i + 1).padStart(2, '0')}`, ...more } as LineToCode & { day: string }, {
      accountId,
      costCentreId: 'c1',
      taxCodeId: 's20',
      ...more,
    });
  return memory;
}
const one = (of: LineToCode, memory: Memory, own: Coding | null = null) => suggest([of], memory, own, codes)[0]!;
const times = <T>(n: number, of: T): T[] => Array.from({ length: n }, () => of);

describe('a suggestion for a line', () => {
  it('is how this supplier’s lines like it were coded, sure after a few, and says how many and when last', () => {
    const found = one(
      line('Compost, peat-free, 50 l'),
      posted(...times(8, ['Peat-free compost 40 l', 'media'] as [string, string]), ['Delivery', 'carriage']),
    );
    expect(found.accountId[0]).toMatchObject({ id: 'media', why: '8 of 8 lines like this from this supplier; last 8 Nov 2026' });
    expect(found.accountId[0]!.share).toBeGreaterThan(sure);
    expect(found.costCentreId[0]!.id).toBe('c1');
  });
  it('is not sure where lines were coded both ways', () => {
    const both = one(line('Garden fork'), posted(['Garden fork', 'assets'], ['Garden fork', 'tools'], ['Garden fork', 'tools']));
    expect(both.accountId.map((o) => o.id)).toEqual(['tools', 'assets']);
    expect(both.accountId[0]).toMatchObject({ why: '2 of 3 lines like this from this supplier; last 3 Nov 2026' });
    expect(both.accountId[0]!.share).toBeLessThan(sure);
  });
  it('goes with a change of mind after a few lines, and not after one', () => {
    const old = times(10, ['Line rental', 'phone'] as [string, string]);
    expect(one(line('Line rental'), posted(...old, ['Line rental', 'it'])).accountId[0]!.id).toBe('phone');
    expect(one(line('Line rental'), posted(...old, ...times(3, ['Line rental', 'it'] as [string, string]))).accountId[0]!.id).toBe('it');
  });
  it('weighs the item code over the words', () =>
    expect(
      one(
        line('Something new', { code: 'X-1' }),
        posted(...times(3, ['Old name', 'coded', { code: 'X-1' }] as [string, string, object]), ['Something new', 'worded']),
      ).accountId[0],
    ).toMatchObject({ id: 'coded', why: '3 of 3 lines with item code X-1 from this supplier; last 3 Nov 2026' }));
  it('takes the cost centre that goes with the account', () => {
    const memory = posted(
      ...times(6, ['Hose', 'water', { costCentreId: 'c-water' }] as [string, string, object]),
      ...times(3, ['Spade', 'tools', { costCentreId: 'c-tools' }] as [string, string, object]),
    );
    expect(one(line('Spade, steel'), memory)).toMatchObject({ accountId: [{ id: 'tools' }, {}], costCentreId: [{ id: 'c-tools' }, {}] });
  });
  it('of a supplier with no lines is what it is set to, before what others’ lines say', () => {
    const memory = posted(...times(9, ['Compost', 'media', { supplierId: 'other' }] as [string, string, object]));
    expect(one(line('Compost'), memory, usual).accountId[0]).toMatchObject({ id: 'usual', why: 'Usual for this supplier' });
    expect(one(line('Compost'), memory).accountId[0]).toMatchObject({
      id: 'media',
      why: '9 of 9 lines with “compost” from other suppliers; last 9 Nov 2026',
    });
  });
  it('takes the rate that the page states, and says so', () => {
    const memory = posted(...times(6, ['Compost', 'media'] as [string, string]));
    expect(one(line('Compost', { taxRate: '5.00' }), memory).taxCodeId).toEqual([{ id: 'r5', share: 0.97, why: '5% on the page' }]);
    expect(one(line('Compost', { taxRate: '20' }), memory).taxCodeId[0]).toMatchObject({
      id: 's20',
      why: expect.stringMatching(/; 20% on the page$/),
    });
  });
  it('never brings in reverse charge for a stated rate, and keeps it where it was usual', () => {
    expect(one(line('Compost', { taxRate: '20' }), posted()).taxCodeId).toMatchObject([{ id: 's20' }]);
    const before = posted(...times(5, ['Compost', 'media', { taxCodeId: 'rc' }] as [string, string, object]));
    expect(one(line('Compost', { taxRate: '20' }), before).taxCodeId[0]!.id).toBe('rc');
  });
  it('is no tax code that there is no more', () =>
    expect(one(line('Compost'), posted(['Compost', 'media', { taxCodeId: 'gone' }])).taxCodeId).toEqual([]));
  it('is none where nothing is known', () =>
    expect(one(line('Compost'), posted())).toEqual({ accountId: [], costCentreId: [], taxCodeId: [] }));
  it('words of two letters, numbers and accents do not count', () =>
    expect(
      one(line('Pépinière à 12 l'), posted(['12 l of it', 'other'], ...times(3, ['pepiniere 99', 'media'] as [string, string])))
        .accountId[0]!.id,
    ).toBe('media'));
});

describe('the usual tax code of an account', () => {
  const usualTax = new Map([['media', 'r5'], ['gone', 'closed']]); // prettier-ignore
  const suggested = (account: string, tax: string | null, taxRate: string | null = null) => {
    const of = line('Compost', { taxRate });
    const found = withAccountTax(
      [of],
      [
        {
          accountId: [{ id: account, share: 0.9, why: 'x' }],
          costCentreId: [],
          taxCodeId: tax ? [{ id: tax, share: 0.97, why: 'y' }] : [],
        },
      ],
      usualTax,
      codes,
    );
    return found[0]!.taxCodeId;
  };
  it('is taken where nothing else says one, and is no surer than the account', () =>
    expect(suggested('media', null)).toEqual([{ id: 'r5', share: 0.9, why: 'Usual for this account' }]));
  it('gives way to what was posted, and to the rate that the page states; a closed one is not suggested', () => {
    expect(suggested('media', 's20')).toEqual([{ id: 's20', share: 0.97, why: 'y' }]);
    expect(suggested('media', null, '20')).toEqual([]);
    expect(suggested('media', null, '5.00')[0]!.id).toBe('r5');
    expect(suggested('gone', null)).toEqual([]);
  });
});
