import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { chainBreak } from '../events/store.ts';
import { postBills } from '../ledger/posting.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { newBill } from './by-hand.ts';
import { changeBill } from './change.ts';
import { comeBack } from './come-back.ts';
import { assignBill, takeNext } from './hands.ts';
import { approve, discard, restore, returnBill, sendOn, setAside, takeBack } from './moves.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
  // Both have both roles, so that only the rules about one's own bill keep them apart.
  const company = world.master.company('MBG').id;
  for (const who of ['Ines Okafor', 'Tobias Fenn'])
    for (const role of ['approver', 'controller'])
      await world.rows('insert into membership values ($1, $2, $3)', world.master.person(who), company, role);
});
afterAll(() => world.close());

const people = ['Ines Okafor', 'Tobias Fenn'] as const;
type Who = (typeof people)[number];

/** What must be so: where the bill stands, who sent it on, who ever worked on it, whether its row has an account. */
interface Model {
  id: string;
  stage: string;
  sender: string | null;
  workers: Set<string>;
  coded: boolean;
  version: number;
  /** In whose hands it is. */ hands: Who | null;
  /** The day on which it comes back. */ until: string | null;
}
interface Step {
  name: string;
  /** Whether it must succeed; and what is so afterwards. */
  may(m: Model, who: Who): boolean;
  then(m: Model, who: Who): void;
  run(m: Model, who: Who): Promise<{ rowVersion?: number }>;
}
/** A bill that somebody made by hand, as a copy: all but its coding, a new number, and its day. */
let copies = 0;
async function byHand(who: Who): Promise<string> {
  const from = await world.build.bill({ lines: [{ amount: '100.00', account: null }], number: `From ${++copies}` });
  const { id } = await world.run(newBill, await world.as(who), {}, { as: 'copy', billId: from });
  await world.rows(
    `update bill set invoice_number = $1, issue_date = '2026-11-20', due_date = '2026-12-20' where id = $2`,
    `Copy ${copies}`,
    id,
  );
  await world.rows(`update bill set stage = 'discarded' where id = $1`, from);
  return id;
}

const hands = ['read', 'returned'];
const move = (use: typeof sendOn | typeof returnBill, note?: string) => async (m: Model, who: Who) =>
  world.run(use as typeof sendOn, await world.as(who), { id: m.id }, { rowVersion: m.version, ...(note ? { note } : {}) });
const edit = (account: string | null) => async (m: Model, who: Who) => {
  const [line] = (await world.show(m.id)).lines;
  const operations = [
    { do: 'set-cell', line: line!.id, field: 'accountId', value: account ? world.master.company('MBG').account(account) : null },
  ];
  return world.run(changeBill, await world.as(who), { id: m.id }, { rowVersion: m.version, operations });
};
const to = (stage: string) => (m: Model) => {
  m.stage = stage;
};
const steps: Step[] = [
  {
    name: 'codes',
    may: (m) => hands.includes(m.stage),
    then: (m, who) => void (!m.coded && m.workers.add(who), (m.coded = true)),
    run: edit('6000'),
  },
  {
    name: 'uncodes',
    may: (m) => hands.includes(m.stage),
    then: (m, who) => void (m.coded && m.workers.add(who), (m.coded = false)),
    run: edit(null),
  },
  {
    name: 'sends on',
    may: (m) => hands.includes(m.stage) && m.coded,
    then: (m, who) => void ((m.stage = 'coded'), (m.sender = who), (m.hands = null), m.workers.add(who)),
    run: move(sendOn),
  },
  {
    name: 'takes back',
    may: (m, who) => m.stage === 'coded' && m.sender === who,
    then: (m, who) => void ((m.stage = 'read'), (m.hands = who)),
    run: move(takeBack),
  },
  { name: 'approves', may: (m, who) => m.stage === 'coded' && !m.workers.has(who), then: to('approved'), run: move(approve) },
  {
    name: 'returns',
    may: (m) => ['coded', 'approved'].includes(m.stage),
    then: (m) => void ((m.stage = 'returned'), (m.hands = m.sender as Who)),
    run: move(returnBill, 'not so'),
  },
  { name: 'sets aside', may: (m) => hands.includes(m.stage), then: to('set-aside'), run: move(setAside, 'later') },
  {
    name: 'sets aside until Wednesday',
    may: (m) => hands.includes(m.stage),
    then: (m) => void ((m.stage = 'set-aside'), (m.until = '2026-11-25')),
    run: async (m, who) =>
      world.run(setAside, await world.as(who), { id: m.id }, { rowVersion: m.version, note: 'later', until: '2026-11-25' }),
  },
  {
    name: 'lets Wednesday come',
    may: () => true,
    then: (m) => void (m.until && ((m.stage = 'read'), (m.until = null))),
    async run() {
      await comeBack({ ...world.services, now: () => new Date('2026-11-25T06:00:00Z') });
      return {};
    },
  },
  {
    name: 'discards',
    may: (m) => [...hands, 'set-aside'].includes(m.stage),
    then: (m) => void ((m.stage = 'discarded'), (m.hands = null), (m.until = null)),
    run: move(discard, 'twice'),
  },
  {
    name: 'takes up again',
    may: (m) => ['set-aside', 'discarded'].includes(m.stage),
    then: (m) => void ((m.stage = 'read'), (m.until = null)),
    run: move(restore),
  },
  {
    name: 'takes it over',
    may: (m) => [...hands, 'set-aside'].includes(m.stage),
    then: (m, who) => void (m.hands = who),
    run: async (m, who) => {
      const caller = await world.as(who);
      return world.run(assignBill, caller, { id: m.id }, { rowVersion: m.version, personId: caller.me.id });
    },
  },
  {
    name: 'gives it back',
    may: (m) => [...hands, 'set-aside'].includes(m.stage),
    then: (m) => void (m.hands = null),
    run: async (m, who) => world.run(assignBill, await world.as(who), { id: m.id }, { rowVersion: m.version, personId: null }),
  },
  {
    name: 'takes the next of the queue',
    may: () => true,
    then: (m, who) => void (hands.includes(m.stage) && m.hands === null && (m.hands = who)),
    async run(m, who) {
      await world.run(takeNext, await world.as(who), {}, { prefer: [m.id], not: [] });
      return {};
    },
  },
  {
    name: 'posts',
    may: (m) => m.stage === 'approved',
    then: to('posted'),
    async run(m, who) {
      await world.run(postBills, await world.as(who), {}, { key: `model-${m.id}`, billIds: [m.id], entryDate: testDay });
      return {};
    },
  },
];

it(
  'in any sequence of steps by two people with every role, a bill stands where the rules say, in the hands that they say, and nobody approves what they made or worked on',
  () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(steps.length - 1), fc.constantFrom(...people)), { minLength: 5, maxLength: 25 }),
        fc.option(fc.constantFrom(...people)),
        async (sequence, maker) => {
          const m: Model = {
            id: maker ? await byHand(maker) : await world.build.bill({ lines: [{ amount: '100.00', account: null }] }),
            stage: 'read',
            sender: null,
            workers: new Set(maker ? [maker] : []),
            coded: false,
            version: 0,
            hands: maker,
            until: null,
          };
          m.version = (await world.show(m.id)).rowVersion;
          for (const [at, who] of sequence) {
            const step = steps[at]!;
            const told = `${step.name} by ${who} at ${m.stage}`;
            const must = step.may(m, who);
            const done = await step.run(m, who).then(
              (answer) => ({ ok: true, answer }),
              (error: { status?: number }) => ({ ok: false, status: error.status }),
            );
            expect(done.ok, told).toBe(must);
            // What is refused is refused in words, never by an error.
            if ('status' in done) expect([403, 404, 409, 422], told).toContain(done.status);
            if (must) step.then(m, who);
            const [row] = await world.rows(
              'select stage, sent_by, approved_by, row_version, assignee_id, aside_until::text as until from bill where id = $1',
              m.id,
            );
            expect([row.stage, row.row_version >= m.version], told).toEqual([m.stage, true]);
            expect([row.assignee_id, row.until], told).toEqual([m.hands && world.master.person(m.hands), m.until]);
            if (row.approved_by)
              expect(
                [...m.workers].map((w) => world.master.person(w)),
                told,
              ).not.toContain(row.approved_by);
            m.version = row.row_version;
          }
          const entries = await world.rows('select count(*)::int as n from journal_entry where source_id = $1', m.id);
          expect(entries[0].n).toBe(m.stage === 'posted' ? 1 : 0);
          expect(await chainBreak(world.database.db, world.master.company('MBG').id)).toBe(null);
        },
      ),
      { numRuns: 40, endOnFailure: true },
    ),
  90_000,
);
