import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { parseSearch, type BillsQuery } from '@ledgerline/contract';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { listBills } from './search.ts';

/** Whatever way the database takes, the list is what a slow look through all bills would give, page by page. */
let world: World;
interface Plain {
  id: string;
  stage: string;
  kind: string;
  currency: string;
  name: string;
  invoice_number: string;
  gross: string;
  due: string | null;
  hands: string;
  posted: string | null;
  created: string;
}
let bills: Plain[] = [];
beforeAll(async () => {
  world = await makeWorld();
  await world.build.bills(90, (i) => ({
    number: `${['AB', 'INV', 'x'][i % 3]}-${1000 + i * 7}`,
    stage: (['read', 'coded', 'approved', 'posted'] as const)[i % 4]!,
    kind: i % 9 === 0 ? 'credit-note' : 'invoice',
    currency: i % 5 === 0 ? 'EUR' : 'GBP',
    dueDate: i % 11 === 0 ? null : `2026-11-${String(1 + (i % 28)).padStart(2, '0')}`,
    lines: [{ amount: `${100 + i * 13}.00` }],
    createdAt: new Date(Date.UTC(2026, 0, 1 + i)),
    ...(i % 4 === 0 && i % 8 !== 0 ? { supplier: null } : {}),
  }));
  await world.rows(`update bill set stage = 'discarded' where invoice_number in ('AB-1000', 'x-1014') and stage = 'read'`);
  await world.rows(
    `update bill set assignee_id = (select id from person order by name offset (case when invoice_number like 'AB%' then 0 else 1 end) limit 1)
     where stage = 'read' and (gross % 3) < 2`,
  );
  bills = await world.rows(
    `select b.id, b.stage, b.kind, b.currency, coalesce(s.name, b.supplier_name, '') as name, b.invoice_number, b.gross::text, b.due_date::text as due, coalesce((select lower(p.name) from person p where p.id = b.assignee_id), '') as hands, b.posted_at::text as posted, b.created_at::text as created
     from bill b left join supplier s on s.id = b.supplier_id where b.company_id = $1`,
    world.master.company('MBG').id,
  );
});
afterAll(() => world.close());

const finds = (q: string, b: Plain): boolean => {
  const s = parseSearch(q);
  const anywhere = (word: string, text: string) =>
    word.length < 3 ? ` ${text}`.toLowerCase().includes(` ${word.toLowerCase()}`) : text.toLowerCase().includes(word.toLowerCase());
  return (
    (s.stage.length ? s.stage.includes(b.stage) : b.stage !== 'discarded') &&
    s.text.every((w) => anywhere(w, b.name) || anywhere(w, b.invoice_number)) &&
    (s.supplier === null || anywhere(s.supplier, b.name)) &&
    (s.over === null || Number(b.gross) > Number(s.over)) &&
    (s.under === null || Number(b.gross) < Number(s.under)) &&
    (s.due === null || (b.kind !== 'credit-note' && !['paid', 'reversed'].includes(b.stage) && (b.due ?? '9999') < testDay)) &&
    (s.currency === null || b.currency === s.currency) &&
    (s.kind === null || b.kind === (s.kind === 'credit' ? 'credit-note' : s.kind))
  );
};
const word = fc.constantFrom(
  'inv',
  'INV-1',
  'AB',
  'ab-10',
  'x',
  '1',
  '100',
  '1007',
  'nobody',
  'kn',
  'ltd',
  'li',
  'glass',
  'zzz',
  '%',
  '_',
  'supplier:nobody',
  'supplier:ltd',
  'supplier:qu',
);
const filter = fc.constantFrom(
  'stage:read',
  'stage:posted,coded',
  'stage:discarded',
  'over:700',
  'under:300',
  'currency:EUR',
  'kind:credit',
  'due:late',
  '',
);
const sort = fc.constantFrom<NonNullable<BillsQuery['sort']>>('arrived', 'due', 'total', 'supplier', 'hands', 'entry');

it('is the same as looking through all bills', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(word, { maxLength: 2 }),
      filter,
      sort,
      fc.boolean(),
      fc.integer({ min: 1, max: 40 }),
      fc.record({ walked: fc.integer({ min: 1, max: 60 }), few: fc.integer({ min: 1, max: 60 }) }),
      async (words, more, by, up, limit, how) => {
        const q = [...words, more].filter(Boolean).join(' ');
        const keys: Record<string, (b: Plain) => string> = {
          arrived: (b) => b.created,
          due: (b) => b.due ?? '9999-12-31',
          total: (b) => b.gross.padStart(20, '0'),
          supplier: (b) => b.name.toLowerCase(),
          hands: (b) => b.hands,
          entry: (b) => b.posted ?? '',
        };
        const key = keys[by]!;
        const should = bills
          .filter((b) => finds(q, b))
          .sort((a, b) => (key(a) === key(b) ? a.id.localeCompare(b.id) : key(a) < key(b) ? -1 : 1));
        if (!up) should.reverse();
        const rows = await listBills(
          world.database.db,
          { company: { id: world.master.company('MBG').id }, me: { id: world.master.company('MBG').id } },
          { q, sort: by, order: up ? 'asc' : 'desc', limit },
          testDay,
          how,
        );
        expect(
          rows.map((r) => r.row.id),
          q,
        ).toEqual(should.slice(0, limit).map((b) => b.id));
        const last = rows.at(-1);
        if (!last || rows.length < limit) return;
        const cursor = Buffer.from(JSON.stringify([last.key, last.row.id])).toString('base64url');
        const next = await listBills(
          world.database.db,
          { company: { id: world.master.company('MBG').id }, me: { id: world.master.company('MBG').id } },
          { q, sort: by, order: up ? 'asc' : 'desc', limit, cursor },
          testDay,
          how,
        );
        expect(
          next.map((r) => r.row.id),
          `${q}, second page`,
        ).toEqual(should.slice(limit, 2 * limit).map((b) => b.id));
      },
    ),
    { numRuns: 250 },
  );
}, 60_000);
