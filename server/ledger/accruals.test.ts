import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { setUsual } from '../coding/usual.ts';
import { orderOf, receive } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { accrualOn, postAccrual } from './accruals.ts';
import { findEntry } from './store.ts';
import { setPeriod } from './periods.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const halina = () => world.as('Halina Voss');
const at = (on = '2026-11-30') => accrualOn(world.database.db, mbg(), on);
const post = async (total: string, on = '2026-11-30') => world.run(postAccrual, await halina(), {}, { on, total });
/** What stands on an account at the end of a day, in the books. */
const balance = async (code: string, day: string) =>
  (await world.rows(`select coalesce(sum(l.debit - l.credit), 0)::text as sum from journal_line l join journal_entry e on e.id = l.entry_id join ledger_account a on a.id = l.account_id where l.company_id = $1 and a.code = $2 and e.entry_date <= $3 and e.source_type = 'accrual'`, mbg().id, code, day))[0]!['sum']; // prettier-ignore
const set = async (code: string | null) =>
  world.run(setUsual, await world.as('Kit Arden'), {}, { coding: {}, accrualAccountId: code === null ? null : mbg().account(code) });
const period = async (month: number, open: boolean) => world.run(setPeriod, await halina(), {}, { year: 2026, month, open });

describe('what had come and was not billed at the end of a month', () => {
  it('is posted where the goods are, and taken back on the next day; what changes later is posted alone', async () => {
    const order = await orderOf(world, supplier, {
      number: 'PO-A',
      lines: [{}, { description: 'Compost, 80 l', quantity: '10', unit: 'bag', unitPrice: '6.60', account: '6010', centre: '210' }],
    });
    await receive(world, order, { [order.lines[0]!]: '100', [order.lines[1]!]: '5' });
    // 100 pots at 0.22, and five bags at 6.60.
    expect(await at()).toMatchObject({ backOn: '2026-12-01', account: null, total: '55.00', posted: [], troubles: [expect.stringContaining('no account')] }); // prettier-ignore
    await expect(post('55.00')).rejects.toMatchObject({ status: 422 });
    await set('2200');
    expect((await at()).lines.map((l) => [l.order, l.place, l.account, l.costCentre, l.amount])).toEqual([
      ['PO-A', 1, '6000', '200', '22.00'],
      ['PO-A', 2, '6010', '210', '33.00'],
    ]);
    expect(await at('2026-11-29')).toMatchObject({ troubles: ['It is posted for the last day of a month.'] });
    await expect(post('54.00')).rejects.toMatchObject({ status: 409 });
    await post('55.00');
    const sums = async (day: string) => [await balance('6000', day), await balance('6010', day), await balance('2200', day)];
    expect(await sums('2026-11-30')).toEqual(['22.00', '33.00', '-55.00']);
    expect((await sums('2026-12-01')).map(Number)).toEqual([0, 0, 0]);
    const [entry] = (await at()).posted;
    expect(entry).toMatchObject({ amount: '55.00', person: 'Halina Voss' });
    expect(await world.rows(`select reverses::text, description from journal_entry where id = $1`, entry!.backId)).toEqual([{ reverses: entry!.entryId, description: 'Taken back: received, not billed, Nov 2026' }]); // prettier-ignore
    // From either entry to the orders.
    for (const id of [entry!.entryId, entry!.backId])
      expect((await findEntry(world.database.db, (await world.as('Halina Voss')).company, id)).orders).toEqual([
        { id: order.id, number: 'PO-A' },
      ]);
    await expect(post('0')).rejects.toMatchObject({ status: 409, message: expect.stringContaining('Nothing is to be posted') });
    // Two bags more are found to have come, and the pots were billed in the month after all.
    await receive(world, order, { [order.lines[1]!]: '2' });
    const bill = await world.build.bill({ supplier, order: 'PO-A', number: 'A-1', stage: 'posted', entryDate: '2026-11-28', lines: [{ description: 'Terracotta pot, 2 l', quantity: '100', unit: 'pc', unitPrice: '0.22', amount: '22.00' }] }); // prettier-ignore
    await world.rows(`insert into line_match (id, company_id, bill_id, bill_line_id, order_line_id, quantity, why, how) select gen_random_uuid(), company_id, bill_id, id, $2, 100, 'same text', 'found' from bill_line where bill_id = $1`, bill, order.lines[0]); // prettier-ignore
    expect((await at()).lines.map((l) => l.amount)).toEqual(['-22.00', '13.20']);
    await post('-8.80');
    expect(await sums('2026-11-30')).toEqual(['0.00', '46.20', '-46.20']);
    expect((await sums('2026-12-01')).map(Number)).toEqual([0, 0, 0]);
    expect((await at()).posted.map((p) => p.amount)).toEqual(['55.00', '-8.80']);
  });
  it('needs both months open, a rate, and to know where the goods are; two at once post it once', async () => {
    const order = await orderOf(world, supplier, { number: 'PO-B', currency: 'USD', lines: [{ quantity: '10', unitPrice: '2.00' }] });
    await receive(world, order, { [order.lines[0]!]: '10' });
    // 20.00 dollars at 0.8; the compost that was not billed by the end of November is still there at the end of December.
    expect((await at('2026-12-31')).lines.map((l) => [l.order, l.amount])).toEqual([['PO-A', '46.20'], ['PO-B', '16.00']]); // prettier-ignore
    await period(12, false);
    await expect(post('16.00')).rejects.toMatchObject({ status: 422, message: expect.stringContaining('have to be open') });
    await period(12, true);
    await world.rows(`update order_line set account_id = null where id = $1`, order.lines[0]);
    await expect(post('16.00')).rejects.toMatchObject({ status: 422, message: expect.stringContaining('Give them an account at the order: order PO-B, line 1') }); // prettier-ignore
    await world.rows(`update order_line set account_id = $2 where id = $1`, order.lines[0], mbg().account('6000'));
    const twice = await Promise.allSettled([post('16.00'), post('16.00')]);
    expect(twice.map((t) => t.status).sort()).toEqual(['fulfilled', 'rejected']);
    await expect(world.database.db.execute(`delete from accrual`)).rejects.toThrow();
  });
  it('is for controllers', async () => {
    const clerk = await world.as('Ines Okafor');
    await expect(world.run(postAccrual, clerk, {}, { on: '2026-11-30', total: '1' })).rejects.toMatchObject({ status: 403 });
  });
});
