import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { setCheck } from '../checks/service.ts';
import { setCompany } from '../companies/service.ts';
import { newPerson, setRoles } from '../people/service.ts';
import { listPeople } from '../people/store.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { changeAccount, changeTaxCode, newAccount, newCostCentre, putRate } from './service.ts';
import { listAccounts, listCostCentres } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const kit = () => world.as('Kit Arden');
const codes = async (id: string) => (await world.show(id)).exceptions.map((e) => e.code);
const openRows = async (id: string) =>
  (await world.rows(`select code from bill_exception where bill_id = $1 and state = 'open' order by code`, id)).map((r) => r.code);
const always = { active: true, validFrom: null, validTo: null };
const account = {
  code: '6500',
  name: 'Tools',
  group: 'Garden',
  kind: 'expense',
  needsCostCentre: false,
  parentId: null,
  postable: true,
  taxCodeId: null,
  ...always,
};
const centre = { code: 'N', name: 'N', parentId: null, ownerId: null, ...always };

describe('the chart of accounts', () => {
  it('grows and changes at once; a code is used once', async () => {
    const { id } = await world.run(newAccount, await kit(), {}, account);
    await expect(world.run(newAccount, await kit(), {}, account)).rejects.toThrow('This account code is taken');
    await world.run(changeAccount, await kit(), { id }, { ...account, name: 'Hand tools' });
    const found = await listAccounts(world.database.db, world.master.company('MBG').id, 'hand', null, 10);
    expect(found.map((a) => [a.code, a.name])).toEqual([['6500', 'Hand tools']]);
  });
  it('a closed account stops bills under review that use it, and lets them go again when it is opened', async () => {
    const bill = await world.build.bill({ lines: [{ amount: '10.00', account: '6300' }] });
    const id = world.master.company('MBG').account('6300');
    const close = async (active: boolean) =>
      world.run(
        changeAccount,
        await kit(),
        { id },
        { ...account, code: '6300', name: 'Carriage inwards', group: 'expense', needsCostCentre: true, active },
      );
    await close(false);
    expect([await codes(bill), await openRows(bill)]).toEqual([['account-closed'], ['account-closed']]);
    await close(true);
    expect([await codes(bill), await openRows(bill)]).toEqual([[], []]);
  });
  it('holds for bills of its days: closed before the first and after the last', async () => {
    const { id } = await world.run(
      newAccount,
      await kit(),
      {},
      { ...account, code: '6502', validFrom: '2026-11-02', validTo: '2026-11-20' },
    );
    const dated = async (issueDate: string) => {
      const bill = await world.build.bill({ issueDate, dueDate: '2026-12-20', lines: [{ amount: '10.00' }] });
      await world.rows('update bill_line set account_id = $2 where bill_id = $1', bill, id);
      return codes(bill);
    };
    expect(await dated('2026-11-01')).toEqual(['account-closed']);
    expect(await dated('2026-11-02')).toEqual([]);
    expect(await dated('2026-11-20')).toEqual([]);
    expect(await dated('2026-11-21')).toEqual(['account-closed']);
    const backwards = { ...account, code: '6503', validFrom: '2026-11-02', validTo: '2026-11-01' };
    await expect(world.run(newAccount, await kit(), {}, backwards)).rejects.toThrow('The last day is before the first');
  });
  it('gathers sub-accounts: one that takes no lines itself stops a bill on it, and nothing stands under itself', async () => {
    const top = await world.run(newAccount, await kit(), {}, { ...account, code: '6600', name: 'Energy', postable: false });
    const sub = await world.run(newAccount, await kit(), {}, { ...account, code: '6601', name: 'Gas', parentId: top.id });
    const bill = await world.build.bill({ lines: [{ amount: '10.00' }] });
    await world.rows('update bill_line set account_id = $2 where bill_id = $1', bill, top.id);
    expect(await codes(bill)).toEqual(['account-gathers']);
    await world.rows('update bill_line set account_id = $2 where bill_id = $1', bill, sub.id);
    expect(await codes(bill)).toEqual([]);
    const under = (id: string, parentId: string) =>
      kit().then((as) => world.run(changeAccount, as, { id }, { ...account, code: '6600', name: 'Energy', postable: false, parentId }));
    await expect(under(top.id, top.id)).rejects.toThrow('cannot stand under itself');
    await expect(under(top.id, sub.id)).rejects.toThrow('cannot stand under itself');
    const elsewhere = world.master.company('MNT').account('6000');
    await expect(under(top.id, elsewhere)).rejects.toThrow('does not belong to this company');
    const shown = await listAccounts(world.database.db, world.master.company('MBG').id, '660', null, 10);
    expect(shown.map((a) => [a.code, a.parent, a.postable])).toEqual([['6600', null, false], ['6601', '6600 Energy', true]]); // prettier-ignore
  });
  it('an account that begins to need a cost centre asks for one', async () => {
    const { id } = await world.run(newAccount, await kit(), {}, { ...account, code: '6501' });
    const bill = await world.build.bill({ lines: [{ amount: '10.00', centre: null }] });
    await world.rows('update bill_line set account_id = $2 where bill_id = $1', bill, id);
    expect(await codes(bill)).toEqual([]);
    await world.run(changeAccount, await kit(), { id }, { ...account, code: '6501', needsCostCentre: true });
    expect(await openRows(bill)).toEqual(['cost-centre-missing']);
  });
  it('is paged without losing or repeating an account', async () => {
    for (let i = 0; i < 25; i++) await world.run(newAccount, await kit(), {}, { ...account, code: `9${String(i).padStart(3, '0')}` });
    const company = world.master.company('MBG').id;
    const whole = (await listAccounts(world.database.db, company, '', null, 200)).map((a) => a.code);
    const seen: string[] = [];
    let after: [string, string] | null = null;
    for (;;) {
      const page: { code: string; id: string }[] = await listAccounts(world.database.db, company, '', after, 7);
      seen.push(...page.map((a) => a.code));
      if (page.length < 7) break;
      after = [page.at(-1)!.code, page.at(-1)!.id];
    }
    expect(seen).toEqual(whole);
  });
});

describe('tax codes, rates and cost centres', () => {
  it('reverse charge without an account for what is owed is refused at its field', async () => {
    const own = world.master.company('MBG'),
      { id, companyId: _, ...code } = own.taxCode('S20');
    const change = world.run(changeTaxCode, await kit(), { id }, { ...code, reverseCharge: true, outputAccountId: null });
    await expect(change).rejects.toMatchObject({ status: 422, errors: [{ path: 'outputAccountId' }] });
    await expect(world.run(changeTaxCode, await kit(), { id }, { ...code, rate: '120' })).rejects.toThrow('between 0 and 100');
  });
  it('a rate that was missing lets the bills that waited for it go', async () => {
    const bill = await world.build.bill({ currency: 'CHF' });
    expect(await openRows(bill)).toEqual(['currency-unexpected', 'rate-missing']);
    await world.run(putRate, await kit(), {}, { currency: 'CHF', day: '2026-10-01', rate: '0.9' });
    expect(await openRows(bill)).toEqual(['currency-unexpected']);
    await expect(world.run(putRate, await kit(), {}, { currency: 'GBP', day: '2026-10-01', rate: '1' })).rejects.toThrow('own currency');
    await expect(world.run(putRate, await kit(), {}, { currency: 'CHF', day: '2026-10-02', rate: '0' })).rejects.toThrow('above zero');
  });
  it('a cost centre can be made by whoever may change settings, not by a clerk', async () => {
    await expect(world.run(newCostCentre, await world.as('Ines Okafor'), {}, centre)).rejects.toMatchObject({ status: 403 });
    const { id } = await world.run(newCostCentre, await world.as('Halina Voss'), {}, { ...centre, code: '300', name: 'Orchard' });
    const owned = { ...centre, code: '301', name: 'Apples', parentId: id, ownerId: world.master.person('Tobias Fenn') };
    await world.run(newCostCentre, await kit(), {}, owned);
    const elsewhere = world.run(newCostCentre, await world.as('Kit Arden', 'MNT'), {}, { ...owned, code: '302', parentId: null });
    await expect(elsewhere).rejects.toMatchObject({ status: 422, errors: [{ path: 'ownerId' }] });
    const [, apples] = await listCostCentres(world.database.db, world.master.company('MBG').id, '30', null, 10);
    expect(apples).toMatchObject({ code: '301', parent: '300 Orchard', owner: 'Tobias Fenn' });
  });
});

describe('checks', () => {
  it('that a company switches to ask, or off, do so at once for bills under review', async () => {
    const bill = await world.build.bill({ issueDate: '2026-11-02', dueDate: '2026-11-01' });
    expect((await world.show(bill)).exceptions).toEqual([expect.objectContaining({ code: 'due-early', severity: 'stops' })]);
    await world.run(setCheck, await kit(), { code: 'due-early' }, { severity: 'asks' });
    expect((await world.rows('select severity from bill_exception where bill_id = $1', bill))[0].severity).toBe('asks');
    await world.run(setCheck, await kit(), { code: 'due-early' }, { severity: 'off' });
    expect([await codes(bill), await openRows(bill)]).toEqual([[], []]);
    await world.run(setCheck, await kit(), { code: 'due-early' }, { severity: 'stops' });
    expect(await openRows(bill)).toEqual(['due-early']);
  });
});

describe('people', () => {
  const person = { name: 'Rowan Ash', email: 'rowan@marrowby.example', title: null, password: 'a good long one', roles: ['clerk'] };
  it('are added once, and from another company by their address alone', async () => {
    const { id } = await world.run(newPerson, await kit(), {}, person);
    await expect(world.run(newPerson, await kit(), {}, person)).rejects.toThrow('is here already');
    const there = await world.run(
      newPerson,
      await world.as('Kit Arden', 'MNT'),
      {},
      { ...person, email: 'ROWAN@marrowby.example', roles: ['approver'] },
    );
    expect(there.id).toBe(id);
    await expect(world.run(newPerson, await world.as('Halina Voss'), {}, { ...person, email: 'x@y.example' })).rejects.toMatchObject({
      status: 403,
    });
  });
  it('lose a role at once; the last administrator stays one, also when two take it from each other', async () => {
    const company = world.master.company('MBG').id;
    const [kitId, ines] = [world.master.person('Kit Arden'), world.master.person('Ines Okafor')];
    await expect(world.run(setRoles, await kit(), { id: kitId }, { roles: ['clerk'] })).rejects.toThrow('the only administrator');
    await world.run(setRoles, await kit(), { id: ines }, { roles: ['clerk', 'administrator'] });
    const both = await Promise.allSettled([
      world.run(setRoles, await kit(), { id: ines }, { roles: ['clerk'] }),
      world.run(setRoles, await world.as('Ines Okafor'), { id: kitId }, { roles: [] }),
    ]);
    expect(both.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
    const { people } = await listPeople(world.database.db, company);
    expect(people.filter((p) => p.roles.includes('administrator'))).toHaveLength(1);
  });
  it('alone in a company are told that a second person must approve', async () => {
    const company = world.master.company('JMB').id;
    expect((await listPeople(world.database.db, company)).lonely).toBe(false);
    await world.rows(`delete from membership where company_id = $1 and role = 'approver'`, company);
    expect((await listPeople(world.database.db, company)).lonely).toBe(true);
    await world.rows(`insert into membership values ($1, $2, 'approver')`, world.master.person('Ines Okafor'), company);
    expect((await listPeople(world.database.db, company)).lonely).toBe(true);
  });
});

describe('a company', () => {
  it('changes its name and address; another’s are refused', async () => {
    const as = await world.as('Kit Arden', 'MNT');
    await world.run(
      setCompany,
      as,
      {},
      {
        name: 'Marrowby Nursery Ltd',
        taxId: 'GB 402 772 011',
        mailAddress: 'New@Nursery.marrowby.example',
        queueOrder: 'due',
        suggests: false,
      },
    );
    expect(await world.rows('select name, tax_id, mail_address, suggests from company where id = $1', as.company.id)).toEqual([
      { name: 'Marrowby Nursery Ltd', tax_id: 'GB402772011', mail_address: 'new@nursery.marrowby.example', suggests: false },
    ]);
    const [{ name }] = await world.rows('select name from company where id = $1', world.master.company('MBG').id);
    await expect(world.run(setCompany, as, {}, { name, taxId: null, mailAddress: 'a@b.example', queueOrder: 'age' })).rejects.toThrow(
      'Another company has this name',
    );
  });
});
