import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { choicesFor } from '../accounts/choices.ts';
import { changeBill } from '../bills/change.ts';
import { postBills } from '../ledger/posting.ts';
import { orderOf, receive } from '../testing/orders.ts';
import { arrive, invoiceOf, makeWorld, sentAndApproved, testDay, type World } from '../testing/world.ts';
import { newItem } from './service.ts';
import { listItems } from './store.ts';

let world: World;
let supplier = '';
const mbg = () => world.master.company('MBG');
const item = (more: object) => ({ code: 'POT-2', name: 'Terracotta pot, 2 l', alsoCalled: null, unit: 'pc', price: null, currency: null, accountId: null, taxCodeId: null, stocked: true, active: true, ...more }); // prettier-ignore
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
  await world.run(newItem, await world.as('Kit Arden'), {}, item({ alsoCalled: 'clay pot 2 l' }));
  await world.run(newItem, await world.as('Kit Arden'), {}, item({ code: 'ADVICE', name: 'Advice by the hour', stocked: false }));
});
afterAll(() => world.close());
const version = async (id: string) => (await world.show(id)).rowVersion;
const change = async (id: string, ...operations: object[]) =>
  world.run(changeBill, await world.as('Ines Okafor'), { id }, { rowVersion: await version(id), operations });
const codes = async (id: string) => (await world.show(id)).exceptions.map((e) => `${e.code}: ${e.sentence}`);
const through = async (id: string) => {
  await sentAndApproved(world, id);
  await world.run(postBills, await world.as('Halina Voss'), {}, { key: `stock-${id}`, billIds: [id], entryDate: testDay });
};
const bought = async () => (await listItems(world.database.db, mbg().id, '', null, 9)).map((i) => [i.code, i.bought]);
const pots = (more: object = {}) => ({ description: 'Clay pot 2 l, glazed', quantity: '40', unitPrice: '2.50', amount: '100.00', ...more });

describe('what is bought into stock', () => {
  it('is told with what a row may take', async () => {
    const asker = { company: mbg(), me: { id: world.master.person('Ines Okafor') } };
    const choices = await choicesFor(world.database.db, asker, 'items', '', testDay);
    expect(choices.map((c) => [c.code, c.stocked ?? false])).toEqual([['ADVICE', false], ['POT-2', true]]); // prettier-ignore
  });
  it('makes its receipt when the bill is posted, and a credit note takes it back', async () => {
    const id = await world.build.bill({ supplier, number: 'ST-20411', lines: [pots(), { amount: '20.00', description: 'Advice' }] });
    const [row, advice] = (await world.show(id)).lines;
    await change(id, { do: 'set-kind', line: row!.id, kind: 'stock' });
    expect([await codes(id), await bought()]).toEqual([[], [['ADVICE', null], ['POT-2', '0']]]); // prettier-ignore
    await change(id, { do: 'set-kind', line: advice!.id, kind: 'stock' });
    expect(await codes(id)).toEqual([
      'stock-item: Row 2 is bought into stock and names no item that is kept there. Take one (Alt+I), or make it goods.',
      'stock-quantity: Row 2 is bought into stock and has no quantity.',
    ]);
    await change(id, { do: 'set-kind', line: advice!.id, kind: 'line' });
    await through(id);
    expect(await bought()).toEqual([['ADVICE', null], ['POT-2', '40']]); // prettier-ignore
    const [event] = await world.rows(`select note from event where subject_id = $1 and verb = 'received'`, id);
    expect(event.note).toBe('40 pc Terracotta pot, 2 l');
    // The ledger has it like any other row.
    const lines = await world.rows(`select l.debit from journal_line l join journal_entry e on e.id = l.entry_id where e.source_id = $1 order by l.position`, id); // prettier-ignore
    expect(lines.slice(0, 2).map((l) => l.debit)).toEqual(['100.00', '20.00']);
    const back = await world.build.bill({
      supplier,
      number: 'ST-20412',
      kind: 'credit-note',
      dueDate: null,
      lines: [pots({ quantity: '15', amount: '37.50' })],
    });
    await change(back, { do: 'set-kind', line: (await world.show(back)).lines[0]!.id, kind: 'stock' });
    await through(back);
    expect((await bought())[1]).toEqual(['POT-2', '25']);
    await expect(world.database.db.execute(`update item_receipt set quantity = 1`)).rejects.toMatchObject({ cause: { code: '42501' } });
  });
  it('of an order makes no receipt of its own: the order has one', async () => {
    const order = await orderOf(world, supplier, { lines: [{ quantity: '40', unitPrice: '2.50' }] });
    await receive(world, order, { [order.lines[0]!]: '40' });
    const id = await world.build.bill({ supplier, number: 'ST-20413', order: order.number, lines: [pots({ description: 'Terracotta pot, 2 l', unit: 'pc' })] }); // prettier-ignore
    await change(id, { do: 'set-kind', line: (await world.show(id)).lines[0]!.id, kind: 'stock' });
    await through(id);
    expect((await bought())[1]).toEqual(['POT-2', '25']);
  });
  it('is told when a document comes: rows of what is kept in stock are rows of stock', async () => {
    const sent = invoiceOf(0, { number: 'ST-20499', lines: 2 });
    const [first, second] = sent.lines;
    await world.run(newItem, await world.as('Kit Arden'), {}, item({ code: first!.code ?? 'FIRST', name: first!.text }));
    const kinds = (await world.show(await arrive(world, sent))).lines.map((l) => [l.description, l.kind]);
    expect(kinds).toEqual([[first!.text, 'stock'], [second!.text, 'line']]); // prettier-ignore
  });
});

it('an asset stands on an account of assets', async () => {
  const [own] = await world.rows(`select id from ledger_account where company_id = $1 and kind = 'asset' limit 1`, mbg().id);
  const id = await world.build.bill({ supplier, number: 'AS-30411', lines: [pots({ description: 'Ride-on mower' })] });
  const line = (await world.show(id)).lines[0]!.id;
  await change(id, { do: 'set-kind', line, kind: 'asset' });
  expect(await codes(id)).toEqual([
    'asset-account: Row 1 is an asset and on an account that is none of assets. Choose another, or make it goods.',
  ]);
  if (own) await change(id, { do: 'set-cell', line, field: 'accountId', value: own.id });
  expect(await codes(id)).toEqual([]);
});
