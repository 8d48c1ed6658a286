import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makeWorld, type World } from '../testing/world.ts';
import { listEntries } from './search.ts';

/** Whatever way the database takes, the journal's list is what a slow look through all entries would give, page by page. */
let world: World;
interface Plain {
  id: string;
  year: number;
  number: number;
  description: string;
  accounts: string[];
}
let entries: Plain[] = [];
const accounts: string[] = [];
beforeAll(async () => {
  world = await makeWorld();
  const own = world.master.company('MBG');
  // Few accounts are on all bills, one on every third with many lines, one on a single bill, one on none.
  await world.build.bills(36, (i) => ({
    number: `${['Fern', 'Moss', 'Oak'][i % 3]}-${100 + i}`,
    stage: 'posted',
    entryDate: i % 4 === 0 ? '2025-12-30' : '2026-11-23',
    lines: [
      { amount: `${10 + i}.00` },
      ...(i % 3 === 0 ? Array.from({ length: 6 }, () => ({ amount: '1.00', account: '6010' })) : []),
      ...(i === 7 ? [{ amount: '2.00', account: '6300' }] : []),
    ],
  }));
  for (const code of ['6000', '6010', '6300', '1200', '2100']) accounts.push(own.account(code));
  entries = await world.rows(
    `select e.id, e.year, e.number, e.description, array_agg(distinct l.account_id::text) as accounts from journal_entry e join journal_line l on l.entry_id = e.id group by e.id`,
  );
});
afterAll(() => world.close());

const has = (word: string, e: Plain): boolean => {
  if (e.description.toLowerCase().includes(word.toLowerCase()) && !/^\d{4}-\d+$/.test(word)) return true;
  const [, year, digits] = /^(?:(\d{4})-)?0*(\d{1,9})$/.exec(word) ?? [];
  return Boolean(digits) && e.number === Number(digits) && (!year || e.year === Number(year));
};
const word = fc.constantFrom('fern', 'OAK', 'moss-1', 'invoice', '7', '2026-00003', '2025-1', '2024-00001', 'nowhere', '%', '12');
const limits = fc.record({ walked: fc.integer({ min: 1, max: 40 }), few: fc.integer({ min: 1, max: 40 }) });

it(
  'is the same as looking through all entries',
  () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(word, { maxLength: 2 }),
        fc.option(fc.nat(4)),
        fc.integer({ min: 1, max: 15 }),
        limits,
        async (words, at, limit, how) => {
          const account = at === null ? undefined : accounts[at];
          const should = entries
            .filter((e) => words.every((w) => has(w, e)) && (!account || e.accounts.includes(account)))
            .sort((a, b) => b.year - a.year || b.number - a.number);
          const asked = { q: words.join(' '), account, limit };
          const companyId = world.master.company('MBG').id;
          const first = await listEntries(world.database.db, companyId, asked, null, how);
          expect(first.map((r) => r.row.id)).toEqual(should.slice(0, limit).map((e) => e.id));
          const last = first.at(-1);
          if (!last) return;
          const next = await listEntries(world.database.db, companyId, asked, last, how);
          expect(next.map((r) => r.row.id)).toEqual(should.slice(limit, 2 * limit).map((e) => e.id));
        },
      ),
      { numRuns: 300 },
    ),
  60_000,
);
