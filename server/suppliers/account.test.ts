import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeWorld, type World } from '../testing/world.ts';
import { supplierAccount, supplierItems, type ItemKey } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const account = (id: string) => supplierAccount(world.database.db, world.master.company('MBG').id, id);
const items = (id: string, show: 'open' | 'settled' | 'all' = 'all', after: ItemKey | null = null, limit = 100) =>
  supplierItems(world.database.db, world.master.company('MBG').id, id, show, after, limit);
const posted = (number: string, amount: string, entryDate: string, more: object = {}) =>
  world.build.bill({ stage: 'posted', number, entryDate, lines: [{ amount }], ...more });
/** Sets the credit note's item against the bill's. */
const settle = (owed: string, back: string, amount: string) =>
  world.rows(
    `insert into settlement (id, company_id, owed_item_id, back_item_id, amount)
       select gen_random_uuid(), o.company_id, o.id, b.id, $3 from open_item o, open_item b where o.bill_id = $1 and b.bill_id = $2`,
    owed,
    back,
    amount,
  );

describe('a supplier’s account', () => {
  let id: string;
  beforeAll(() => {
    id = world.master.supplier(world.someSupplier('MBG')!);
  });
  it('of a supplier that never sent anything is empty', async () => {
    expect(await account(id)).toMatchObject({ open: [] });
    expect(await items(id)).toEqual([]);
  });
  it('lists what is open before what is settled, so that a short list never hides a debt', async () => {
    await posted('OLD-OPEN', '100.00', '2026-11-02');
    const owed = await posted('NEW-PAID', '50.00', '2026-11-20');
    const back = await posted('NEW-BACK', '50.00', '2026-11-21', { kind: 'credit-note', dueDate: null });
    await settle(owed, back, '60.00');
    const all = (await items(id)).map((r) => r.item);
    // 100 and a fifth of tax; 60 against 60 is nothing.
    expect(all.map((i) => [i.invoiceNumber, i.amount, i.open])).toEqual([
      ['OLD-OPEN', '120.00', '120.00'],
      ['NEW-BACK', '-60.00', '0.00'],
      ['NEW-PAID', '60.00', '0.00'],
    ]);
    expect((await items(id, 'open')).map((r) => r.item.invoiceNumber)).toEqual(['OLD-OPEN']);
    expect((await items(id, 'settled')).map((r) => r.item.invoiceNumber)).toEqual(['NEW-BACK', 'NEW-PAID']);
    // Page by page, one at a time, it is the same list.
    const paged: (string | null)[] = [];
    for (let at: ItemKey | null = null; ;) {
      const [row] = await items(id, 'all', at, 1);
      if (!row) break;
      paged.push(row.item.invoiceNumber);
      at = row.key;
    }
    expect(paged).toEqual(all.map((i) => i.invoiceNumber));
  });
  it('sums what is open by currency, parts already settled taken off', async () => {
    const owed = await posted('PART', '200.00', '2026-11-22');
    const back = await posted('PART-BACK', '25.00', '2026-11-22', { kind: 'credit-note', dueDate: null });
    await settle(owed, back, '30.00');
    await posted('EURO', '10.00', '2026-11-22', { currency: 'EUR' });
    // 120 + 240 − 30 and 12 euros.
    expect((await account(id)).open).toEqual([
      { currency: 'EUR', amount: '12.00' },
      { currency: 'GBP', amount: '330.00' },
    ]);
  });
  it('is not there for another company', async () => {
    const other = world.master.company('MNT').id;
    await expect(supplierAccount(world.database.db, other, id)).rejects.toMatchObject({ status: 404 });
    await expect(supplierItems(world.database.db, other, id, 'all', null, 9)).rejects.toMatchObject({ status: 404 });
  });
});
