import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { orderOf, receive } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { notBilledTable, receivedNotBilled } from './unbilled.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
const on = (day: string, company = 'MBG') => receivedNotBilled(world.database.db, world.master.company(company), day);
const lines = async (day: string) => (await on(day)).lines.map((l) => [l.order, l.place, l.received, l.billed, l.net, l.base]);

describe('what is received and not billed', () => {
  it('at a day: what had come, less what posted bills of that day had billed, at the ordered prices', async () => {
    const order = await orderOf(world, supplier, { number: 'PO-1', lines: [{}, { description: 'Fleece', quantity: '10', unitPrice: '3.00', needsReceipt: false }] }); // prettier-ignore
    await receive(world, order, { [order.lines[0]!]: '60', [order.lines[1]!]: '10' });
    const dollars = await orderOf(world, supplier, { number: 'PO-2', currency: 'USD', lines: [{ description: 'Valve', quantity: '4', unitPrice: '25.00' }] }); // prettier-ignore
    await receive(world, dollars, { [dollars.lines[0]!]: '4' });
    // All of it came on 10 November. Sixty pots at 0.22; four valves at 25.00 dollars, at 0.8.
    expect(await lines('2026-11-09')).toEqual([]);
    const all = [
      ['PO-1', 1, '60', '0', '13.20', '13.20'],
      ['PO-2', 1, '4', '0', '100.00', '80.00'],
    ];
    expect(await lines('2026-11-10')).toEqual(all);
    expect(await on('2026-11-10')).toMatchObject({ total: '93.20', currency: 'GBP', withoutRate: 0 });
    expect(notBilledTable(await on('2026-11-10'))).toEqual({
      heads: ['Supplier', 'Order', 'Line', 'Description', 'Unit', 'Received', 'Billed', 'Not billed', 'Currency', 'In GBP'],
      rows: [
        [supplier, 'PO-1', '1', 'Terracotta pot, 2 l', 'pc', '60', '0', '13.20', 'GBP', '13.20'],
        [supplier, 'PO-2', '1', 'Valve', 'pc', '4', '0', '100.00', 'USD', '80.00'],
      ],
    });
    // A bill of twenty in hand changes nothing; once it is posted, forty are left from that day on.
    const pot = { description: 'Terracotta pot, 2 l', quantity: '20', unit: 'pc', unitPrice: '0.22', amount: '4.40' };
    await world.build.bill({ supplier, order: 'PO-1', number: 'B-1', lines: [pot] });
    expect(await lines('2026-11-10')).toEqual(all);
    const posted = await world.build.bill({
      supplier,
      order: 'PO-1',
      number: 'B-2',
      lines: [pot],
      stage: 'posted',
      entryDate: '2026-11-15',
    });
    await world.rows(`insert into line_match (id, company_id, bill_id, bill_line_id, order_line_id, quantity, why, how) select gen_random_uuid(), company_id, bill_id, id, $2, 20, 'same text', 'found' from bill_line where bill_id = $1`, posted, order.lines[0]); // prettier-ignore
    expect((await lines('2026-11-14'))[0]).toEqual(all[0]);
    expect((await lines('2026-11-15'))[0]).toEqual(['PO-1', 1, '60', '20', '8.80', '8.80']);
    // What goes back is not owed.
    await receive(world, order, { [order.lines[0]!]: '-40' });
    expect((await lines('2026-11-15')).map((l) => l[0])).toEqual(['PO-2']);
    expect((await on('2026-11-15', 'MNT')).lines).toEqual([]);
  });
});
