import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeWorld, type World } from '../testing/world.ts';
import { difference, record, transaction, type Act } from './record.ts';
import { historyOf, listEvents } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const act = (more: Partial<Act> = {}): Act => ({
  companyId: world.master.company('MBG').id,
  subject: { type: 'bill', id: '01900000-0000-7000-8000-000000000001' },
  verb: 'changed',
  by: { personId: null, source: 'test' },
  at: new Date('2026-11-23T10:00:00Z'),
  ...more,
});
const count = async () => (await world.rows('select count(*)::int as n from event'))[0].n as number;

describe('a unit of work', () => {
  it('writes its acts when it ends, in their order, with the rest or not at all', async () => {
    const before = await count();
    await transaction(world.database.db, async (tx) => {
      record(tx, act({ verb: 'first' }));
      record(tx, act({ verb: 'second' }));
      expect(await count()).toBe(before);
    });
    const events = await historyOf(world.database.db, world.master.company('MBG').id, 'bill', '01900000-0000-7000-8000-000000000001');
    expect(events.map((e) => e.verb)).toEqual(['first', 'second']);
    await expect(
      transaction(world.database.db, async (tx) => {
        record(tx, act({ verb: 'lost' }));
        throw new Error('on purpose');
      }),
    ).rejects.toThrow('on purpose');
    expect(await count()).toBe(before + 2);
  });
  it('is needed: outside of one nothing can be recorded', async () => {
    await expect(world.database.db.transaction(async (tx) => record(tx, act()))).rejects.toThrow('in a unit of work only');
  });
  it('of two companies keeps a chain for each', async () => {
    const other = world.master.company('MNT').id;
    await transaction(world.database.db, async (tx) => {
      for (let i = 0; i < 3; i++) record(tx, act({ companyId: i % 2 ? other : world.master.company('MBG').id }));
    });
    for (const id of [other, world.master.company('MBG').id]) {
      const numbers = (await world.rows('select seq::int from event where company_id = $1 order by seq', id)).map((r) => r.seq);
      expect(numbers).toEqual(numbers.map((_, i) => i + 1));
    }
  });
  it('shows what was and what is, field by field', async () => {
    await transaction(world.database.db, async (tx) =>
      record(tx, act({ verb: 'set', before: { a: '1', b: null }, after: { a: '2', b: true } })),
    );
    const [newest] = await listEvents(world.database.db, world.master.company('MBG').id, { limit: 1 });
    expect(newest!.changes).toEqual([
      { field: 'a', before: '1', after: '2' },
      { field: 'b', before: null, after: 'true' },
    ]);
  });
});

describe('the difference of two states', () => {
  const state = fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd'), fc.option(fc.constantFrom('1', '2')));
  it('is none of a state with itself, and leads from one to the other', () =>
    fc.assert(
      fc.property(state, state, (one, two) => {
        expect(difference(one, { ...one })).toBe(null);
        const d = difference(one, two);
        const filled = (s: Record<string, unknown>) => Object.fromEntries(['a', 'b', 'c', 'd'].map((k) => [k, s[k] ?? null]));
        expect({ ...filled(one), ...d?.after }).toEqual(filled(two));
        expect({ ...filled(two), ...d?.before }).toEqual(filled(one));
      }),
    ));
});
