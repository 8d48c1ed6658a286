import { afterAll, beforeAll, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { choicesFor } from './choices.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const offered = async (who: string, q: string) => {
  return (await choicesFor(world.database.db, await world.as(who), 'accounts', q, testDay)).map((c) => c.code);
};

it('what a person chose lately is offered first, to them alone, behind the very code that is typed', async () => {
  const before = await offered('Ines Okafor', '');
  expect(before).toEqual([...before].sort());
  const [first, second, , last] = [before[0]!, before[1]!, before[2]!, before.at(-1)!];
  const account = (code: string) => world.master.company('MBG').account(code);
  const id = await world.build.bill({ lines: [{ amount: '1' }, { amount: '2' }] });
  const lines = (await world.show(id)).lines.map((l) => l.id);
  const ines = await world.as('Ines Okafor');
  for (const [i, code] of [last, second].entries())
    await changeBill.perform({ ...world.services, now: () => new Date(Date.UTC(2026, 10, 23, 10, i)) }, ines, { id }, {
      rowVersion: (await world.show(id)).rowVersion,
      operations: [{ do: 'set-cell', line: lines[i]!, field: 'accountId', value: account(code) }],
    }); // prettier-ignore
  expect((await offered('Ines Okafor', '')).slice(0, 3)).toEqual([second, last, first]);
  expect(await offered('Tobias Fenn', '')).toEqual(before);
  expect((await offered('Ines Okafor', first))[0]).toBe(first);
});
it('suppliers, too, are offered as they were chosen', async () => {
  const ines = await world.as('Ines Okafor');
  const suppliers = await choicesFor(world.database.db, ines, 'suppliers', '', testDay);
  const last = suppliers.at(-1)!;
  const id = await world.build.bill();
  await world.run(changeBill, ines, { id }, { rowVersion: 1, operations: [{ do: 'set', field: 'supplierId', value: last.id }] });
  expect((await choicesFor(world.database.db, ines, 'suppliers', '', testDay))[0]!.id).toBe(last.id);
});
it('fifty thousand accounts are searched by any part of the name, and by the beginning of the code', async () => {
  await world.rows(
    `insert into ledger_account (id, company_id, code, name, group_name, kind)
     select gen_random_uuid(), $1, 'Z' || lpad(n::text, 6, '0'), 'Plot ' || n || ' upkeep', 'Plots', 'expense' from generate_series(1, 50000) n`,
    world.master.company('MBG').id,
  );
  await world.rows('analyze ledger_account');
  expect(await offered('Ines Okafor', 'upkeep 49999')).toEqual(['Z049999']);
  expect((await offered('Ines Okafor', 'Z0123')).length).toBe(40);
  expect(await offered('Ines Okafor', 'nothing like it')).toEqual([]);
});
it('accounts are offered for the bill’s day, with their usual tax code; those that only gather others are not', async () => {
  const mine = world.master.company('MBG');
  await world.rows(
    `update ledger_account set valid_from = '2026-11-10', tax_code_id = $2 where id = $1`,
    mine.account('6010'),
    mine.taxCode('R5').id,
  );
  await world.rows('update ledger_account set postable = false where id = $1', mine.account('6000'));
  const ask = async (q: string, day: string) => choicesFor(world.database.db, await world.as('Ines Okafor'), 'accounts', q, day);
  const offered = async (q: string, day: string) => (await ask(q, day)).map((c) => c.code).includes(q);
  expect([await offered('6000', testDay), await offered('6010', '2026-11-09'), await offered('6010', testDay)]).toEqual([
    false,
    false,
    true,
  ]);
  const [offer] = await ask('6010', '2026-11-10');
  expect(offer).toMatchObject({ code: '6010', going: [{ field: 'taxCodeId', id: mine.taxCode('R5').id, code: 'R5' }] });
  await world.rows(`update tax_code set valid_to = '2026-11-15' where id = $1`, mine.taxCode('R5').id);
  expect((await ask('6010', '2026-11-16'))[0]).not.toHaveProperty('going');
});
