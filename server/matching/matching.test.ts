import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { discard, sendOn } from '../bills/moves.ts';
import { findOrder, listOrders } from '../orders/store.ts';
import { changeOrder } from '../orders/service.ts';
import { orderOf, receive } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { setMatchingRules } from './rules.ts';
import { drawDebitNote, setMatch, setWithoutOrder } from './service.ts';
import { billOrders } from './view.ts';
import { waitForReceipt } from './waiting.ts';

let world: World;
let supplier = '',
  suppliers: string[] = [];
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
  const others = await world.rows(`select name from supplier where company_id = $1 and name <> $2 order by code`, mbg().id, supplier);
  suppliers = [supplier, ...others.map((o) => o.name)];
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const ines = () => world.as('Ines Okafor');
const pots = (quantity: string, unitPrice: string, amount: string, more: object = {}) => ({ description: 'Terracotta pot, 2 l', quantity, unit: 'pc', unitPrice, amount, ...more }); // prettier-ignore
const billOf = (order: string | undefined, ...lines: object[]) => world.build.bill({ supplier, lines, ...(order ? { order } : {}) });
const said = async (id: string) => (await world.show(id)).exceptions.map((e) => [e.code, e.severity, e.sentence]);
const version = async (id: string) => ({ rowVersion: (await world.show(id)).rowVersion });
const orders = (id: string) => billOrders(world.database.db, mbg().id, id, '2026-11-20');
const set = async (id: string, ...operations: object[]) =>
  world.run(changeBill, await ines(), { id }, { ...(await version(id)), operations });

describe('a bill beside its order', () => {
  it('that bills what was ordered and has come says nothing, however the number is printed', async () => {
    const order = await orderOf(world, supplier);
    await receive(world, order, { [order.lines[0]!]: '100' });
    const id = await billOf(`Your order ${order.number.slice(3)}`, pots('100', '0.22', '22.00'));
    expect(await said(id)).toEqual([]);
    expect((await orders(id)).lines).toMatchObject([{ order: order.number, place: 1, ordered: '100', received: '100', billed: '0', onBill: '100', price: '0.22', state: 'billed' }]); // prettier-ignore
    const [listed] = await listOrders(world.database.db, mbg().id, { q: order.number }, null, 1);
    expect(listed).toMatchObject({ received: 'all', billed: 'all' });
    const shown = await findOrder(world.database.db, mbg().id, order.id);
    expect(shown.bills).toMatchObject([{ id, net: '22.00', stage: 'read' }]);
    expect(shown.lines[0]).toMatchObject({ received: '100', billed: '100' });
  });
  it('says what costs more, what is more than ordered, and what has not come, each with its figures', async () => {
    const order = await orderOf(world, supplier, { lines: [{}, { description: 'Compost, 80 l', quantity: '20', unit: 'bag', unitPrice: '8.40' }] }); // prettier-ignore
    await receive(world, order, { [order.lines[0]!]: '100', [order.lines[1]!]: '12' });
    const id = await billOf(
      order.number,
      pots('120', '0.25', '30.00'),
      { description: 'Compost 80 l', quantity: '20', unit: 'bag', unitPrice: '8.40', amount: '168.00' },
      { description: 'Pallet charge', quantity: '1', unitPrice: '9.00', amount: '9.00' },
    );
    // 120 at 0.22 are 26.40.
    expect(await said(id)).toEqual([
      ['order-price', 'stops', `Row 1 costs 0.25 each; order ${order.number}, line 1 says 0.22: 3.60 more.`],
      ['order-quantity', 'stops', `Row 1 bills 120 pc; order ${order.number}, line 1 is for 100 pc.`],
      ['order-not-received', 'stops', `Row 2 bills 20 bag; of order ${order.number}, line 2, 12 bag have come so far.`],
      ['row-not-ordered', 'asks', 'Row 3 is in none of its orders.'],
    ]);
    await expect(world.run(sendOn, await ines(), { id }, await version(id))).rejects.toMatchObject({ status: 422 });
    // The price of the order, as the finding offers it.
    const change = (await world.show(id)).exceptions[0]!.changes[0]!;
    expect(change).toMatchObject({ kind: 'operations', label: 'Take the order’s price' });
    if (change.kind === 'operations') await set(id, ...change.operations);
    expect((await world.show(id)).lines[0]).toMatchObject({ unitPrice: '0.22', amount: '26.40' });
    expect((await said(id)).map(([code]) => code)).not.toContain('order-price');
  });
  it('of which a part was billed before counts that, on whichever of two bills comes later; a credit note gives it back', async () => {
    const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false }] });
    const first = await billOf(order.number, pots('70', '0.22', '15.40'));
    const second = await billOf(order.number, pots('40', '0.22', '8.80'));
    expect(await said(first)).toEqual([]);
    expect(await said(second)).toEqual([['order-quantity', 'stops', `Row 1 bills 40 pc; order ${order.number}, line 1 is for 100 pc, and 70 pc were billed before.`]]); // prettier-ignore
    const credit = await world.build.bill({ supplier, kind: 'credit-note', order: order.number, lines: [pots('10', '0.22', '2.20')], createdAt: new Date('2026-11-01T08:00:00Z') }); // prettier-ignore
    // It may still be discarded: it gives back once it has gone on.
    await set(second, { do: 'set', field: 'terms', value: 'net 14' });
    expect((await said(second)).map(([code]) => code)).toEqual(['order-quantity']);
    await world.run(sendOn, await ines(), { id: first }, await version(first));
    await world.run(sendOn, await ines(), { id: credit }, await version(credit));
    await set(second, { do: 'set', field: 'terms', value: 'net 30' });
    expect(await said(second)).toEqual([]);
  });
  it('in other units is converted; two rows bill one line, one row two lines', async () => {
    const order = await orderOf(world, supplier, { lines: [{ quantity: '144', needsReceipt: false }, { description: 'Cane', quantity: '10', unitPrice: '1', needsReceipt: false }, { description: 'Cane', quantity: '20', unitPrice: '1', needsReceipt: false }] }); // prettier-ignore
    const id = await billOf(order.number, pots('5', '2.64', '13.20', { unit: 'dozen' }), pots('7', '2.64', '18.48', { unit: 'dozen' }), {
      description: 'Cane',
      quantity: '30',
      unit: 'pc',
      unitPrice: '1.00',
      amount: '30.00',
    });
    expect(await said(id)).toEqual([]);
    expect((await orders(id)).lines.map((l) => [l.place, l.onBill, l.state])).toEqual([[1, '144', 'billed'], [2, '10', 'billed'], [3, '20', 'billed']]); // prettier-ignore
  });
  it('without a number on it is of its supplier’s open order only where all of it is, at its prices', async () => {
    await world.rows(`update purchase_order set active = false`);
    const order = await orderOf(world, supplier, { lines: [{ description: 'Slate chippings, 20 kg', quantity: '30', unit: 'bag', unitPrice: '6.10', needsReceipt: false }] }); // prettier-ignore
    const row = { description: 'Slate chippings 20 kg', quantity: '10', unit: 'bag', unitPrice: '6.10', amount: '61.00' };
    expect((await orders(await billOf(undefined, row))).lines).toMatchObject([{ order: order.number, onBill: '10' }]);
    for (const rows of [[{ ...row, unitPrice: '6.50', amount: '65.00' }], [row, pots('1', '5.00', '5.00')]])
      expect((await orders(await billOf(undefined, ...rows))).lines).toEqual([]);
  });
  it('with a carriage row that the order does not have offers to make it a charge, and its sum holds as before', async () => {
    const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false }] });
    const id = await billOf(order.number, pots('10', '0.22', '2.20'), { description: 'Carriage to site', quantity: '1', unitPrice: '12.00', amount: '12.00' }); // prettier-ignore
    const [found] = (await world.show(id)).exceptions;
    expect(found!.sentence).toBe('Row 2 looks like carriage, which its orders do not have.');
    const change = found!.changes[0]!;
    if (change.kind === 'operations') await set(id, ...change.operations);
    expect(await said(id)).toEqual([]);
    expect((await world.show(id)).lines.map((l) => [l.kind, l.amount])).toEqual([['line', '2.20'], ['charge', '12.00']]); // prettier-ignore
  });
  it('with a number that is no order is of none, whatever it looks like: the order that all rows are of is offered', async () => {
    await world.rows(`update purchase_order set active = false`);
    const order = await orderOf(world, supplier, { lines: [{ description: 'Birch bark, 40 l', quantity: '30', unit: 'bag', unitPrice: '7.20', needsReceipt: false }] }); // prettier-ignore
    const id = await billOf('PO-7777', { description: 'Birch bark 40 l', quantity: '10', unit: 'bag', unitPrice: '7.20', amount: '72.00' });
    expect(await said(id)).toEqual([['order-unknown', 'asks', `There is no order PO-7777 with this supplier. All rows are those of ${order.number}.`]]); // prettier-ignore
    expect((await orders(id)).lines).toEqual([]);
    const change = (await world.show(id)).exceptions[0]!.changes[0]!;
    if (change.kind === 'operations') await set(id, ...change.operations);
    expect(await said(id)).toEqual([]);
    expect((await orders(id)).lines).toMatchObject([{ order: order.number, onBill: '10' }]);
  });
  it('with a number that is not its supplier’s says whose it is; in another currency, and closed, it says so', async () => {
    const other = suppliers[1]!;
    const theirs = await orderOf(world, other);
    const codes = async (id: string) => (await said(id)).map(([code, , sentence]) => [code, sentence]);
    expect(await codes(await billOf(theirs.number, pots('3', '0.30', '0.90')))).toEqual([['order-unknown', `Order ${theirs.number} is with ${other}, not with this supplier.`]]); // prettier-ignore
    expect(await codes(await billOf('PO-9999', pots('3', '0.30', '0.90')))).toEqual([['order-unknown', 'There is no order PO-9999 with this supplier.']]); // prettier-ignore
    const dollars = await orderOf(world, supplier, { currency: 'USD', lines: [{ needsReceipt: false }] });
    await world.rows(`update purchase_order set active = false where id = $1`, dollars.id);
    expect((await codes(await billOf(dollars.number, pots('3', '0.30', '0.90')))).map(([code]) => code)).toEqual(['order-closed', 'order-currency']); // prettier-ignore
    expect(await said(await world.build.bill({ supplier: suppliers.at(-1)!, order: 'PO-9999' }))).toEqual([]);
  });
});

describe('what settles a difference', () => {
  it('tolerances of the company, both or one of them; every bill in hand is checked again', async () => {
    const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false }] });
    const id = await billOf(order.number, pots('100', '0.23', '23.00'));
    const rules = { pricePercent: '5', priceAmount: '0.50', quantityPercent: null, quantityAmount: null, which: 'stricter', passes: false };
    const codes = async (more: object = {}) => {
      await world.run(setMatchingRules, await world.as('Kit Arden'), {}, { ...rules, ...more });
      return (await said(id)).map(([code]) => code);
    };
    // 1.00 more on 22.00 is 4.5%.
    expect(await codes()).toEqual(['order-price']);
    expect(await codes({ which: 'looser' })).toEqual([]);
    expect(await codes({ priceAmount: null })).toEqual([]);
    expect(await codes({ pricePercent: '0', priceAmount: '0' })).toEqual(['order-price']);
    await expect(world.run(setMatchingRules, await ines(), {}, rules)).rejects.toMatchObject({ status: 403 });
    await expect(world.run(setMatchingRules, await world.as('Kit Arden'), {}, { ...rules, priceAmount: '-1' })).rejects.toThrow(
      'zero or more',
    );
  });
  it('waiting for the goods: aside, and back by itself with the receipt that brings enough', async () => {
    const order = await orderOf(world, supplier);
    const id = await billOf(order.number, pots('100', '0.22', '22.00'));
    expect((await said(id))[0]![2]).toContain('nothing has come so far');
    await world.run(waitForReceipt, await ines(), { id }, await version(id));
    const stage = async () => (await world.show(id)).stage;
    await receive(world, order, { [order.lines[0]!]: '60' });
    expect(await stage()).toBe('set-aside');
    await receive(world, order, { [order.lines[0]!]: '40' });
    expect(await stage()).toBe('read');
    expect(await said(id)).toEqual([]);
    await expect(world.run(waitForReceipt, await ines(), { id }, await version(id))).rejects.toThrow('All that this bill bills has come.');
    const log = await world.rows(`select verb, note from event where subject_id = $1 order by seq`, id);
    expect(log.slice(-2)).toEqual([
      { verb: 'set aside', note: 'Until the goods have come' },
      { verb: 'came back', note: 'The goods have come' },
    ]);
  });
  it('a debit note for all that is over, tax and all, coded as the rows; the bill goes on and is paid short', async () => {
    const order = await orderOf(world, supplier);
    await receive(world, order, { [order.lines[0]!]: '80' });
    const id = await world.build.bill({ supplier, number: 'INV-77', order: order.number, lines: [pots('100', '0.25', '25.00')] });
    // 100 times 0.03, and twenty that have not come at 0.22.
    expect((await orders(id)).debit).toBe('7.40');
    await world.run(drawDebitNote, await ines(), { id }, await version(id));
    expect(await said(id)).toEqual([]);
    const [note] = await world.rows(
      `select id, kind, net::text, tax::text, gross::text, made_from from bill where invoice_number = 'DN-INV-77'`,
    );
    expect(note).toMatchObject({ kind: 'credit-note', net: '7.40', tax: '1.48', gross: '8.88', made_from: id });
    const shown = await world.show(note.id);
    expect(shown.lines.map((l) => [l.description, l.amount, l.accountId])).toEqual([
      [`Row 1: 0.25 instead of 0.22 each, as ordered (${order.number}, line 1)`, '3.00', mbg().account('6000')],
      [`Row 1: 20 pc not received (${order.number}, line 1)`, '4.40', mbg().account('6000')],
    ]);
    expect(shown.exceptions).toEqual([]);
    await expect(world.run(drawDebitNote, await ines(), { id }, await version(id))).rejects.toThrow('settled meanwhile');
    await world.run(sendOn, await ines(), { id }, await version(id));
  });
  it('a debit note holds what it settled: let go of it is open again, it is not made less, and not let go once its bill has gone on', async () => {
    const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false }] });
    const drawn = async (number: string) => {
      const id = await world.build.bill({ supplier, number, order: order.number, lines: [pots('10', '0.25', '2.50')] });
      await world.run(drawDebitNote, await ines(), { id }, await version(id));
      const [note] = await world.rows(`select id from bill where invoice_number = $1 and stage <> 'discarded'`, `DN-${number}`);
      return { id, note: note.id as string };
    };
    const letGo = async (id: string) => world.run(discard, await ines(), { id }, { ...(await version(id)), note: 'Not needed' });
    const one = await drawn('INV-80');
    expect(await said(one.id)).toEqual([]);
    // A bill does not go before what was asked back of it.
    await expect(letGo(one.id)).rejects.toThrow('The debit note DN-INV-80 was drawn up for this bill. Discard that one first.');
    const line = (await world.show(one.note)).lines[0]!.id;
    await expect(set(one.note, { do: 'set-cell', line, field: 'amount', value: '0.01' })).rejects.toMatchObject({ status: 422 });
    await expect(set(one.note, { do: 'set', field: 'kind', value: 'invoice' })).rejects.toThrow('Discard it');
    await set(one.note, { do: 'set-cell', line, field: 'description', value: 'Too dear' });
    await letGo(one.note);
    expect((await said(one.id)).map(([code]) => code)).toEqual(['order-price']);
    await expect(world.run(sendOn, await ines(), { id: one.id }, await version(one.id))).rejects.toMatchObject({ status: 422 });
    const other = await drawn('INV-81');
    await world.run(sendOn, await ines(), { id: other.id }, await version(other.id));
    await expect(letGo(other.note)).rejects.toMatchObject({ status: 409 });
  });
  it('a row’s line by hand, none, or as the matching finds it; the bill as one of no order, and back', async () => {
    const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false }, { description: 'Saucer', unitPrice: '0.10', quantity: '50', needsReceipt: false }] }); // prettier-ignore
    const id = await billOf(order.number, pots('10', '0.22', '2.20'), { description: 'Dish', quantity: '2', unit: 'dozen', unitPrice: '1.20', amount: '2.40' }); // prettier-ignore
    const row = (await world.show(id)).lines[1]!.id;
    const match = async (more: object, who = ines()) => world.run(setMatch, await who, { id }, { ...(await version(id)), row, ...more });
    expect((await said(id)).map(([code]) => code)).toEqual(['row-not-ordered']);
    await match({ orderLineId: order.lines[1] });
    expect(await said(id)).toEqual([]);
    expect((await orders(id)).lines.map((l) => l.onBill)).toEqual(['10', '24']);
    await set(id, { do: 'set-cell', line: row, field: 'quantity', value: '3' });
    expect((await orders(id)).lines.map((l) => l.onBill)).toEqual(['10', '36']);
    await match({ orderLineId: null });
    expect(await said(id)).toEqual([]);
    await match({});
    expect((await said(id)).map(([code]) => code)).toEqual(['row-not-ordered']);
    await world.run(setWithoutOrder, await ines(), { id }, { ...(await version(id)), without: true });
    expect([await said(id), (await orders(id)).lines]).toEqual([[], []]);
    await world.run(setWithoutOrder, await ines(), { id }, { ...(await version(id)), without: false });
    expect((await orders(id)).lines).toHaveLength(1);
    const [theirs] = await world.rows(`select l.id from order_line l join purchase_order o on o.id = l.order_id where o.supplier_id <> $1 limit 1`, world.master.supplier(supplier)); // prettier-ignore
    await expect(match({ orderLineId: theirs.id })).rejects.toThrow('no order with this supplier');
    await expect(match({ orderLineId: null }, world.as('Marguerite Sable'))).rejects.toMatchObject({ status: 403 });
  });
});

describe('receipts', () => {
  it('are only added: what was wrong is taken back, never below nothing', async () => {
    const order = await orderOf(world, supplier, { lines: [{}, { description: 'Saucer' }] });
    const [pot, saucer] = order.lines as [string, string];
    await receive(world, order, { [pot]: '40', [saucer]: '100' }, 'DN 1');
    await receive(world, order, { [pot]: '-10' }, 'Back 1');
    const shown = await findOrder(world.database.db, mbg().id, order.id);
    expect(shown.lines.map((l) => l.received)).toEqual(['30', '100']);
    expect(shown.receipts.map((r) => [r.number, r.lines.length, r.person])).toEqual([['DN 1', 2, 'Ines Okafor'], ['Back 1', 1, 'Ines Okafor']]); // prettier-ignore
    await expect(receive(world, order, { [pot]: '-31' })).rejects.toThrow('More would go back than has come.');
    await expect(receive(world, order, { [pot]: '0' })).rejects.toMatchObject({ status: 422 });
    await expect(receive(world, order, { [pot]: '1' }, 'DN 1')).rejects.toMatchObject({ status: 409 });
    await expect(receive(world, { id: crypto.randomUUID() }, { [pot]: '1' })).rejects.toMatchObject({ status: 404 });
    const other = await orderOf(world, supplier);
    await expect(receive(world, other, { [pot]: '1' })).rejects.toThrow('not there any more');
    await expect(world.database.db.execute(sql`update receipt_line set quantity = 1`)).rejects.toMatchObject({ cause: { code: '42501' } });
  });
  it('keep an order’s lines: what has come or was billed is not taken off the order', async () => {
    const order = await orderOf(world, supplier, { lines: [{}, { description: 'Saucer' }] });
    await receive(world, order, { [order.lines[0]!]: '1' });
    const { number, supplierId, orderDate, currency, note, active, lines } = await findOrder(world.database.db, mbg().id, order.id);
    const { id, itemId, code, description, quantity, unit, unitPrice, coding } = lines[1]!;
    const put = { number, supplierId, orderDate, currency, note, active, lines: [{ id, itemId, code, description, quantity, unit, unitPrice, coding }] }; // prettier-ignore
    await expect(world.run(changeOrder, await ines(), { id: order.id }, put)).rejects.toThrow('has come or was billed');
  });
});
