import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { sendOn } from '../bills/moves.ts';
import { previewOf } from '../ledger/journal.ts';
import { orderOf, receive } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { findGoods } from './goods.ts';
import { shareCharge, showShares } from './service.ts';

let world: World;
let supplier = '',
  haulier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
  haulier = (await world.rows(`select name from supplier where company_id = $1 and name <> $2 and currency = 'GBP' order by code limit 1`, mbg().id, supplier))[0]!['name'] as string; // prettier-ignore
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const ines = () => world.as('Ines Okafor');
const version = async (id: string) => ({ rowVersion: (await world.show(id)).rowVersion });
const said = async (id: string) => (await world.show(id)).exceptions.filter((e) => e.code === 'charge-shared').map((e) => e.sentence);

/** An order of pots (22.00, at the shop) and compost (66.00, at the nursery) that came, and a haulier's bill for bringing them. */
async function brought(amount = '8.80') {
  const order = await orderOf(world, supplier, {
    lines: [{ weight: '0.5' }, { description: 'Compost, 80 l', quantity: '10', unit: 'bag', unitPrice: '6.60', account: '6010', centre: '210', weight: '40' }], // prettier-ignore
  });
  await receive(world, order, { [order.lines[0]!]: '100', [order.lines[1]!]: '10' });
  const goods = await findGoods(world.database.db, mbg(), { q: order.number });
  const id = await world.build.bill({ supplier: haulier, lines: [{ kind: 'charge', description: 'Carriage', amount, account: '6300', centre: '200' }] }); // prettier-ignore
  const row = (await world.show(id)).lines[0]!.id;
  const share = async (basis: string | null, of: { id: string; amount?: string }[] = goods) =>
    world.run(shareCharge, await ines(), { id }, { ...(await version(id)), row, basis, goods: basis === null ? [] : of.map((g) => ({ id: g.id, amount: g.amount ?? null })) }); // prettier-ignore
  const amounts = async () => {
    const { goods: of } = await showShares(world.database.db, mbg(), id, row);
    return Object.fromEntries(of.map((g) => [g.description.split(/[ ,]/)[0], g.amount]));
  };
  const posted = async () =>
    (await previewOf(world.database.db, (await ines()).company, id, '2026-11-20')).lines.map((l) => [l.account, l.costCentre, l.description, l.debit, l.credit]); // prettier-ignore
  return { order, goods, id, row, share, amounts, posted };
}

describe('a charge shared over what came', () => {
  it('is found by order, receipt, words and day, with its value and where it is', async () => {
    const { order, goods } = await brought();
    expect(goods.map((g) => [g.order, g.description, g.quantity, g.value, g.shown.map((s) => s.code)])).toEqual([
      [order.number, 'Terracotta pot, 2 l', '100', '22.00', ['6000', '200']],
      [order.number, 'Compost, 80 l', '10', '66.00', ['6010', '210']],
    ]);
    const found = async (query: object) =>
      (await findGoods(world.database.db, mbg(), query)).filter((g) => g.order === order.number).length;
    expect([await found({ q: `compost ${goods[0]!.receipt}` }), await found({ q: supplier, from: '2026-11-10', to: '2026-11-10' })]).toEqual([1, 2]); // prettier-ignore
    expect([await found({ from: '2026-11-11' }), await found({ to: '2026-11-09' }), await found({ q: '%' })]).toEqual([0, 0, 0]);
    // What went back bears nothing, and another company has nothing of it.
    await receive(world, order, { [order.lines[0]!]: '-5' });
    expect((await findGoods(world.database.db, mbg(), { q: order.number })).length).toBe(2);
    expect(await findGoods(world.database.db, world.master.company('MNT'), { q: order.number })).toEqual([]);
  });
  it('goes by what is asked for, and is posted to where the goods are', async () => {
    const { share, amounts, posted, id } = await brought();
    await share('value');
    expect(await amounts()).toEqual({ Terracotta: '2.20', Compost: '6.60' });
    expect(await posted()).toEqual([
      expect.arrayContaining(['6000', '200', 'Carriage for Terracotta pot, 2 l', '2.20']),
      expect.arrayContaining(['6010', '210', 'Carriage for Compost, 80 l', '6.60']),
      expect.arrayContaining(['1.76', '0']),
      expect.arrayContaining(['0', '10.56']),
    ]);
    await share('weight');
    // 50 kg and 400 kg: 8.80 / 9 is 0.9777…
    expect(await amounts()).toEqual({ Terracotta: '0.98', Compost: '7.82' });
    await share('by-hand', (await showShares(world.database.db, mbg(), id, (await world.show(id)).lines[0]!.id)).goods.map((g, i) => ({ ...g, amount: i === 0 ? '8.00' : '0.80' }))); // prettier-ignore
    expect(Object.values(await amounts()).sort()).toEqual(['0.80', '8.00']);
    await share(null);
    expect((await posted())[0]).toEqual(['6300', '200', 'Carriage', '8.80', '0']);
  });
  it('follows the row when its amount changes; by hand it is held back until it fits again', async () => {
    const { share, amounts, id, row, goods } = await brought();
    const amount = async (value: string) =>
      world.run(changeBill, await ines(), { id }, { ...(await version(id)), operations: [{ do: 'set-cell', line: row, field: 'amount', value }] }); // prettier-ignore
    await share('value');
    await amount('17.60');
    expect(await amounts()).toEqual({ Terracotta: '4.40', Compost: '13.20' });
    await share('by-hand', goods.map((g, i) => ({ ...g, amount: i === 0 ? '7.60' : '10.00' }))); // prettier-ignore
    await amount('20.00');
    expect(await said(id)).toEqual(['Row 1, as it is shared: 2.40 is still to be shared.']);
    await expect(world.run(sendOn, await ines(), { id }, await version(id))).rejects.toMatchObject({ status: 422 });
    await share('value');
    expect(await said(id)).toEqual([]);
  });
  it('needs no account of its own, and says what is wrong with where goods are', async () => {
    const { share, id, row } = await brought();
    await world.run(changeBill, await ines(), { id }, { ...(await version(id)), operations: [{ do: 'set-cell', line: row, field: 'accountId', value: null }] }); // prettier-ignore
    const codes = async () => (await world.show(id)).exceptions.map((e) => e.code);
    expect(await codes()).toContain('account-missing');
    await share('equally');
    expect(await codes()).not.toContain('account-missing');
    await world.rows(`update ledger_account set active = false where company_id = $1 and code = '6010'`, mbg().id);
    const closed = (await world.show(id)).exceptions.map((e) => e.sentence).filter((s) => s.includes('closed'));
    expect(closed).toHaveLength(1);
    expect(closed[0]).toMatch(/^Row 1(, for Compost, 80 l,)? is on an account that is closed/);
    await world.rows(`update ledger_account set active = true where company_id = $1 and code = '6010'`, mbg().id);
  });
  it('of which a part has nowhere to go is held back, not only when it is posted', async () => {
    const { share, id, row, order } = await brought();
    await world.run(changeBill, await ines(), { id }, { ...(await version(id)), operations: [{ do: 'set-cell', line: row, field: 'accountId', value: null }] }); // prettier-ignore
    await world.rows(`update order_line set account_id = null, cost_centre_id = null where order_id = $1 and description like 'Compost%'`, order.id); // prettier-ignore
    await share('equally');
    // Whichever part comes first: either the row itself, or its part for the compost, says so.
    const stops = (await world.show(id)).exceptions.filter((e) => e.severity === 'stops').map((e) => e.sentence);
    expect(stops).toEqual([expect.stringMatching(/^Row 1(, for Compost, 80 l,)? needs an account/)]);
    await expect(world.run(sendOn, await ines(), { id }, await version(id))).rejects.toMatchObject({ status: 422 });
  });
  it('is posted to the cent in another currency, with tax in its prices, and on a credit note', async () => {
    for (const of of [
      { currency: 'USD' },
      { currency: 'USD', kind: 'credit-note' as const },
      { tax: '0.00', gross: '10.00', priced: true },
    ]) {
      const { goods } = await brought();
      const { priced = false, ...wish } = of as { priced?: boolean; tax?: string };
      const id = await world.build.bill({
        supplier: haulier,
        ...wish,
        lines: [{ kind: 'charge', description: 'Carriage', amount: '10.00' }],
      });
      // Prices of 10.00 with a fifth of tax in them: 8.33 and 1.67.
      if (priced) await world.rows(`update bill set prices_include_tax = true, tax = 1.67, net = 8.33 where id = $1`, id);
      const row = (await world.show(id)).lines[0]!.id;
      await world.run(shareCharge, await ines(), { id }, { ...(await version(id)), row, basis: 'value', goods: goods.map((g) => ({ id: g.id, amount: null })) }); // prettier-ignore
      const { lines } = await previewOf(world.database.db, (await ines()).company, id, '2026-11-20');
      const side = (key: 'debit' | 'credit') => lines.reduce((sum, l) => sum + Math.round(Number(l[key]) * 100), 0);
      expect(side('debit')).toBe(side('credit'));
      const borne = lines.filter((l) => l.description.startsWith('Carriage for ')).map((l) => Math.abs(Number(l.currencyAmount)));
      // 2.50 and 7.50; without the tax 2.08 and 6.25.
      expect([...borne].sort()).toEqual(priced ? [2.08, 6.25] : [2.5, 7.5]);
    }
  });
  it('is refused where it cannot be: no charge, other goods, not to the cent, twice, sent on', async () => {
    const { share, goods, id, order } = await brought();
    await expect(share('volume')).rejects.toMatchObject({ status: 422, message: expect.stringContaining('no volume') });
    await expect(share('value', [])).rejects.toMatchObject({ status: 422 });
    await expect(share('value', [goods[0]!, goods[0]!])).rejects.toMatchObject({ status: 422 });
    await expect(share('value', [{ id: '018f0000-0000-7000-8000-000000000000' }])).rejects.toMatchObject({ status: 409 });
    await expect(share('by-hand', goods.map((g) => ({ ...g, amount: '1.00' })))).rejects.toMatchObject({ status: 422, message: '6.80 is still to be shared.' }); // prettier-ignore
    await expect(share('by-hand', [{ ...goods[0]!, amount: '4.405' }, { ...goods[1]!, amount: '4.395' }])).rejects.toMatchObject({ status: 422 }); // prettier-ignore
    const other = await world.build.bill({ supplier, order: order.number, lines: [{ description: 'Terracotta pot, 2 l', quantity: '100', unitPrice: '0.22', amount: '22.00' }] }); // prettier-ignore
    const line = (await world.show(other)).lines[0]!.id;
    await expect(world.run(shareCharge, await ines(), { id: other }, { ...(await version(other)), row: line, basis: 'value', goods: [{ id: goods[0]!.id, amount: null }] })).rejects.toMatchObject({ status: 422 }); // prettier-ignore
    // What it bills itself is what it is likely to be shared over.
    expect((await showShares(world.database.db, mbg(), other, line)).suggested.map((g) => g.description)).toEqual(['Terracotta pot, 2 l']);
    await share('value');
    await world.run(sendOn, await ines(), { id }, await version(id));
    await expect(world.rows(`delete from charge_share where receipt_line_id = $1`, goods[0]!.id)).rejects.toMatchObject({ constraint: 'bill_sent_stays' }); // prettier-ignore
    await expect(share(null)).rejects.toMatchObject({ status: 409 });
  });
});
