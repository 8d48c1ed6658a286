import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { setBills } from '../testing/moves.ts';
import { makeWorld, type World } from '../testing/world.ts';

/** Whatever happens to bills and items, the sums that lists show are those of what they are of. */
let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const off = () => world.rows('select * from sums_off()');

const act = fc.oneof(
  fc.record({
    do: fc.constant('post' as const),
    amount: fc.integer({ min: 1, max: 99_999 }),
    credit: fc.boolean(),
    euro: fc.boolean(),
    due: fc.option(fc.integer({ min: 1, max: 28 })),
  }),
  fc.record({ do: fc.constant('settle' as const), part: fc.double({ min: 0.01, max: 1, noNaN: true }), pick: fc.nat() }),
  fc.record({ do: fc.constant('undo' as const), pick: fc.nat() }),
  fc.record({ do: fc.constant('make' as const), known: fc.boolean() }),
  fc.record({ do: fc.constant('discard' as const), pick: fc.nat() }),
  fc.record({ do: fc.constant('restore' as const), pick: fc.nat() }),
);

it('kept sums equal what they are of after every sequence of acts', async () => {
  const { post, settle, undo, make, discard, restore } = setBills(world);
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 1, maxLength: 12 }), async (acts) => {
      for (const a of acts) {
        if (a.do === 'post') await post(a);
        else if (a.do === 'settle') await settle(a.pick, a.part);
        else if (a.do === 'undo') await undo(a.pick);
        else if (a.do === 'make') await make(a.known);
        else if (a.do === 'discard') await discard(a.pick);
        else await restore(a.pick);
      }
      expect(await off()).toEqual([]);
    }),
    { numRuns: 25, endOnFailure: true },
  );
  expect((await world.rows('select count(*)::int as n from settlement'))[0].n).toBeGreaterThan(0);
}, 120_000);

it('a sum that is off is found', async () => {
  await world.rows('update supplier_bills set bills = bills + 1');
  expect((await off()).map((r) => r.what)).toContain('supplier_bills');
});
