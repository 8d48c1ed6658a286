import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { postBills } from '../ledger/posting.ts';
import { makeWorld, sentAndApproved, testDay, type World } from '../testing/world.ts';
import { saidOf, verifyBooks } from './verify.ts';

let world: World;
const posted: string[] = [];
beforeAll(async () => {
  world = await makeWorld();
  const supplier = world.someSupplier('MBG')!;
  for (const number of ['VE-20411', 'VE-30412']) {
    const id = await world.build.bill({ supplier, number });
    await sentAndApproved(world, id);
    posted.push(id);
  }
  await world.run(postBills, await world.as('Halina Voss'), {}, { key: 'verify-the-books', billIds: posted, entryDate: testDay });
  await sentAndApproved(world, await world.build.bill({ supplier, number: 'VE-40413' }));
});
afterAll(() => world.close());

const books = () => verifyBooks(world.database.db);
const faults = async () => (await books()).flatMap((b) => b.checks.flatMap((c) => c.wrong.map((w) => `${b.name}: ${w}`)));
const entry = async (bill: string) => (await world.rows('select * from journal_entry where bill_id = $1', bill))[0];
/** What somebody does who gets round the database's own guards, and how it is put back. */
async function tampered(table: string, change: string, back: string, values: unknown[], found: () => Promise<void>): Promise<void> {
  const by = async (statement: string) => {
    await world.rows(`alter table ${table} disable trigger user`);
    await world.rows(statement, ...values);
    await world.rows(`alter table ${table} enable trigger user`);
  };
  await by(change);
  await found();
  await by(back);
  expect(await faults()).toEqual([]);
}

describe('looking through the books', () => {
  it('says what was looked at, and that it is right', async () => {
    const all = await books();
    const mbg = all.find((b) => b.name === 'Marrowby Botanic Gardens')!;
    expect(mbg.checks.map((c) => [c.what.split(' ')[0], c.what.split(' ')[1], c.wrong])).toEqual([
      ['acts', 'in', []],
      ['entries', 'whose', []],
      ['years', 'whose', []],
      ['supplier', 'accounts', []],
      ['posted', 'bills,', []],
    ]);
    // Two entries of one year, on one supplier's account, of two bills; the third bill is not posted.
    expect(mbg.checks.slice(1).map((c) => c.looked)).toEqual([2, 1, 1, 2]);
    expect(all.at(-1)!.name).toBe('All companies');
    const { lines, right } = saidOf(all);
    expect([right, lines.at(-1)]).toEqual([true, 'All is as it was written.']);
    expect(lines).toContain('  right  2 entries whose debits and credits are the same');
  });
  it('finds an act that was changed', async () => {
    const [act] = await world.rows(
      `select id, seq, note, company_id from event where company_id is not null and verb = 'posted' order by seq limit 1`,
    );
    await tampered(
      'event',
      `update event set note = 'nothing' where id = $1`,
      `update event set note = null where id = $1`,
      [act.id],
      async () => expect(await faults()).toEqual([`Marrowby Botanic Gardens: Act ${act.seq} was changed, or one before it is missing.`]),
    );
  });
  it('finds an amount that was changed: the entry does not balance, and the supplier’s account says something else', async () => {
    const { id } = await entry(posted[0]!);
    const [line] = await world.rows('select id, credit from journal_line where entry_id = $1 and supplier_id is not null', id);
    await tampered(
      'journal_line',
      `update journal_line set credit = credit - 1 where id = $1`,
      `update journal_line set credit = credit + 1 where id = $1`,
      [line.id],
      async () => {
        const found = await faults();
        expect(found[0]).toMatch(/^Marrowby Botanic Gardens: Entry \d{4}-0000\d has debits of GBP 120\.00 and credits of GBP 119\.00\.$/);
        expect(found[1]).toMatch(/: the supplier’s account says GBP 240\.00, the control account GBP 239\.00\.$/);
        expect(found[2]).toMatch(/All companies: The kept sum account_month/);
        expect(found).toHaveLength(3);
      },
    );
  });
  it('finds a number that is missing', async () => {
    const { id, number } = await entry(posted[1]!);
    await tampered(
      'journal_entry',
      `update journal_entry set number = number + 5 where id = $1`,
      `update journal_entry set number = number - 5 where id = $1`,
      [id],
      async () =>
        expect(await faults()).toEqual([
          `Marrowby Botanic Gardens: ${testDay.slice(0, 4)} has 2 entries, numbered from 1 to ${number + 5}.`,
        ]),
    );
  });
  it('finds a bill that says it is posted and is in no entry', async () => {
    const [open] = await world.rows(`select id from bill where invoice_number = 'VE-40413'`);
    await tampered(
      'bill',
      `update bill set stage = 'posted', posted_at = approved_at where id = $1`,
      `update bill set stage = 'approved' where id = $1`,
      [open.id],
      async () => expect(await faults()).toContain('Marrowby Botanic Gardens: VE-40413 is posted and has no entry.'),
    );
  });
  it('names the first of many faults and counts the rest', () => {
    const wrong = Array.from({ length: 3 }, (_, i) => `Fault ${i}.`);
    const { lines, right } = saidOf([{ name: 'One', checks: [{ what: 'things', looked: 9, wrong }] }]);
    expect([right, lines]).toEqual([
      false,
      ['One', '  WRONG  9 things', ...wrong.map((w) => `         ${w}`), expect.stringContaining('Keep a copy')],
    ]);
  });
});
