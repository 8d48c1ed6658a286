import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { numberKey } from '@ledgerline/core/matching';
import { arrive, invoiceOf, makeWorld, type World } from '../testing/world.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
const said = async (id: string) => (await world.show(id)).exceptions.map((e) => [e.code, e.other, e.sentence]);

describe('a bill that may be another', () => {
  it('of its supplier with the same total and a number alike stops, and names the other', async () => {
    const first = await world.build.bill({ supplier, number: 'MGM-20410', stage: 'coded' });
    const again = await world.build.bill({ supplier, number: 'MGM-204100' });
    expect(await said(again)).toEqual([
      ['duplicate-alike', first, 'MGM-20410 of this supplier (2 Nov 2026) is this number with a zero more or less, with the same total.'],
    ]); // prettier-ignore
    expect(await said(await world.build.bill({ supplier, number: 'MGM-2O41O' }))).toMatchObject([['duplicate-alike', first, expect.stringContaining('a letter for a digit')]]); // prettier-ignore
    // Another total is another bill; what was discarded is none.
    expect(await said(await world.build.bill({ supplier, number: 'MGM-2041O', lines: [{ amount: '101.00' }] }))).toEqual([]);
    await world.rows(`update bill set stage = 'discarded' where id = any($1)`, [again]);
  });
  it('with the same total, day and number under another supplier asks; in another company, too, without its id', async () => {
    const [other] = await world.rows(`select name from supplier where company_id = $1 and name <> $2 limit 1`, world.master.company('MBG').id, supplier); // prettier-ignore
    const of = { lines: [{ amount: '77.70' }], issueDate: '2026-11-09' };
    const first = await world.build.bill({ ...of, supplier: other.name, number: 'AA-20331' });
    expect(await said(await world.build.bill({ ...of, supplier, number: 'BB-2' }))).toEqual([]);
    expect(await said(await world.build.bill({ ...of, supplier, number: 'AA-20331' }))).toEqual([
      ['amount-elsewhere', first, `AA-20331 of ${other.name} has the same total and date. Is it the same bill?`],
    ]);
    const theirs = { lines: [{ amount: '88.80' }], issueDate: '2026-11-09', company: 'MNT' };
    await world.build.bill({ ...theirs, number: 'CC-20317' });
    const ours = async (number: string) => said(await world.build.bill({ ...theirs, company: 'MBG', supplier, number }));
    expect(await ours('DD-20318')).toEqual([]);
    expect(await ours('CC-20317')).toMatchObject([['amount-elsewhere', null, expect.stringContaining(' has CC-20317 of ')]]);
  });
  it('is said of the earlier one, too, as soon as the later one comes: in lists as at the desk', async () => {
    const sent = invoiceOf(3, { number: 'TW-70417' });
    const first = await arrive(world, sent);
    const kept = async () => (await world.rows(`select code from bill_exception where bill_id = $1 and state = 'open' and code = 'duplicate-alike'`, first)).length; // prettier-ignore
    expect(await kept()).toBe(0);
    await arrive(world, { ...sent, number: 'TW-704170' });
    expect(await kept()).toBe(1);
  });
  it('is looked up by what the database keeps of its number: the same as is computed', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.stringMatching(/^[A-Za-z0-9 OIL\-/.]{0,14}$/), { minLength: 1, maxLength: 20 }), async (numbers) => {
        const { rows } = await world.database.db.execute<{ key: string }>(
          sql`select replace(translate(regexp_replace(regexp_replace(upper(coalesce(n, '')), '[^A-Z0-9]', '', 'g'), '^[A-Z]+(?=.*[0-9])', ''), 'OIL', '011'), '0', '') as key
              from unnest(${sql.param(numbers)}::text[]) with ordinality as t(n, i) order by i`,
        );
        expect(rows.map((r) => r.key)).toEqual(numbers.map(numberKey));
      }),
      { numRuns: 40 },
    );
    const [stored] = await world.rows(`select pg_get_expr(adbin, adrelid) as made from pg_attrdef d join pg_attribute a on a.attrelid = d.adrelid and a.attnum = d.adnum where a.attname = 'number_key'`); // prettier-ignore
    for (const part of ['OIL', '[^A-Z0-9]', '^[A-Z]+(?=.*[0-9])']) expect(stored.made).toContain(part);
  });
});

describe('what is usual with a supplier', () => {
  const line = (unitPrice: string, amount: string) => ({ item: 'BULB', description: 'Bulbs', quantity: '10', unitPrice, amount });
  it('a total far above its last bills, and what costs more than last time, are asked about', async () => {
    const [of] = await world.rows(`select name from supplier where company_id = $1 and name <> $2 order by code desc limit 1`, world.master.company('MBG').id, supplier); // prettier-ignore
    for (let i = 0; i < 6; i++) await world.build.bill({ supplier: of.name, number: `H-${i}`, stage: 'coded', issueDate: `2026-10-0${i + 1}`, lines: [line('2.00', '20.00')] }); // prettier-ignore
    const id = await world.build.bill({ supplier: of.name, number: 'H-9', lines: [line('7.00', '70.00')] });
    // 84.00 with tax against 24.00 each time; seven instead of two.
    expect((await world.show(id)).exceptions.map((e) => e.sentence)).toEqual([
      `The total of 84.00 is far above the last 6 bills of ${of.name}: 24.00 to 24.00.`,
      'Row 1 costs 250% more than on 6 Oct 2026: 2 then.',
    ]);
  });
  it('a date that is far off, and another currency', async () => {
    const codes = async (wish: object) => (await said(await world.build.bill({ supplier, ...wish }))).map(([code]) => code);
    expect(await codes({ issueDate: '2027-11-02', dueDate: '2027-12-02' })).toContain('date-future');
    expect(await codes({ issueDate: '2025-01-02', dueDate: '2025-02-02' })).toContain('date-old');
    expect(await codes({ currency: 'EUR' })).toContain('currency-unexpected');
  });
});
