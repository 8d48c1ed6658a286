import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { chainBreak } from '../events/store.ts';
import { postBills } from '../ledger/posting.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { changeBill } from './change.ts';
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

/** What must be so: where the bill stands, who sent it on, who ever worked on it, whether its row has an account. */
interface Model {
  id: string;
  stage: string;
  sender: string | null;
  workers: Set<string>;
  coded: boolean;
  version: number;
}
const people = ['Ines Okafor', 'Tobias Fenn'] as const;
type Who = (typeof people)[number];
interface Step {
  name: string;
  /** Whether it must succeed; and what is so afterwards. */
  may(m: Model, who: Who): boolean;
  then(m: Model, who: Who): void;
  run(m: Model, who: Who): Promise<{ rowVersion?: number }>;
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
    then: (m, who) => void ((m.stage = 'coded'), (m.sender = who), m.workers.add(who)),
    run: move(sendOn),
  },
  { name: 'takes back', may: (m, who) => m.stage === 'coded' && m.sender === who, then: to('read'), run: move(takeBack) },
  { name: 'approves', may: (m, who) => m.stage === 'coded' && !m.workers.has(who), then: to('approved'), run: move(approve) },
  { name: 'returns', may: (m) => ['coded', 'approved'].includes(m.stage), then: to('returned'), run: move(returnBill, 'not so') },
  { name: 'sets aside', may: (m) => hands.includes(m.stage), then: to('set-aside'), run: move(setAside, 'later') },
  { name: 'discards', may: (m) => [...hands, 'set-aside'].includes(m.stage), then: to('discarded'), run: move(discard, 'twice') },
  { name: 'takes up again', may: (m) => ['set-aside', 'discarded'].includes(m.stage), then: to('read'), run: move(restore) },
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

it('in any sequence of steps by two people with every role, a bill stands where the rules say, and nobody approves what they worked on', () =>
  fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(steps.length - 1), fc.constantFrom(...people)), { minLength: 5, maxLength: 25 }),
      async (sequence) => {
        const m: Model = {
          id: await world.build.bill({ lines: [{ amount: '100.00', account: null }] }),
          stage: 'read',
          sender: null,
          workers: new Set(),
          coded: false,
          version: 1,
        };
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
          const [row] = await world.rows('select stage, sent_by, approved_by, row_version from bill where id = $1', m.id);
          expect([row.stage, row.row_version >= m.version], told).toEqual([m.stage, true]);
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
  ));
