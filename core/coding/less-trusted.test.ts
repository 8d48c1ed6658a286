import { describe, expect, it } from 'vitest';
import { codingFields } from '../bills/index.ts';
import {
  Memory,
  suggest,
  withDefault,
  withItems,
  type Item,
  type LineToCode,
  type Option,
  type RateCode,
  type Suggestions,
} from './index.ts';

const codes: RateCode[] = [
  { id: 's20', rate: '20', reverseCharge: false },
  { id: 'r5', rate: '5', reverseCharge: false },
];
const line = (description: string, more: Partial<LineToCode> = {}): LineToCode => ({
  supplierId: 'power',
  code: null,
  description,
  amount: '40.00',
  day: '2026-11-20',
  taxRate: null,
  ...more,
});
const none = Object.fromEntries(codingFields.map((field) => [field, []])) as unknown as Suggestions;
const suggested = (accountId: Option[]): Suggestions => ({ ...none, accountId });
const posted = (id: string, share: number): Option => ({ id, share, why: 'posted so' });
const item = (code: string, name: string, words: string, coding: Item['coding']): Item => ({ code, name, words, coding });
const power = item('KWH', 'Electricity', 'electricity, ELEC', { accountId: 'energy', taxCodeId: 'r5' });

describe('an item', () => {
  const found = (of: LineToCode, before: Suggestions, ...items: Item[]) => withItems([of], [before], items, codes)[0]!;
  it('codes a line that says it or has its code, where nothing else is known', () => {
    expect(found(line('Electricity, May'), none, power).accountId).toEqual([
      { id: 'energy', share: 0.96, why: 'Usual for the item “Electricity”' },
    ]);
    expect(found(line('Standing charge', { code: 'ELEC-2' }), none, power).accountId[0]?.id).toBe('energy');
    expect(found(line('Water'), none, power)).toEqual(none);
    expect(found(line('Units, KWH 4210'), none, power).accountId[0]?.id).toBe('energy');
    // A code is a whole word, and a short one stands for nothing in a text.
    expect(found(line('KWHX'), none, power)).toEqual(none);
    const short = item('1', 'Sundries', 'sundries', { accountId: 'sundry' });
    expect(found(line('100 pots, 1 box'), none, short)).toEqual(none);
    expect(found(line('Anything', { code: '1' }), none, short).accountId[0]?.id).toBe('sundry');
  });
  it('comes before a guess, and behind what was posted', () => {
    const before = suggested([posted('office', 0.49)]);
    expect(found(line('Electricity'), before, power).accountId.map((o) => o.id)).toEqual(['energy', 'office']);
    const after = found(line('Electricity'), suggested([posted('office', 0.7)]), power).accountId;
    expect(after.map((o) => o.id)).toEqual(['office', 'energy']);
    expect(after[1]!.share).toBeCloseTo(0.3);
  });
  it('makes what was posted the same way surer, in its own words', () => {
    expect(found(line('Electricity'), suggested([posted('energy', 0.7)]), power).accountId).toEqual([posted('energy', 0.96)]);
    expect(found(line('Electricity'), suggested([posted('energy', 0.99)]), power).accountId).toEqual([posted('energy', 0.99)]);
  });
  it('never has a tax code of another rate than the page', () => {
    expect(found(line('Electricity', { taxRate: '20' }), none, power).taxCodeId).toEqual([]);
    expect(found(line('Electricity', { taxRate: '5.0' }), none, power).taxCodeId[0]?.id).toBe('r5');
    expect(withItems([line('Electricity')], [none], [power], [])[0]!.taxCodeId).toEqual([]);
  });
  it('is of several the one whose name says most', () => {
    const green = item('GREEN', 'Electricity, green tariff', 'electricity green', { accountId: 'green' });
    expect(found(line('Electricity green, May'), none, power, green).accountId[0]?.id).toBe('green');
    expect(found(line('Electricity green, May'), none, green, power).accountId[0]?.id).toBe('green');
  });
});

describe('what is usual in the company', () => {
  it('fills what nothing else says, and is behind all that is trusted', () => {
    const usual = { accountId: 'other', costCentreId: 'house' };
    const [coded] = withDefault([line('Anything')], [suggested([posted('office', 0.6)])], usual, codes);
    expect(coded!.accountId.map((o) => o.id)).toEqual(['office', 'other']);
    expect(coded!.costCentreId).toEqual([{ id: 'house', share: 0.96, why: 'Usual in this company' }]);
    expect(withDefault([line('Anything')], [none], null, codes)).toEqual([none]);
  });
});

it('what is set at a supplier is as sure as it is, however unsure its account', () => {
  const memory = new Memory();
  // Others code to two accounts in turn, all in one cost centre.
  for (const [i, accountId] of ['office', 'repairs', 'office', 'repairs'].entries())
    memory.learn({ ...line('Anything'), supplierId: 'other', day: `2026-10-0${i + 1}` }, { accountId, costCentreId: 'house' });
  const [suggested] = suggest([line('Something')], memory, { costCentreId: 'glass' }, codes);
  expect(suggested!.accountId[0]!.share).toBeLessThan(0.95);
  expect(suggested!.costCentreId[0]).toMatchObject({ id: 'glass', share: 0.96 });
});
