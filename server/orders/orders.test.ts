import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { changeOrder, newOrder } from './service.ts';
import { findOrder, listOrders } from './store.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const ines = () => world.as('Ines Okafor');
const line = (more: object = {}) => ({ itemId: null, code: null, description: 'Terracotta pot, 2 l', quantity: '100', unit: 'piece', unitPrice: '0.22', coding: {}, ...more }); // prettier-ignore
const order = (more: object = {}) => ({ number: 'PO-1001', supplierId: world.master.supplier(supplier), orderDate: '2026-11-02', currency: 'GBP', note: null, active: true, lines: [line()], ...more }); // prettier-ignore
const make = async (more: object = {}, who = ines()) => (await world.run(newOrder, await who, {}, order(more))).id;

describe('an order', () => {
  it('is made and changed line by line; lines that are named stay what they are; the log has it in words', async () => {
    const id = await make({ lines: [line(), line({ description: 'Compost', quantity: '20', unitPrice: '8.40', coding: { accountId: mbg().account('6000') } })] }); // prettier-ignore
    const made = await findOrder(world.database.db, mbg().id, id);
    expect([made.net, made.lines.map((l) => [l.description, l.net, l.shown.map((s) => s.code)])]).toEqual([
      '190.00',
      [['Terracotta pot, 2 l', '22.00', []], ['Compost', '168.00', ['6000']]],
    ]); // prettier-ignore
    const [pots, soil] = made.lines.map((l) => l.id);
    const lines = [line({ id: soil, description: 'Compost, 80 l', quantity: '25', unitPrice: '8.40' }), line({ id: pots }), line({ description: 'Saucer', quantity: '10', unitPrice: '0.10' })]; // prettier-ignore
    await world.run(changeOrder, await ines(), { id }, order({ lines }));
    const now = await findOrder(world.database.db, mbg().id, id);
    expect(now.lines.map((l) => l.description)).toEqual(['Compost, 80 l', 'Terracotta pot, 2 l', 'Saucer']);
    expect(now.lines.slice(0, 2).map((l) => l.id)).toEqual([soil, pots]);
    const log = await world.rows(`select verb, after from event where subject_type = 'order' and subject_id = $1 order by seq`, id);
    expect(log.map((e) => e.verb)).toEqual(['made', 'changed']);
    expect(log[0].after).toMatchObject({ number: 'PO-1001', 'line 2': '20 piece Compost at 8.40 · 6000' });
    await world.run(changeOrder, await ines(), { id }, order({ lines: [line({ id: soil })] }));
    expect((await findOrder(world.database.db, mbg().id, id)).lines).toHaveLength(1);
  });
  it('is refused where it cannot be: a number twice, nothing ordered, another order’s line, another company’s things', async () => {
    const refused = (more: object) => expect(make({ number: 'PO-9', ...more })).rejects;
    await refused({ number: 'PO-1001' }).toThrow('There is an order of this number already');
    await refused({ lines: [] }).toMatchObject({ status: 400 });
    await refused({ lines: [line({ quantity: '0' })] }).toMatchObject({ status: 422, errors: [{ path: 'lines.0.quantity' }] });
    await refused({ lines: [line({ unitPrice: '-1' })] }).toMatchObject({ errors: [{ path: 'lines.0.unitPrice' }] });
    await refused({ lines: [line({ id: crypto.randomUUID() })] }).toThrow('not there any more');
    await refused({ lines: [line({ coding: { accountId: world.master.company('MNT').account('6000') } })] }).toThrow('does not belong to this company'); // prettier-ignore
    const [theirs] = await world.rows('select id from supplier where company_id = $1 limit 1', world.master.company('MNT').id);
    await refused({ supplierId: theirs.id }).toThrow('does not belong to this company');
    await expect(make({ number: 'PO-8' }, world.as('Marguerite Sable'))).rejects.toMatchObject({ status: 403 });
    await expect(world.rows('update order_line set quantity = -1')).rejects.toThrow('order_line_figures');
    expect(await world.rows(`select 1 from purchase_order where number in ('PO-8', 'PO-9')`)).toEqual([]);
  });
  it('comes to amounts of its currency: none after the point in yen, three in dinars', async () => {
    const of = async (number: string, currency: string) => {
      const id = await make({
        number,
        currency,
        lines: [line({ quantity: '3', unitPrice: '10.5555' }), line({ quantity: '1', unitPrice: '1' })],
      });
      const { net, lines } = await findOrder(world.database.db, mbg().id, id);
      const [listed] = await listOrders(world.database.db, mbg().id, { q: number }, null, 1);
      await world.rows('delete from order_line where order_id = $1', id);
      await world.rows('delete from purchase_order where id = $1', id);
      return [net, lines[0]!.net, listed!.net];
    };
    expect(await of('PO-J', 'JPY')).toEqual(['33', '32', '33']);
    expect(await of('PO-T', 'TND')).toEqual(['32.667', '31.667', '32.667']);
  });
  it('is listed with what it comes to, found by number, supplier and text, and only while open', async () => {
    await make({ number: 'PO-1002', orderDate: '2026-11-03', active: false, lines: [line({ description: 'Glass pane' })] });
    const list = async (query: object, after: [string, string] | null = null, limit = 10) =>
      (await listOrders(world.database.db, mbg().id, query, after, limit)).map((o) => [o.number, o.lines, o.net]);
    expect(await list({})).toEqual([['PO-1002', 1, '22.00'], ['PO-1001', 1, '22.00']]); // prettier-ignore
    expect(await list({ open: '1' })).toEqual([['PO-1001', 1, '22.00']]);
    expect(await list({ q: 'pane' })).toEqual([['PO-1002', 1, '22.00']]);
    expect(await list({ q: supplier.slice(0, 6) })).toHaveLength(2);
    const [first] = await listOrders(world.database.db, mbg().id, {}, null, 1);
    expect(await list({}, [first!.orderDate, first!.id])).toEqual([['PO-1001', 1, '22.00']]);
  });
});

describe('rows of a bill of an order', () => {
  const coded = async (purchaseOrder: string | null, rows: { description: string; quantity?: string; unitPrice?: string }[]) => {
    const id = await world.build.bill({ supplier: null, lines: rows.map((r) => ({ amount: '10.00', account: null, centre: null, code: null, ...r })) }); // prettier-ignore
    const set = async (operations: object[]) => world.run(changeBill, await ines(), { id }, { rowVersion: (await world.show(id)).rowVersion, operations }); // prettier-ignore
    await set([{ do: 'set', field: 'supplierId', value: world.master.supplier(supplier) }]);
    if (purchaseOrder) await set([{ do: 'set', field: 'purchaseOrder', value: purchaseOrder }]);
    return (await world.show(id)).lines;
  };
  it('are coded as ordered, before all else, by the number on the page however it is printed', async () => {
    const coding = (account: string) => ({ accountId: mbg().account(account), costCentreId: mbg().centre('210'), taxCodeId: mbg().taxCode('R5').id }); // prettier-ignore
    await make({ number: 'PO-2001', lines: [line({ coding: coding('6010') }), line({ description: 'Terracotta pot, 5 l', quantity: '40', unitPrice: '0.55', coding: coding('6300') })] }); // prettier-ignore
    const [five, two, other] = await coded('Order no. 2001', [
      { description: 'Terracotta pot 5 l', quantity: '40', unitPrice: '0.55' },
      { description: 'Terracotta pot 2 l', quantity: '60', unitPrice: '0.22' },
      { description: 'Carriage', quantity: '1', unitPrice: '10.00' },
    ]);
    expect([five!.accountId, two!.accountId]).toEqual([mbg().account('6300'), mbg().account('6010')]);
    expect([five!.costCentreId, other!.costCentreId === five!.costCentreId]).toEqual([mbg().centre('210'), false]);
    expect(five!.marks['accountId']!.proof).toBe('As ordered: PO-2001, line 2 (same text, same price, same quantity)');
    // The bill's 20% are not the order's code of 5%.
    expect(five!.taxCodeId).toBe(mbg().taxCode('S20').id);
  });
  it('are found among open orders where the page names none, and only if they are very like', async () => {
    const [same, like] = await coded(null, [
      { description: 'Terracotta pot, 5 l', quantity: '40', unitPrice: '0.55' },
      { description: 'Terracotta saucer', quantity: '3', unitPrice: '9.00' },
    ]);
    expect(same!.accountId).toBe(mbg().account('6300'));
    expect(like!.marks['accountId']?.proof ?? '').not.toContain('As ordered');
    await world.rows(`update purchase_order set active = false where number = 'PO-2001'`);
    const [closed] = await coded(null, [{ description: 'Terracotta pot, 5 l', quantity: '40', unitPrice: '0.55' }]);
    expect(closed!.marks['accountId']?.proof ?? '').not.toContain('As ordered');
    await world.rows(`update purchase_order set active = true where number = 'PO-2001'`);
  });
});
