import fc from 'fast-check';
import type pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dec } from '@ledgerline/core/money';
import { sendOn } from '../bills/moves.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { postBills } from './posting.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const refused = (constraint: string) => expect.objectContaining({ constraint });

/** Several statements in one transaction. */
async function together<T>(work: (sql: (text: string, ...values: unknown[]) => Promise<pg.QueryResult>) => Promise<T>): Promise<T> {
  const client = await world.owner.connect();
  try {
    await client.query('begin');
    const result = await work((text, ...values) => client.query(text, values));
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback');
    throw error;
  } finally {
    client.release();
  }
}
const entryOf = async (bill: string) =>
  (await world.rows('select * from journal_entry where source_id = $1 and reverses is null', bill))[0];
const itemOf = async (bill: string) => (await world.rows('select * from open_item where source_id = $1 order by id', bill))[0];
/** Takes an entry back: mirrored lines, an item the other way round, both settled, the bill reversed. `share` of each line. */
const reverse = (bill: string, { share = '1', stage = 'reversed' } = {}) =>
  together(async (sql) => {
    const { rows } = await sql(
      `insert into journal_entry (id, company_id, year, month, entry_date, source_type, source_id, reverses, description, currency, rate, posted_by)
       select gen_random_uuid(), company_id, year, month, entry_date, source_type, source_id, id, 'Reversal of ' || description, currency, rate, posted_by
       from journal_entry where source_id = $1 and reverses is null returning id, reverses`,
      bill,
    );
    const { id, reverses } = rows[0];
    await sql(
      `insert into journal_line (id, company_id, entry_id, position, account_id, cost_centre_id, tax_code_id, supplier_id, bill_line_id, description, debit, credit, currency_amount)
       select gen_random_uuid(), company_id, $1, position, account_id, cost_centre_id, tax_code_id, supplier_id, bill_line_id, description, credit * $3::numeric, debit * $3::numeric, -currency_amount * $3::numeric from journal_line where entry_id = $2`,
      id,
      reverses,
      share,
    );
    await sql(
      `with back as (insert into open_item (id, company_id, supplier_id, source_type, source_id, entry_id, due_date, currency, amount, base_amount)
         select gen_random_uuid(), company_id, supplier_id, source_type, source_id, $2, due_date, currency, -amount, -base_amount from open_item where entry_id = $1 returning *)
       insert into settlement (id, company_id, owed_item_id, back_item_id, amount) select gen_random_uuid(), o.company_id, o.id, back.id, o.amount from back join open_item o on o.entry_id = $1`,
      reverses,
      id,
    );
    await sql('update bill set stage = $2 where id = $1', bill, stage);
  });

describe('the source of an entry', () => {
  it('is a kind and an id, and posts once', async () => {
    const id = await world.build.bill({ stage: 'posted' });
    expect(await entryOf(id)).toMatchObject({ source_type: 'bill', source_id: id, bill_id: id, reverses: null });
    const again = `insert into journal_entry (id, company_id, year, month, entry_date, source_type, source_id, description, currency, posted_by) select gen_random_uuid(), company_id, year, month, entry_date, $2, $1, 'x', 'GBP', posted_by from journal_entry where source_id = $1`;
    await expect(world.rows(again, id, 'bill')).rejects.toEqual(refused('journal_entry_once'));
    await expect(world.rows(again, id, 'magic')).rejects.toEqual(refused('journal_entry_source_known'));
  });
  it('of kind bill is a bill that is there', async () => {
    await world.build.bill({ stage: 'posted' });
    await expect(
      together((sql) =>
        sql(
          `insert into journal_entry (id, company_id, year, month, entry_date, source_type, source_id, description, currency, posted_by) select gen_random_uuid(), company_id, year, month, entry_date, 'bill', gen_random_uuid(), 'x', 'GBP', posted_by from journal_entry limit 1`,
        ),
      ),
    ).rejects.toEqual(refused('journal_entry_bill'));
  });
});

describe('a reversal', () => {
  it('takes back exactly what it reverses, settles both items, and the bill is reversed for good', async () => {
    const id = await world.build.bill({ stage: 'posted', lines: [{ amount: '70.00' }, { amount: '30.00', account: '6010' }] });
    await reverse(id);
    expect(
      await world.rows(
        'select sum(debit - credit) as n from journal_line l join journal_entry e on e.id = l.entry_id where e.source_id = $1 group by account_id',
        id,
      ),
    ).toEqual(Array.from({ length: 4 }, () => ({ n: '0.00' })));
    expect(await world.rows('select amount, settled from open_item where source_id = $1 order by amount', id)).toEqual([
      { amount: '-120.00', settled: '-120.00' },
      { amount: '120.00', settled: '120.00' },
    ]);
    await expect(world.rows(`update bill set stage = 'posted' where id = $1`, id)).rejects.toEqual(refused('posted_rows_stay'));
  });
  it('of another amount is refused when the transaction ends', async () => {
    const id = await world.build.bill({ stage: 'posted' });
    await expect(reverse(id, { share: '0.5' })).rejects.toEqual(refused('journal_entry_mirrors'));
  });
  it('happens once', async () => {
    const id = await world.build.bill({ stage: 'posted' });
    await reverse(id);
    await expect(reverse(id)).rejects.toEqual(refused('journal_entry_reversed_once'));
  });
  it('and the stage of the bill belong together', async () => {
    const id = await world.build.bill({ stage: 'posted' });
    await expect(world.rows(`update bill set stage = 'reversed' where id = $1`, id)).rejects.toEqual(refused('bill_reversed_is_whole'));
    await expect(reverse(id, { stage: 'paid' })).rejects.toEqual(refused('bill_reversed_is_whole'));
  });
  it('frees the invoice number for a bill that is posted rightly', async () => {
    const id = await world.build.bill({ stage: 'posted', number: 'AGAIN-1' });
    await reverse(id);
    const next = await world.build.bill({ number: 'AGAIN-1' });
    expect((await world.show(next)).exceptions).toEqual([]);
    await world.run(sendOn, await world.as('Ines Okafor'), { id: next }, { rowVersion: 1 });
  });
});

describe('settlements', () => {
  const settle = (owed: string, back: string, amount: string) =>
    world.rows(
      `insert into settlement (id, company_id, owed_item_id, back_item_id, amount) values (gen_random_uuid(), $1, $2, $3, $4) returning id`,
      world.master.company('MBG').id,
      owed,
      back,
      amount,
    );
  const pair = async () => {
    const owed = await world.build.bill({ stage: 'posted' });
    const back = await world.build.bill({ stage: 'posted', kind: 'credit-note', dueDate: null, lines: [{ amount: '50.00' }] });
    return { owed: (await itemOf(owed)).id, back: (await itemOf(back)).id };
  };
  const settled = async (id: string) => (await world.rows('select settled from open_item where id = $1', id))[0].settled;

  it('in part keep their sums in both items, and give them back when undone', async () => {
    const { owed, back } = await pair();
    const [{ id }] = await settle(owed, back, '40.00');
    await settle(owed, back, '20.00');
    expect([await settled(owed), await settled(back)]).toEqual(['60.00', '-60.00']);
    await world.rows('update settlement set undone_at = now() where id = $1', id);
    expect([await settled(owed), await settled(back)]).toEqual(['20.00', '-20.00']);
  });
  it('never settle more than there is, the wrong way round, or nothing', async () => {
    const { owed, back } = await pair();
    await expect(settle(owed, back, '60.01')).rejects.toEqual(refused('open_item_settled_within'));
    await expect(settle(back, owed, '1.00')).rejects.toEqual(refused('settlement_of_two_sides'));
    await expect(settle(owed, back, '0')).rejects.toEqual(refused('settlement_positive'));
    await expect(settle(owed, back, '-5')).rejects.toEqual(refused('settlement_positive'));
  });
  it('of two suppliers or two currencies are refused', async () => {
    const { owed } = await pair();
    const euro = await world.build.bill({ stage: 'posted', kind: 'credit-note', dueDate: null, currency: 'EUR' });
    await expect(settle(owed, (await itemOf(euro)).id, '1.00')).rejects.toEqual(refused('settlement_of_two_sides'));
  });
  it('cannot be changed, removed, or their sums written by hand', async () => {
    const { owed, back } = await pair();
    const [{ id }] = await settle(owed, back, '40.00');
    await expect(world.rows('update settlement set amount = 1 where id = $1', id)).rejects.toEqual(refused('posted_rows_stay'));
    await expect(world.rows('delete from settlement where id = $1', id)).rejects.toEqual(refused('posted_rows_stay'));
    await expect(world.rows('update open_item set settled = 5 where id = $1', owed)).rejects.toEqual(refused('posted_rows_stay'));
  });
  it('two at once on the last pound: one of them', async () => {
    const { owed, back } = await pair();
    const both = await Promise.allSettled([settle(owed, back, '60.00'), settle(owed, back, '60.00')]);
    expect(both.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await settled(owed)).toBe('60.00');
  });
  it('in any sequence of settling and undoing, every item holds the sum of its settlements, never beyond its amount', async () => {
    const ids = await world.build.bills(3, (i) => ({ stage: 'posted', lines: [{ amount: `${(i + 1) * 25}.00` }] }));
    const credits = await world.build.bills(2, (i) => ({
      stage: 'posted',
      kind: 'credit-note',
      dueDate: null,
      lines: [{ amount: `${(i + 1) * 30}.00` }],
    }));
    const owed = await Promise.all(ids.map(async (id) => await itemOf(id))),
      back = await Promise.all(credits.map(async (id) => await itemOf(id)));
    const live: { id: string; o: number; b: number; amount: string }[] = [];
    const total = (list: typeof live) => list.reduce((n, s) => n.plus(s.amount), dec(0));
    await fc.assert(
      fc.asyncProperty(
        fc.oneof(fc.record({ o: fc.nat(2), b: fc.nat(1), pence: fc.integer({ min: 1, max: 5000 }) }), fc.record({ undo: fc.nat(20) })),
        async (step) => {
          if ('undo' in step) {
            const [gone] = live.splice(step.undo % Math.max(1, live.length), 1);
            if (gone) await world.rows('update settlement set undone_at = now() where id = $1', gone.id);
          } else {
            const amount = dec(step.pence).div(100).toFixed(2),
              room = (item: { amount: string }, mine: typeof live) => dec(item.amount).abs().minus(total(mine)).gte(amount);
            const fits =
              room(
                owed[step.o],
                live.filter((s) => s.o === step.o),
              ) &&
              room(
                back[step.b],
                live.filter((s) => s.b === step.b),
              );
            const done = settle(owed[step.o].id, back[step.b].id, amount);
            if (fits) live.push({ id: (await done)[0].id, o: step.o, b: step.b, amount });
            else await expect(done).rejects.toEqual(refused('open_item_settled_within'));
          }
          for (const [i, item] of owed.entries()) expect(dec(await settled(item.id)).eq(total(live.filter((s) => s.o === i)))).toBe(true);
          for (const [i, item] of back.entries())
            expect(dec(await settled(item.id)).eq(total(live.filter((s) => s.b === i)).negated())).toBe(true);
        },
      ),
      { numRuns: 60, endOnFailure: true },
    );
  });
});

describe('posting', () => {
  const post = async (body: object) => world.run(postBills, await world.as('Halina Voss'), {}, body);
  it('a key that was used with another date is refused', async () => {
    const id = await world.build.bill({ stage: 'approved' });
    await post({ key: 'one-date-only', billIds: [id], entryDate: testDay });
    await expect(post({ key: 'one-date-only', billIds: [id], entryDate: '2026-11-22' })).rejects.toThrow(
      `made before with the date ${testDay}`,
    );
    expect((await post({ key: 'one-date-only', billIds: [id], entryDate: testDay })).posted).toHaveLength(1);
  });
  it('a total of zero is refused before it is sent on', async () => {
    const id = await world.build.bill({ lines: [{ amount: '10.00' }, { amount: '-10.00' }] });
    const said = (await world.show(id)).exceptions.map((e) => e.code);
    expect(said).toEqual(['total-zero']);
    await expect(world.run(sendOn, await world.as('Ines Okafor'), { id }, { rowVersion: 1 })).rejects.toThrow('The total is zero');
  });
  it('reverse charge is owed and reclaimed, and a code without an account for what is owed cannot be made', async () => {
    const id = await world.build.bill({ stage: 'posted', lines: [{ amount: '100.00', code: 'RC20' }], tax: '0.00' });
    const { id: entry } = await entryOf(id);
    expect(
      (
        await world.rows(
          'select a.code, l.debit, l.credit from journal_line l join ledger_account a on a.id = l.account_id where entry_id = $1 order by position',
          entry,
        )
      ).map((l) => [l.code, l.debit, l.credit]),
    ).toEqual([
      ['6000', '100.00', '0'],
      ['1800', '20.00', '0'],
      ['2200', '0', '20.00'],
      ['2100', '0', '100.00'],
    ]);
    await expect(world.rows(`update tax_code set output_account_id = null where reverse_charge`)).rejects.toEqual(
      refused('tax_code_reverse_charge_owed'),
    );
  });
  it('numbers above 99,999 are written whole, and lists go on in their order', async () => {
    const numbers = (await world.rows(`select entry_number(2026, n) as number from unnest(array[7, 99999, 100000, 1234567]) n`)).map(
      (r) => r.number,
    );
    expect(numbers).toEqual(['2026-00007', '2026-99999', '2026-100000', '2026-1234567']);
  });
});
