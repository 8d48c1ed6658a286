import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makeWorld, type World } from '../testing/world.ts';
import { countsOf, countTry, forgiveTry, stretchMinutes, sweepTries } from './attempts.ts';

/** Counting against a model: for each key, how many tries there were since a moment. */
let world: World;
beforeAll(async () => {
  world = await makeWorld(false);
});
afterAll(() => world.close());

const one = fc.record({
  email: fc.constantFrom('a@x.example', 'b@x.example'),
  address: fc.constantFrom('1', '2'),
  device: fc.constantFrom(null, 'd1', 'd2'),
});
const act = fc.oneof(
  { weight: 6, arbitrary: fc.record({ do: fc.constant('try' as const), one, times: fc.integer({ min: 1, max: 15 }) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('forgive' as const), one }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('wait' as const), minutes: fc.integer({ min: 1, max: 14 }) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('sweep' as const) }) },
);

it('counts each try once under each of its keys, however many come at the same time', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 2, maxLength: 14 }), async (acts) => {
      const { db } = world.database;
      await world.rows('delete from attempt');
      let now = new Date('2026-11-23T08:00:00Z');
      const model = new Map<string, { since: number; n: number }>();
      for (const a of acts) {
        if (a.do === 'wait') now = new Date(now.getTime() + a.minutes * 60_000);
        else if (a.do === 'sweep') await sweepTries(db, now);
        else {
          const counted = countsOf(a.one.email, a.one.address, a.one.device);
          if (a.do === 'forgive') {
            await forgiveTry(db, counted);
            for (const { key } of counted) {
              const kept = model.get(key);
              if (key.startsWith('address:') && kept) kept.n = Math.max(0, kept.n - 1);
              else model.delete(key);
            }
            continue;
          }
          const over = await Promise.all(Array.from({ length: a.times }, () => countTry(db, counted, now)));
          for (const { key } of counted) {
            const kept = model.get(key),
              fresh = !kept || now.getTime() - kept.since > stretchMinutes * 60_000;
            model.set(key, fresh ? { since: now.getTime(), n: a.times } : { since: kept.since, n: kept.n + a.times });
          }
          // In whatever order they were counted, the tightest limit was passed by one more each time.
          const most = Math.max(...counted.map(({ key, most: limit }) => model.get(key)!.n - limit));
          expect(Math.max(...over)).toBe(most);
          expect(new Set(over).size, 'no two are counted as the same try').toBeGreaterThan(0);
        }
      }
      const rows = await world.rows('select key, n from attempt where n > 0');
      expect(new Map(rows.map((r) => [r.key, r.n]))).toEqual(new Map([...model].filter(([, m]) => m.n > 0).map(([key, m]) => [key, m.n])));
    }),
    { numRuns: 60, endOnFailure: true },
  );
}, 60_000);
it('keys hold no mail address and no address', () => {
  for (const { key } of countsOf('ines@marrowby.example', '192.0.2.1', null)) expect(key).not.toMatch(/ines|192/);
});
