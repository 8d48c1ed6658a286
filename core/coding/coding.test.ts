import { describe, expect, it } from 'vitest';
import { codingFields } from '../bills/index.ts';
import { Memory, suggest, sure, withFollowing, type Coding, type LineToCode, type RateCode, type Suggestions, type With } from './index.ts';

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
const usual: Partial<Coding> = { accountId: 'usual', costCentreId: 'c9', taxCodeId: 's20' };
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
const one = (of: LineToCode, memory: Memory, own: Partial<Coding> | null = null) => suggest([of], memory, own, codes)[0]!;
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
  it('is none where nothing is known', () => expect(Object.values(one(line('Compost'), posted())).flat()).toEqual([]));
  it('words of two letters, numbers and accents do not count', () =>
    expect(
      one(line('Pépinière à 12 l'), posted(['12 l of it', 'other'], ...times(3, ['pepiniere 99', 'media'] as [string, string])))
        .accountId[0]!.id,
    ).toBe('media'));
});

describe('what goes with what is suggested', () => {
  const nothing = Object.fromEntries(codingFields.map((f) => [f, []])) as unknown as Suggestions;
  const going = new Map<string, With[]>([
    ['media', [{ field: 'taxCodeId', id: 'r5' }]],
    ['gone', [{ field: 'taxCodeId', id: 'closed' }]],
    ['c7', [{ field: 'dimension1', id: 'roof' }]],
    ['roof', [{ field: 'dimension2', id: 'appeal' }]],
  ]);
  const given = (of: Partial<Suggestions>, taxRate: string | null = null) =>
    withFollowing([line('Compost', { taxRate })], [{ ...nothing, ...of }], going, codes)[0]!;
  const suggested = (account: string, tax: string | null, taxRate: string | null = null) =>
    given({ accountId: [{ id: account, share: 0.9, why: 'x' }], taxCodeId: tax ? [{ id: tax, share: 0.97, why: 'y' }] : [] }, taxRate)
      .taxCodeId;
  it('is the account’s usual tax code where nothing else says one, no surer than the account', () =>
    expect(suggested('media', null)).toEqual([{ id: 'r5', share: 0.9, why: 'Usual for this account' }]));
  it('gives way to what was posted, and to the rate that the page states; a closed one is not suggested', () => {
    expect(suggested('media', 's20')).toEqual([{ id: 's20', share: 0.97, why: 'y' }]);
    expect(suggested('media', null, '20')).toEqual([]);
    expect(suggested('media', null, '5.00')[0]!.id).toBe('r5');
    expect(suggested('gone', null)).toEqual([]);
  });
  it('is a cost centre’s project before what was posted with others, and with it the project’s fund', () => {
    const found = given({ costCentreId: [{ id: 'c7', share: 0.8, why: 'x' }], dimension1: [{ id: 'other', share: 0.5, why: 'y' }] });
    expect(found.dimension1.map((o) => [o.id, Number(o.share.toFixed(2))])).toEqual([['roof', 0.8], ['other', 0.1]]); // prettier-ignore
    expect(found.dimension1[0]!.why).toBe('Goes with this cost centre');
    expect(found.dimension2).toEqual([{ id: 'appeal', share: 0.8, why: 'Goes with another dimension' }]);
    expect(given({ costCentreId: [{ id: 'c8', share: 0.8, why: 'x' }] }).dimension1).toEqual([]);
  });
});

describe('a company’s own dimension', () => {
  const memory = posted(...times(8, ['Roof timber', 'repairs', { dimension1: 'roof' }] as [string, string, object]));
  const timber = line('Roof timber');
  it('is suggested as lines like it had it, only where the company uses it, and no surer than the account', () => {
    const [own] = suggest([timber], memory, null, codes, ['dimension1']);
    expect(own!.dimension1[0]).toMatchObject({ id: 'roof', why: '8 of 8 lines like this from this supplier; last 8 Nov 2026' });
    expect(own!.dimension1[0]!.share).toBeLessThanOrEqual(own!.accountId[0]!.share);
    expect(suggest([timber], memory, null, codes)[0]!.dimension1).toEqual([]);
  });
  it('that most lines like it have not is not filled in', () => {
    const rarely = posted(...times(6, ['Roof timber', 'repairs'] as [string, string]), ['Roof timber', 'repairs', { dimension1: 'roof' }]);
    expect(suggest([timber], rarely, null, codes, ['dimension1'])[0]!.dimension1[0]!.share).toBeLessThan(sure);
  });
});
