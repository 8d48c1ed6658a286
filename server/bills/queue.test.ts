import { afterAll, beforeAll, expect, it } from 'vitest';
import { clientOf } from '../testing/client.ts';
import { makeWorld, type World } from '../testing/world.ts';

let world: World;
let ask: ReturnType<typeof clientOf>;
beforeAll(async () => {
  world = await makeWorld();
  ask = clientOf(world);
});
afterAll(() => world.close());

it('twenty at once work the queue off: each bill is sent on once, who comes second is told so, nothing breaks', async () => {
  const ids = await world.build.bills(24, (i) => ({ number: `Q-${i}` }));
  const seen: number[] = [];
  const sent: string[] = [];
  await Promise.all(
    Array.from({ length: 20 }, async (_, clerk) => {
      const as = clerk % 2 ? 'Tobias' : 'Ines';
      for (let after: string | null = null; ;) {
        const { data } = await ask(as, 'GET', `/bills/next?queue=review${after ? `&after=${after}` : ''}`);
        if (!data.id) return;
        const bill = await ask(as, 'GET', `/bills/${data.id}`);
        const { status } = await ask(as, 'POST', `/bills/${data.id}/send`, { rowVersion: bill.data.rowVersion });
        seen.push(status);
        if (status === 200) sent.push(data.id);
        after = data.id;
      }
    }),
  );
  expect([...new Set(seen)].sort()).toEqual(expect.arrayContaining([200]));
  expect(seen.every((s) => s === 200 || s === 409)).toBe(true);
  expect(sent.sort()).toEqual([...ids].sort());
  expect((await world.rows(`select count(*)::int as n from event where verb = 'coded'`))[0].n).toBe(24);
}, 60_000);

it('two at one bill: each save counts once, and who was overtaken sees what the other made of it', async () => {
  const id = await world.build.bill({ number: 'TWO' });
  let saved = 0,
    overtaken = 0;
  await Promise.all(
    ['Ines', 'Tobias'].map(async (as) => {
      for (let i = 0; i < 15; i++) {
        const { data } = await ask(as, 'GET', `/bills/${id}`);
        const operations = [{ do: 'set', field: 'terms', value: `${as} ${i}` }];
        const { status, data: told } = await ask(as, 'PATCH', `/bills/${id}`, { rowVersion: data.rowVersion, operations });
        if (status === 200) saved++;
        else {
          overtaken++;
          expect([status, told.kind]).toEqual([409, 'changed']);
        }
      }
    }),
  );
  expect(saved + overtaken).toBe(30);
  const [{ n }] = await world.rows(`select count(*)::int as n from event where subject_id = $1 and verb = 'changed'`, id);
  expect(n).toBe(saved);
});
