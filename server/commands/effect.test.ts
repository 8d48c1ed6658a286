import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changeAccount } from '../accounts/service.ts';
import { setCheck } from '../checks/service.ts';
import { companySettings, setCompany } from '../companies/service.ts';
import { changeSupplier } from '../suppliers/service.ts';
import { makeWorld, type World } from '../testing/world.ts';

let world: World;
let bills: string[] = [];
beforeAll(async () => {
  world = await makeWorld();
  bills = await world.build.bills(3, (i) => ({ number: `E-${i}`, lines: [{ amount: '10.00', account: i < 2 ? '6000' : '6010' }] }));
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const kit = () => world.as('Kit Arden');
const closing = { code: '6000', name: 'Growing media', group: 'expense', kind: 'expense', needsCostCentre: false, parentId: null, postable: true, taxCodeId: null, active: false, validFrom: null, validTo: null }; // prettier-ignore
const findings = async () => (await world.rows(`select bill_id, code, state from bill_exception order by 1, 2`)) as object[];

describe('what a change would do to bills in hand', () => {
  it('is told with one of them, and nothing of it is kept', async () => {
    const before = [await findings(), await world.rows('select count(*)::int as n from event'), await world.rows('select id, row_version from bill order by id')]; // prettier-ignore
    const effect = await changeAccount.effect(world.services, await kit(), { id: mbg().account('6000') }, closing);
    expect(effect).toEqual({
      found: [
        {
          code: expect.stringMatching(/account/),
          severity: 'stops',
          bills: 2,
          example: { billId: bills[0], invoiceNumber: 'E-0', sentence: expect.stringContaining('closed') },
        },
      ],
      gone: [],
    });
    expect((await world.rows('select active from ledger_account where id = $1', mbg().account('6000')))[0]).toEqual({ active: true });
    expect([await findings(), await world.rows('select count(*)::int as n from event'), await world.rows('select id, row_version from bill order by id')]).toEqual(before); // prettier-ignore
  });
  it('is just what the change then does', async () => {
    const params = { id: mbg().account('6000') };
    const told = await changeAccount.effect(world.services, await kit(), params, closing);
    await world.run(changeAccount, await kit(), params, closing);
    const stopped = await world.rows(`select distinct bill_id from bill_exception where state = 'open' and code = $1`, told.found[0]!.code);
    expect(stopped).toHaveLength(told.found[0]!.bills);
    const back = await changeAccount.effect(world.services, await kit(), params, { ...closing, active: true });
    expect([back.found, back.gone.map((t) => t.bills)]).toEqual([[], [2]]);
    await world.run(changeAccount, await kit(), params, { ...closing, active: true });
  });
  it('counts each bill once, and says where nothing follows', async () => {
    const { baseCurrency: _, country: _c, ...now } = await companySettings(world.database.db, mbg().id);
    expect(await setCompany.effect(world.services, await kit(), {}, { ...now, queueOrder: 'due' })).toEqual({ found: [], gone: [] });
    const [code] = await world.rows(`select code from bill_exception where state = 'open' limit 1`);
    expect(code).toBeUndefined();
  });
  it('is asked for by those who may make it, and refused as the change would be', async () => {
    const asClerk = changeAccount.effect(world.services, await world.as('Ines Okafor'), { id: mbg().account('6000') }, closing);
    await expect(asClerk).rejects.toMatchObject({ status: 403 });
    const taken = changeAccount.effect(world.services, await kit(), { id: mbg().account('6000') }, { ...closing, code: '6010' });
    await expect(taken).rejects.toThrow('This account code is taken');
    const theirs = changeAccount.effect(world.services, await kit(), { id: world.master.company('MNT').account('6000') }, closing);
    await expect(theirs).rejects.toMatchObject({ status: 404 });
    await expect(setCheck.effect(world.services, await kit(), { code: 'no-such' }, { severity: 'off' })).rejects.toMatchObject({
      status: 404,
    });
  });
  it('is told for a supplier and a check', async () => {
    const [own] = await world.rows(`select s.* from supplier s join bill b on b.supplier_id = s.id where b.id = $1`, bills[0]);
    const body = { name: own.name, taxId: own.tax_id, email: own.email, phone: own.phone, address: own.address, currency: own.currency, terms: own.terms, coding: {}, rowVersion: own.row_version, blocked: 'Moved away' }; // prettier-ignore
    const blocked = await changeSupplier.effect(world.services, await world.as('Halina Voss'), { id: own.id }, body);
    expect(blocked.found).toMatchObject([{ code: 'supplier-blocked', severity: 'stops', bills: 3 }]);
    await world.run(changeSupplier, await world.as('Halina Voss'), { id: own.id }, body);
    await world.rows(`update supplier set tax_id = (select tax_id from supplier where id = $1) where id = (select id from supplier where company_id = $2 and id <> $1 limit 1)`, own.id, mbg().id); // prettier-ignore
    await world.rows(`update supplier set tax_id = coalesce(tax_id, 'GB1') where id = $1 or tax_id is null`, own.id);
    const stops = await setCheck.effect(world.services, await kit(), { code: 'tax-number-shared' }, { severity: 'stops' });
    expect(stops.found).toMatchObject([{ code: 'tax-number-shared', severity: 'stops', bills: 3 }]);
  });
});
