import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { choicesFor } from '../accounts/choices.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { changeDimensionValue, newDimension, newDimensionValue } from './service.ts';
import { listValues } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
  await world.run(newDimension, await kit(), {}, { name: 'Project', always: false, active: true });
});
afterAll(() => world.close());
const kit = () => world.as('Kit Arden');
const mbg = () => world.master.company('MBG');

describe('fixed assets', () => {
  const put = { active: true, validFrom: null, validTo: null };
  it('are one dimension’s values, each with its account, which comes along to a row', async () => {
    const { field } = await world.run(newDimension, await kit(), {}, { name: 'Fixed asset', always: false, active: true, assets: true });
    const asset = { accountId: mbg().account('1010'), inUseFrom: '2024-03-01', serial: ' GH-77 ', location: 'North range' };
    const made = await world.run(newDimensionValue, await kit(), {}, { field, code: 'GH-7', name: 'Glasshouse 7', ...put, asset });
    const [row] = await listValues(world.database.db, mbg().id, field, 'gh-77', null, 5);
    expect(row).toMatchObject({ code: 'GH-7', account: '1010 Garden buildings', asset: { ...asset, serial: 'GH-77' } });
    const asker = { company: mbg(), me: { id: world.master.person('Ines Okafor') } };
    const [choice] = await choicesFor(world.database.db, asker, field, 'glass', testDay);
    expect(choice).toMatchObject({ detail: 'North range', going: [{ field: 'accountId', code: '1010' }] });
    await world.run(changeDimensionValue, await kit(), made, { field, code: 'GH-7', name: 'Glasshouse 7', ...put });
    expect((await listValues(world.database.db, mbg().id, field, '', null, 5))[0]!.asset.location).toBe('North range');
    await world.rows('update ledger_account set active = false where id = $1', asset.accountId);
    expect((await choicesFor(world.database.db, asker, field, 'glass', testDay))[0]!.going).toBeUndefined();
    await world.rows('update ledger_account set active = true where id = $1', asset.accountId);
  });
  it('stand in one dimension alone, and on this company’s accounts', async () => {
    const another = world.run(newDimension, await kit(), {}, { name: 'Machine', always: false, active: true, assets: true });
    await expect(another).rejects.toThrow('Another dimension has the fixed assets already.');
    const asset = { accountId: world.master.company('MNT').account('1010'), inUseFrom: null, serial: null, location: null };
    const as = await kit();
    const of = (field: string, more: object) =>
      world.run(newDimensionValue, as, {}, { field, code: 'X', name: 'X', ...put, asset: { ...asset, ...more } });
    await expect(of('dimension2', {})).rejects.toThrow('does not belong to this company');
    await expect(of('dimension1', { accountId: null, serial: 'S-1' })).rejects.toThrow('is not the dimension of fixed assets');
  });
});
