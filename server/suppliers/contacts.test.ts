import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { knownSuppliers } from '../bills/intake.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { changeSupplier } from './service.ts';
import { listSuppliers, supplierAccount } from './store.ts';

let world: World;
let id = '';
beforeAll(async () => {
  world = await makeWorld();
  id = world.master.supplier(world.someSupplier('MBG')!);
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG').id;
const account = () => supplierAccount(world.database.db, mbg(), id);
async function change(more: object) {
  const { name, taxId, email, phone, address, currency, terms, rowVersion } = await account();
  const body = { name, taxId, email, phone, address, currency, terms, coding: {}, rowVersion, ...more };
  await world.run(changeSupplier, await world.as('Ines Okafor'), { id }, body);
}
const lastEvent = async () => (await world.rows(`select before, after from event where subject_type = 'supplier' order by seq desc limit 1`))[0]; // prettier-ignore
const petra = { name: ' Petra Lindqvist ', about: 'Accounts', email: 'Petra@QH-Billing.example', phone: '' };

describe('a supplier’s contacts', () => {
  it('are kept in their order, tidied, in the event log in words, and left alone where nothing is said of them', async () => {
    await change({ contacts: [petra, { name: 'Oskar Brandt', about: null, email: null, phone: '01632 960001' }] });
    expect((await account()).contacts).toEqual([
      { name: 'Petra Lindqvist', about: 'Accounts', email: 'petra@qh-billing.example', phone: null },
      { name: 'Oskar Brandt', about: null, email: null, phone: '01632 960001' },
    ]);
    expect(await lastEvent()).toEqual({
      before: { contacts: null },
      after: { contacts: 'Petra Lindqvist · Accounts · petra@qh-billing.example; Oskar Brandt · 01632 960001' },
    });
    await change({ phone: '01632 960002' });
    expect((await account()).contacts).toHaveLength(2);
    await expect(change({ contacts: [{ ...petra, name: '' }] })).rejects.toMatchObject({ status: 400 });
  });
  it('tell the reader whose mail it is, and so do other tax numbers and every verified bank account', async () => {
    await change({ otherTaxIds: ['DE 811 907 980', 'DE811907980'], otherAddresses: [' Hafenstrasse 2, Bremen '] });
    await world.rows(`insert into bank_account (id, company_id, supplier_id, iban, verified_at, how) values (gen_random_uuid(), $1, $2, 'GB37XQZB00161331926819', now(), 'by hand')`, mbg(), id); // prettier-ignore
    const own = (await knownSuppliers(world.database.db, mbg())).find((s) => s.id === id)!;
    expect([own.emails, own.otherTaxIds, own.otherAddresses]).toEqual([['petra@qh-billing.example'], ['DE811907980'], ['Hafenstrasse 2, Bremen']]); // prettier-ignore
    expect([own.iban, ...own.ibans]).toContain('GB37XQZB00161331926819');
    const found = await listSuppliers(world.database.db, mbg(), 'DE811907980', null, 5);
    expect(found.map((s) => s.id)).toEqual([id]);
  });
  it('stand beside what holds its payments, which stops none of its bills', async () => {
    await change({ paymentsHeld: ' Disputed delivery ' });
    const [row] = await listSuppliers(world.database.db, mbg(), (await account()).name, null, 1);
    expect([row!.paymentsHeld, (await account()).paymentsHeld]).toEqual(['Disputed delivery', 'Disputed delivery']);
    const bill = await world.build.bill({});
    expect((await world.show(bill)).exceptions).toEqual([]);
    await change({ paymentsHeld: null });
    expect(await lastEvent()).toEqual({ before: { paymentsHeld: 'Disputed delivery' }, after: { paymentsHeld: null } });
  });
});
