import { afterAll, beforeAll, expect, it } from 'vitest';
import { entryTable } from '../ledger/file.ts';
import { savedAs } from '../imports/saved.ts';
import { clientOf } from '../testing/client.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { billTable } from './file.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
  await world.build.bill({ number: 'X-1', stage: 'posted', lines: [{ amount: '100.00' }] });
  await world.build.bill({ number: 'X-2', stage: 'posted', kind: 'credit-note', lines: [{ amount: '10.00' }] });
  await world.build.bill({ number: '=X-3', lines: [{ amount: '7.00' }] });
  await world.build.bill({ number: 'X-4', company: 'MNT' });
});
afterAll(() => world.close());

it('bills go into a file as they are found and sorted, credit notes below zero', async () => {
  const table = await billTable(world.database.db, await world.as('Ines Okafor'), { q: '', sort: 'total', order: 'desc' }, testDay);
  const [number, total, entry] = ['Number', 'Total', 'Entry'].map((head) => table.heads.indexOf(head)) as [number, number, number];
  expect(table.rows.map((r) => [r[number], r[total], r[entry]])).toEqual([
    ['X-1', '120.00', '2026-00001'],
    ['X-2', '-12.00', '2026-00002'],
    ['=X-3', '8.40', ''],
  ]);
  const text = await (await savedAs(world.services, table, 'csv', 'bills')).text();
  // A spreadsheet takes no formula from it.
  expect(text).not.toMatch(/(^|[,;])=X-3/m);
});
it('more bills than one page all come, each once', async () => {
  await world.rows(
    `insert into bill (id, company_id, stage, kind, currency, invoice_number) select gen_random_uuid(), $1, 'read', 'invoice', 'GBP', 'M-' || n from generate_series(1, 1003) n`,
    world.master.company('MBG').id,
  ); // prettier-ignore
  const { heads, rows } = await billTable(
    world.database.db,
    await world.as('Ines Okafor'),
    { q: '', sort: 'number', order: 'asc' },
    testDay,
  );
  const numbers = rows.map((r) => r[heads.indexOf('Number')]!);
  expect([rows.length, new Set(numbers).size]).toEqual([1006, 1006]);
});
it('entries go into a file, and only who may see them gets it', async () => {
  const { rows } = await entryTable(world.database.db, (await world.as('Halina Voss')).company, { q: 'X-2' });
  expect(rows.map((r) => [r[0], r[3]])).toEqual([['2026-00002', '12.00']]);
  const ask = clientOf(world);
  expect((await ask('Halina', 'GET', '/entries/file?format=xlsx')).status).toBe(200);
  expect((await ask('Halina', 'GET', '/bills/file?format=pdf')).status).toBe(400);
  expect((await ask(null, 'GET', '/bills/file?format=csv')).status).toBe(401);
});
