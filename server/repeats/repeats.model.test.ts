import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addDays, addMonths, endOfMonth } from '@ledgerline/core/dates';
import { makeWorld, type World } from '../testing/world.ts';
import { changeRepeat, newRepeat } from './service.ts';
import { listRepeats } from './store.ts';
import { makeTurns } from './turns.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

type Every = 'month' | 'quarter' | 'year' | 'weeks';
interface Rhythm {
  every: Every;
  weeks: number | null;
  until: string | null;
}
const begins = '2026-01-31';
/** All turns up to a day, counted from the beginning one by one: slow and plain. */
function turnsUpTo({ every, weeks, until }: Rhythm, day: string): string[] {
  const months = { month: 1, quarter: 3, year: 12, weeks: 0 }[every];
  const all: string[] = [];
  for (let n = 0; ; n++) {
    const last = endOfMonth(addMonths('2026-01-01', months * n));
    const turn = every === 'weeks' ? addDays(begins, 7 * weeks! * n) : last;
    if (turn > day || (until !== null && turn > until)) return all;
    all.push(turn);
  }
}
const rhythm: fc.Arbitrary<Rhythm> = fc
  .record({
    every: fc.constantFrom<Every>('month', 'quarter', 'year', 'weeks'),
    weeks: fc.integer({ min: 2, max: 9 }),
    until: fc.option(fc.integer({ min: 10, max: 700 }).map((n) => addDays(begins, n))),
  })
  .map(({ every, weeks, until }) => ({ every, weeks: every === 'weeks' ? weeks : null, until }));
const step = fc.oneof(
  fc.record({ do: fc.constant('days pass' as const), n: fc.integer({ min: 0, max: 120 }) }),
  fc.record({ do: fc.constant('changes' as const), to: rhythm }),
  fc.record({ do: fc.constant('two workers at once' as const) }),
);

it('however days pass and whatever is changed, each turn is made once, in order, none before its day, none after the last', () =>
  fc.assert(
    fc.asyncProperty(rhythm, fc.array(step, { maxLength: 10 }), async (first, steps) => {
      const ines = await world.as('Ines Okafor');
      const from = await world.build.bill({ issueDate: '2025-12-31' });
      const settings = (r: Rhythm) => ({ ...r, name: 'Rent', begins, fixed: true, documentWithin: null });
      const { id } = await world.run(newRepeat, ines, {}, { billId: from, ...settings(first) });
      let now: Rhythm = first,
        day = '2026-01-30';
      const made: string[] = [];
      /** What must have been made by now: what was, and all that the rhythm has after it. */
      const come = () => {
        const last = made.at(-1) ?? '';
        made.push(...turnsUpTo(now, day).filter((t) => t > last));
      };
      const work = async () => makeTurns({ ...world.services, now: () => new Date(`${day}T06:00:00Z`) });
      for (const s of steps) {
        if (s.do === 'days pass') {
          day = addDays(day, s.n);
          // As many at once as one run makes: the next run makes the rest.
          while ((await work()) > 0);
          come();
        } else if (s.do === 'two workers at once') {
          await Promise.all([work(), work()]);
          while ((await work()) > 0);
          come();
        } else {
          const { rowVersion } = (await listRepeats(world.database.db, ines.company.id)).find((r) => r.id === id)!;
          await world.run(changeRepeat, ines, { id }, { rowVersion, ...settings(s.to) });
          now = s.to;
        }
        const rows = await world.rows('select turn::text as turn from bill where repeat_id = $1 order by turn', id);
        expect(
          rows.map((r) => r.turn),
          JSON.stringify({ s, day }),
        ).toEqual(made);
      }
      await world.rows('update repeat set next_on = null where id = $1', id);
    }),
    { numRuns: 25, endOnFailure: true },
  ));
