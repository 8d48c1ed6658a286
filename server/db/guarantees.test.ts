import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { postBills } from '../ledger/posting.ts';
import { arrive, invoiceOf, makeWorld, readyToPost, testDay, type World } from '../testing/world.ts';

let world: World;
let posted: { billId: string; entryId: string };
const sql = (text: string, ...values: unknown[]) => world.owner.query(text, values);
const refused = (constraint: string) => expect.objectContaining({ constraint });

beforeAll(async () => {
  world = await makeWorld();
  const id = await readyToPost(world, invoiceOf(0, { number: 'G-1', lines: 3 }));
  posted = (await world.run(postBills, await world.as('Halina Voss'), {}, { key: 'guarantees-1', billIds: [id], entryDate: testDay }))
    .posted[0]!;
});
afterAll(() => world.close());

describe('raw SQL cannot break the books', () => {
  it('an entry cannot be changed', () =>
    expect(sql(`update journal_entry set description = 'x' where id = $1`, posted.entryId)).rejects.toEqual(refused('posted_rows_stay')));
  it('an entry cannot be removed', () =>
    expect(sql('delete from journal_entry where id = $1', posted.entryId)).rejects.toEqual(refused('posted_rows_stay')));
  it('entries cannot be emptied out', () => expect(sql('truncate journal_entry cascade')).rejects.toEqual(refused('posted_rows_stay')));
  it('a line of an entry cannot be changed', () =>
    expect(sql('update journal_line set debit = debit + 1 where entry_id = $1 and debit > 0', posted.entryId)).rejects.toEqual(
      refused('posted_rows_stay'),
    ));
  it('a line of an entry cannot be removed', () =>
    expect(sql('delete from journal_line where entry_id = $1', posted.entryId)).rejects.toEqual(refused('posted_rows_stay')));
  it('a line cannot be added to a posted entry', () =>
    expect(
      sql(
        `insert into journal_line (id, company_id, entry_id, position, account_id, description, debit, currency_amount) select gen_random_uuid(), company_id, entry_id, 99, account_id, 'late', 1, 1 from journal_line where entry_id = $1 limit 1`,
        posted.entryId,
      ),
    ).rejects.toEqual(refused('posted_rows_stay')));
  it('a posted bill cannot be changed', () =>
    expect(sql('update bill set gross = gross + 1 where id = $1', posted.billId)).rejects.toEqual(refused('posted_rows_stay')));
  it('a posted bill cannot be removed', () =>
    expect(sql('delete from bill where id = $1', posted.billId)).rejects.toEqual(refused('posted_rows_stay')));
  it('a posted bill cannot go back to an earlier stage', () =>
    expect(sql(`update bill set stage = 'approved' where id = $1`, posted.billId)).rejects.toEqual(refused('posted_rows_stay')));
  it('the lines of a posted bill cannot be changed', () =>
    expect(sql('update bill_line set amount = 1 where bill_id = $1', posted.billId)).rejects.toEqual(refused('bill_sent_stays')));
  it('what is owed cannot be changed', () =>
    expect(sql('update open_item set amount = 1 where bill_id = $1', posted.billId)).rejects.toEqual(refused('posted_rows_stay')));
  it('more than is owed cannot be settled', () =>
    expect(sql('update open_item set settled = amount + 1 where bill_id = $1', posted.billId)).rejects.toEqual(
      refused('posted_rows_stay'),
    ));
  it('an original cannot be changed', () => expect(sql(`update file set bytes = 'x'`)).rejects.toEqual(refused('file_stays')));
  it('bytes cannot be kept under another hash', () =>
    expect(sql(`insert into file (sha256, bytes, size) values (repeat('0', 64), 'x', 1)`)).rejects.toEqual(refused('file_is_its_hash')));

  const entry = `insert into journal_entry (id, company_id, year, month, entry_date, source_type, source_id, description, currency, posted_by) select gen_random_uuid(), company_id, $1, $2, $3, 'payment', gen_random_uuid(), 'x', 'GBP', posted_by from journal_entry limit 1 returning id, number`;
  it('an entry without lines is refused when the transaction ends', () =>
    expect(sql(entry, 2026, 11, '2026-11-02')).rejects.toEqual(refused('journal_entry_balances')));
  it('an entry that does not balance is refused', async () => {
    const client = await world.owner.connect();
    try {
      await client.query('begin');
      const { rows } = await client.query(entry, [2026, 11, '2026-11-02']);
      await client.query(
        `insert into journal_line (id, company_id, entry_id, position, account_id, description, debit, credit, currency_amount) select gen_random_uuid(), company_id, $1, p, account_id, 'x', case p when 1 then 10 else 0 end, case p when 2 then 9 else 0 end, 0 from (select company_id, account_id from journal_line limit 1) l, generate_series(1, 2) p`,
        [rows[0].id],
      );
      await expect(client.query('commit')).rejects.toEqual(refused('journal_entry_balances'));
    } finally {
      await client.query('rollback');
      client.release();
    }
  });
  it('an entry in a closed period is refused', async () => {
    await sql('update period set open = false where year = 2026 and month = 3');
    await expect(sql(entry, 2026, 3, '2026-03-02')).rejects.toEqual(refused('journal_entry_period_open'));
  });
  it('an entry dated outside its period is refused', () =>
    expect(sql(entry, 2026, 11, '2026-10-02')).rejects.toEqual(refused('journal_entry_period_of_date')));
  it('a bill cannot become posted without its entry', async () => {
    const id = await readyToPost(world, invoiceOf(1, { number: 'G-2' }));
    await expect(sql(`update bill set stage = 'posted' where id = $1`, id)).rejects.toEqual(refused('bill_posted_is_whole'));
  });
  it('nobody can stand as the approver of a bill they sent', async () => {
    const id = await arrive(world, invoiceOf(2, { number: 'G-3' }));
    const clerk = await world.as('Ines Okafor');
    await expect(sql(`update bill set stage = 'coded', sent_by = $2, approved_by = $2 where id = $1`, id, clerk.me.id)).rejects.toEqual(
      refused('bill_not_own_approval'),
    );
  });
  it('a number given up by a rolled back transaction is given again: there is no gap', async () => {
    const client = await world.owner.connect();
    await client.query('begin');
    const lost = (await client.query(entry, [2026, 11, '2026-11-02'])).rows[0].number as number;
    await client.query('rollback');
    client.release();
    const id = await readyToPost(world, invoiceOf(4, { number: 'G-4' }));
    const {
      posted: [next],
    } = await world.run(postBills, await world.as('Halina Voss'), {}, { key: 'guarantees-2', billIds: [id], entryDate: testDay });
    expect(next!.number).toBe(lost);
  });
  it('a line cannot point to another company’s account', async () => {
    const id = await arrive(world, invoiceOf(7, { number: 'G-5' }));
    await expect(
      sql('update bill_line set account_id = $2 where bill_id = $1', id, world.master.company('MNT').account('6000')),
    ).rejects.toEqual(refused('bill_line_account'));
  });
});
