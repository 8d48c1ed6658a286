import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 } from 'uuid';
import { choicesFor } from '../accounts/choices.ts';
import { newAccount } from '../accounts/service.ts';
import { changeBill } from '../bills/change.ts';
import { approve } from '../bills/moves.ts';
import { codeAlike } from '../coding/alike.ts';
import { newDimension, newDimensionValue } from '../dimensions/service.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { setRoles } from './service.ts';
import { listPeople } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const everything = { accounts: null, costCentres: null, most: null };
async function limit(name: string, range: object, roles = ['clerk']) {
  const as = await world.as('Kit Arden');
  await world.run(setRoles, as, { id: world.master.person(name) }, { roles, range: { ...everything, ...range } });
}

describe('what a person codes', () => {
  const set = async (id: string, operations: object[], who = 'Ines Okafor') =>
    world.run(changeBill, await world.as(who), { id }, { rowVersion: (await world.show(id)).rowVersion, operations });
  it('is held to their accounts and cost centres, by every way of coding; a new account inside is theirs at once', async () => {
    await limit('Ines Okafor', { accounts: '6000 to 6099', costCentres: '200' });
    const id = await world.build.bill({ lines: [{ account: null, centre: null }] });
    const line = (await world.show(id)).lines[0]!.id;
    const cell = (field: string, value: string) => ({ do: 'set-cell', line, field, value });
    await set(id, [cell('accountId', mbg().account('6000')), cell('costCentreId', mbg().centre('200'))]);
    const refused = (operations: object[]) => expect(set(id, operations)).rejects;
    await refused([cell('accountId', mbg().account('6300'))]).toMatchObject({ status: 403, message: expect.stringContaining('6300 is not among the accounts') }); // prettier-ignore
    await refused([cell('costCentreId', mbg().centre('210'))]).toThrow('210 is not among the cost centres');
    await refused([{ do: 'add-line', line: v7(), kind: 'line', after: null, cells: { accountId: mbg().account('6300') } }]).toThrow('6300');
    await refused([{ do: 'set-kind', line, kind: 'charge', cells: { accountId: mbg().account('6300') } }]).toThrow('6300');
    await expect(world.run(codeAlike, await world.as('Ines Okafor'), {}, { rows: [{ billId: id, lineId: line }], coding: { accountId: mbg().account('6300') } })).rejects.toThrow('6300'); // prettier-ignore
    expect((await world.show(id)).lines).toHaveLength(1);
    const put = { name: 'Mulch', group: 'Horticulture', kind: 'expense', needsCostCentre: false, parentId: null, postable: true, taxCodeId: null, active: true, validFrom: null, validTo: null }; // prettier-ignore
    const made = await world.run(newAccount, await world.as('Kit Arden'), {}, { ...put, code: '6099' });
    await set(id, [cell('accountId', made.id)]);
    await set(id, [cell('accountId', mbg().account('6300'))], 'Tobias Fenn');
    // What another coded stays while they change something else.
    await set(id, [cell('description', 'Peat-free')]);
  });
  it('is not passed by what comes along: the account of a fixed asset', async () => {
    const as = await world.as('Kit Arden');
    const open = { active: true, validFrom: null, validTo: null };
    const { field } = await world.run(newDimension, as, {}, { name: 'Fixed asset', always: false, active: true, assets: true });
    const asset = { accountId: mbg().account('1010'), inUseFrom: null, serial: null, location: null };
    const { id: house } = await world.run(newDimensionValue, as, {}, { field, code: 'GH-7', name: 'Glasshouse 7', ...open, asset });
    const billId = await world.build.bill({ lines: [{ account: null, centre: '200' }] });
    const lineId = (await world.show(billId)).lines[0]!.id;
    const code = async () =>
      world.run(codeAlike, await world.as('Ines Okafor'), {}, { rows: [{ billId, lineId }], coding: { [field]: house } });
    await expect(code()).rejects.toThrow('1010 is not among the accounts');
    expect((await world.show(billId)).lines[0]).toMatchObject({ accountId: null, [field]: null });
    await limit('Ines Okafor', { accounts: '6000 to 6099, 1010', costCentres: '200' });
    expect(await code()).toMatchObject({ coded: 1 });
    await limit('Ines Okafor', { accounts: '6000 to 6099', costCentres: '200' });
  });
  it('is all that they are offered', async () => {
    const asker = { company: mbg(), me: { id: world.master.person('Ines Okafor') } };
    const codes = async (of: 'accounts' | 'cost-centres') =>
      (await choicesFor(world.database.db, asker, of, '', '2026-11-20')).map((c) => c.code);
    expect([await codes('accounts'), await codes('cost-centres')]).toEqual([expect.not.arrayContaining(['6300']), ['200']]);
    expect(await codes('accounts')).toContain('6000');
    await limit('Ines Okafor', {});
    expect(await codes('accounts')).toContain('6300');
  });
});

describe('what a person approves', () => {
  const given = async (lines: object[], more: object = {}) => {
    const id = await world.build.bill({ stage: 'coded', lines: lines as never, ...more });
    return world.run(approve, await world.as('Marguerite Sable'), { id }, { rowVersion: (await world.show(id)).rowVersion });
  };
  it('is held to their amount, in the company’s currency and with tax', async () => {
    await limit('Marguerite Sable', { most: '120.00' }, ['approver']);
    expect((await given([{ amount: '100.00' }])).stage).toBe('approved');
    await expect(given([{ amount: '100.01' }])).rejects.toThrow('comes to 120.01 GBP; you approve up to 120.00 GBP');
    await world.rows(`insert into exchange_rate (company_id, currency, day, rate) values ($1, 'XAF', '2026-11-01', 2)`, mbg().id);
    await expect(given([{ amount: '60.00' }], { currency: 'XAF' })).rejects.toThrow('comes to 144.00 GBP');
  });
  it('is held to their accounts and cost centres', async () => {
    await limit('Marguerite Sable', { accounts: '63*', costCentres: '210' }, ['approver']);
    await expect(given([{ account: '6300', centre: '210' }, { account: '6000', centre: '210' }])).rejects.toThrow('rows on account 6000'); // prettier-ignore
    await expect(given([{ account: '6300', centre: '200' }])).rejects.toThrow('rows on cost centre 200');
    expect((await given([{ account: '6300', centre: '210' }])).stage).toBe('approved');
    await limit('Marguerite Sable', {}, ['approver']);
  });
});

describe('limits', () => {
  it('are refused where nobody could read them, shown with the person, and in the event log', async () => {
    await expect(limit('Tobias Fenn', { accounts: '6100-6199' })).rejects.toMatchObject({
      status: 422,
      errors: [{ path: 'range.accounts', sentence: expect.stringContaining('6100 to 6199') }],
    });
    await expect(limit('Tobias Fenn', { most: '-1' })).rejects.toMatchObject({ status: 422 });
    await limit('Tobias Fenn', { accounts: '61*', most: '10' });
    const { people } = await listPeople(world.database.db, mbg().id);
    expect(people.find((p) => p.name === 'Tobias Fenn')!.range).toEqual({ accounts: '61*', costCentres: null, most: '10' });
    const [event] = await world.rows(`select before, after from event where verb = 'roles set' order by seq desc limit 1`);
    expect(event).toEqual({ before: { accounts: null, most: null }, after: { accounts: '61*', most: '10' } });
    await expect(world.run(setRoles, await world.as('Halina Voss'), { id: world.master.person('Tobias Fenn') }, { roles: ['clerk'] })).rejects.toMatchObject({ status: 403 }); // prettier-ignore
  });
  it('go with the roles', async () => {
    await limit('Tobias Fenn', { accounts: '61*' }, []);
    expect(await world.rows('select * from person_range where person_id = $1', world.master.person('Tobias Fenn'))).toEqual([]);
  });
});
