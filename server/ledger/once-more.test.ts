import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { setCheck } from '../checks/service.ts';
import { retireAccount } from '../suppliers/bank.ts';
import { orderOf, receive } from '../testing/orders.ts';
import { makeWorld, sentAndApproved, testDay, type World } from '../testing/world.ts';
import { postBills } from './posting.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
let key = 0;
const post = async (...billIds: string[]) =>
  world.run(postBills, await world.as('Halina Voss'), {}, { key: `once-more-${++key}`, billIds, entryDate: testDay });
/** Sent on and approved by those who do it. */
async function approved(wish: object): Promise<string> {
  const id = await world.build.bill({ supplier, ...wish });
  await sentAndApproved(world, id);
  return id;
}
const stage = async (id: string) => (await world.rows('select stage from bill where id = $1', id))[0].stage;

describe('the checks run once more at posting', () => {
  it('where the same number, or one like it, has come since', async () => {
    const id = await approved({ number: 'OM-20411' });
    const twin = await world.build.bill({ supplier, number: 'OM-20411 ' });
    await expect(post(id)).rejects.toThrow('OM-20411 cannot be posted any more: Number OM-20411 from this supplier is already on');
    expect(await stage(id)).toBe('approved');
    await world.rows(`update bill set stage = 'discarded' where id = $1`, twin);
    await post(id);
    expect(await stage(id)).toBe('posted');
    const alike = await approved({ number: 'OM-30411' });
    await world.build.bill({ supplier, number: 'OM-304110' });
    await expect(post(alike)).rejects.toThrow('with a zero more or less, with the same total. Return it to have it settled.');
  });
  it('where its bank account does not count any more', async () => {
    const [account] = await world.rows(`select a.id, a.iban from bank_account a join supplier s on s.id = a.supplier_id where s.name = $1 and a.verified_at is not null`, supplier); // prettier-ignore
    const id = await approved({ number: 'OM-50001', iban: account.iban });
    const good = await approved({ number: 'OM-60001' });
    await world.run(retireAccount, await world.as('Halina Voss'), { id: account.id }, {});
    await expect(post(good, id)).rejects.toThrow('OM-50001 cannot be posted any more: The page asks for payment to');
    // All or none: the good one goes by itself.
    expect(await stage(good)).toBe('approved');
    await post(good);
    expect(await stage(good)).toBe('posted');
  });
  it('where the company makes more of a check than it did', async () => {
    const kit = await world.as('Kit Arden');
    const id = await approved({ number: 'OM-80001', currency: 'EUR' });
    const set = (severity: string) => world.run(setCheck, kit, { code: 'currency-unexpected' }, { severity });
    await set('stops');
    await expect(post(id)).rejects.toThrow('OM-80001 cannot be posted any more:');
    await set('asks');
    await post(id);
    expect(await stage(id)).toBe('posted');
  });
  it('where what had come of its order went back', async () => {
    const order = await orderOf(world, supplier);
    await receive(world, order, { [order.lines[0]!]: '100' });
    const pots = { description: 'Terracotta pot, 2 l', quantity: '100', unit: 'pc', unitPrice: '0.22', amount: '22.00' };
    const id = await approved({ number: 'OM-70001', order: order.number, lines: [pots] });
    await receive(world, order, { [order.lines[0]!]: '-30' });
    await expect(post(id)).rejects.toThrow(/OM-70001 cannot be posted any more: .*70.*Return it/);
    await receive(world, order, { [order.lines[0]!]: '30' });
    await post(id);
    expect(await stage(id)).toBe('posted');
  });
});
