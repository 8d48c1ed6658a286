import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newSupplier, changeSupplier } from '../suppliers/service.ts';
import { supplierItems } from '../suppliers/store.ts';
import { postBills } from '../ledger/posting.ts';
import { makeWorld, sentAndApproved, type World } from '../testing/world.ts';
import { openExceptions } from './list.ts';
import { verifyBill } from './verify.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const of = { email: null, phone: null, address: null, currency: 'GBP', terms: null };
const fresh = { ...of, iban: null },
  blank = { ...of, coding: {} };
const make = async (name: string, taxId: string) => world.run(newSupplier, await world.as('Ines Okafor'), {}, { ...fresh, name, taxId });
const doubtful = async (name: string) => {
  const supplier = await make(name, `GB${String(100000000 + name.length * 7919).slice(0, 9)}`);
  const id = await world.build.bill({ supplier: null, number: `${name}-1`, taxId: 'GB999' });
  await world.rows('update bill set supplier_id = $2, supplier_name = null where id = $1', id, supplier.id);
  await world.run(changeSupplier, await world.as('Tobias Fenn'), { id: supplier.id }, { ...blank, name, taxId: (await world.rows('select tax_id from supplier where id = $1', supplier.id))[0].tax_id, phone: '01632 960001', rowVersion: 1 }); // prettier-ignore
  return { id, supplier: supplier.id };
};
const said = { asked: 'Mrs Arden, accounts', how: 'Called the number we had' };
const verify = async (id: string, as = 'Halina Voss', more: object = {}) => {
  const [x] = await world.rows(`select code, path, key from bill_exception where bill_id = $1 and state = 'open' and code = 'tax-number-differs'`, id); // prettier-ignore
  return world.run(
    verifyBill,
    await world.as(as),
    { id },
    { ...(x ?? { code: 'tax-number-differs', path: 'supplierId', key: '' }), ...said, ...more },
  );
};
const codes = async (id: string) => (await world.show(id)).exceptions.map((e) => e.code);

describe('what is not as it is known of a supplier', () => {
  it('holds the payment until a second person has asked, who says whom and how', async () => {
    const { id, supplier } = await doubtful('Asked Ltd');
    expect(await codes(id)).toEqual(['tax-number-differs']);
    // It keeps the bill from nothing but its payment.
    await sentAndApproved(world, id);
    const halina = await world.as('Halina Voss');
    await postBills.perform(world.services, halina, {}, { key: 'held-bill', billIds: [id], entryDate: '2026-11-23' });
    const held = async () =>
      (await supplierItems(world.database.db, halina.company.id, supplier, 'open', null, 10)).map((r) => r.item.held);
    const listed = async () => (await openExceptions(world.database.db, halina.company, halina.me.id, { code: 'tax-number-differs' }, null, 100)).map((e) => e.row.billId); // prettier-ignore
    expect([await codes(id), await held(), await listed()]).toEqual([['tax-number-differs'], [true], [id]]);
    const done = await verify(id);
    expect(done.settled).toMatchObject([{ how: 'verify', person: 'Halina Voss', asked: said.asked, reason: said.how }]);
    expect([await codes(id), await held(), await listed()]).toEqual([[], [false], []]);
    const [event] = await world.rows(`select note from event where subject_id = $1 and verb = 'verified'`, id);
    expect(event.note).toBe('Asked Mrs Arden, accounts: Called the number we had');
    await expect(verify(id)).rejects.toThrow('settled meanwhile');
  });
  it('is not verified by who worked on the bill or changed the supplier, nor without a right to', async () => {
    const { id, supplier } = await doubtful('Second Pair Ltd');
    await expect(verify(id, 'Ines Okafor')).rejects.toMatchObject({ status: 403 });
    await expect(verify(id, 'Halina Voss', { asked: ' ' })).rejects.toMatchObject({ status: 400 });
    const [{ tax_id: taxId }] = await world.rows('select tax_id from supplier where id = $1', supplier);
    const change = { ...blank, name: 'Second Pair Ltd', taxId, phone: '01632 960002', rowVersion: 2 };
    await world.run(changeSupplier, await world.as('Halina Voss'), { id: supplier }, change);
    await expect(verify(id)).rejects.toThrow('A second person has to verify it');
    await expect(
      world.rows(`update bill_exception set state = 'settled', how = 'verify', settled_at = now(), asked = 'x', reason = 'x', person_id = $2 where bill_id = $1`, id, world.master.person('Halina Voss')), // prettier-ignore
    ).rejects.toMatchObject({ constraint: 'bill_exception_second_person' });
    expect((await verify(id, 'Kit Arden')).exceptions).toEqual([]);
  });
  it('does not end because somebody has put the page’s number into the supplier', async () => {
    const { id, supplier } = await doubtful('Quietly Changed Ltd');
    const change = { ...blank, name: 'Quietly Changed Ltd', taxId: 'GB999', rowVersion: 2, evenSo: true };
    await world.run(changeSupplier, await world.as('Ines Okafor'), { id: supplier }, change);
    expect(await codes(id)).toEqual(['tax-number-differs']);
    await expect(verify(id, 'Ines Okafor')).rejects.toMatchObject({ status: 403 });
    await verify(id);
    expect(await codes(id)).toEqual([]);
  });
  it('of another company’s bill nothing is said', async () => {
    const { id } = await doubtful('Elsewhere Ltd');
    const body = { code: 'tax-number-differs', path: 'supplierId', key: '', ...said };
    await expect(world.run(verifyBill, await world.as('Halina Voss', 'MNT'), { id }, body)).rejects.toMatchObject({ status: 404 });
  });
});
