import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sendOn } from '../bills/moves.ts';
import { changeBill } from '../bills/change.ts';
import { settleException } from '../bills/settle.ts';
import { orderOf } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { exceptionSorts, openExceptions } from './list.ts';
import { exceptionCauses } from './open.ts';
import { settleMany } from './settle-many.ts';

let world: World;
let supplier = '';
const bills: string[] = [];
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
  const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false, quantity: '1000' }] });
  // Each costs 1.00 more than ordered: 23.00 and 20% tax are 27.60.
  for (let i = 0; i < 4; i++)
    bills.push(
      await world.build.bill({
        supplier,
        number: `X-${i}`,
        order: order.number,
        createdAt: new Date(Date.UTC(2026, 10, 10 + i)),
        lines: [{ description: 'Terracotta pot, 2 l', quantity: '100', unit: 'pc', unitPrice: '0.23', amount: '23.00' }],
      }),
    );
  await world.build.bill({ supplier, currency: 'EUR', number: 'E-1', lines: [{ amount: '100.00', account: null }] });
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const open = async (query: object = {}, who = 'Ines Okafor', roles = ['controller']) =>
  (await openExceptions(world.database.db, { ...mbg(), roles }, world.master.person(who), query, null, 100)).map((r) => r.row);
const cause = async (code: string) => (await exceptionCauses(world.database.db, mbg())).causes.find((c) => c.code === code);
const settle = async (body: object, who = 'Halina Voss') => world.run(settleMany, await world.as(who), {}, body);

describe('what is in doubt', () => {
  it('is counted by cause, with what is at stake once a bill and in the company’s currency', async () => {
    expect(await cause('order-price')).toMatchObject({ open: 4, stops: 4, bills: 4, amount: '110.40', ended: 0 });
    // 120.00 EUR at 0.85.
    expect(await cause('account-missing')).toMatchObject({ open: 1, bills: 1, amount: '102.00' });
    const causes = (await exceptionCauses(world.database.db, mbg())).causes.map((c) => c.code);
    expect(causes.indexOf('order-price')).toBeLessThan(causes.indexOf('account-missing'));
  });
  it('says what was found and what was expected, where each is one value', async () => {
    expect((await open({ code: 'order-price' })).map((e) => [e.found, e.expected])).toEqual(Array(4).fill(['0.23', '0.22']));
    expect(await open({ code: 'account-missing' })).toMatchObject([{ found: null, expected: null }]);
  });
  it('is listed by cause, words and hands, page by page', async () => {
    const all = await open({ code: 'order-price' });
    expect(all.map((e) => [e.invoiceNumber, e.settles])).toEqual([0, 1, 2, 3].map((i) => [`X-${i}`, 'overrule']));
    expect((await open({ q: 'X-2' })).map((e) => e.invoiceNumber)).toEqual(['X-2']);
    expect(await open({ q: '1.00 more' })).toHaveLength(4);
    await world.rows(`update bill set assignee_id = $1 where id = $2`, world.master.person('Ines Okafor'), bills[1]);
    expect((await open({ owner: 'me' })).map((e) => e.invoiceNumber)).toEqual(['X-1']);
    const [first] = all;
    const rest = await openExceptions(
      world.database.db,
      { ...mbg(), roles: [] },
      '',
      { code: 'order-price' },
      [first!.openedAt, first!.id],
      100,
    );
    expect(rest).toHaveLength(3);
    expect(await openExceptions(world.database.db, { ...world.master.company('MNT'), roles: [] }, '', {}, null, 100)).toEqual([]);
  });
  it('is sorted by stake in the company’s currency, by supplier and owner, and goes on from page to page either way', async () => {
    const sorted = async (query: object) => (await open(query)).map((e) => e.invoiceNumber);
    // 120.00 EUR at 0.85 is 102.00; the others are 27.60 each.
    expect((await sorted({ sort: 'stake', order: 'desc' }))[0]).toBe('E-1');
    expect((await sorted({ sort: 'stake' })).at(-1)).toBe('E-1');
    expect((await sorted({ sort: 'owner', order: 'desc' }))[0]).toBe('X-1');
    expect(await sorted({ owner: 'nobody', code: 'order-price' })).toEqual(['X-0', 'X-2', 'X-3']);
    expect(await sorted({ owner: world.master.person('Ines Okafor') })).toEqual(['X-1']);
    expect(await sorted({ owner: world.master.person('Tobias Fenn') })).toEqual([]);
    for (const sort of Object.keys(exceptionSorts) as (keyof typeof exceptionSorts)[])
      for (const order of ['asc', 'desc'] as const) {
        const whole = (await open({ sort, order })).map((e) => e.id);
        const pages: string[] = [];
        for (let after: [string, string] | null = null; ;) {
          const page = await openExceptions(world.database.db, { ...mbg(), roles: [] }, '', { sort, order }, after, 2);
          pages.push(...page.map((r) => r.row.id));
          if (page.length < 2) break;
          after = [page[1]!.key, page[1]!.row.id];
        }
        expect(pages, `${sort} ${order}`).toEqual(whole);
      }
    expect((await exceptionCauses(world.database.db, mbg())).owners).toEqual([
      { id: world.master.person('Ines Okafor'), name: 'Ines Okafor', open: 1 },
    ]);
  });
  it('is settled on many bills in one go, by those who may, with a reason; what ended meanwhile is left', async () => {
    const ids = (await open({ code: 'order-price' })).map((e) => e.id);
    const body = { code: 'order-price', how: 'overrule', exceptions: ids.slice(0, 3) };
    await expect(settle(body)).rejects.toMatchObject({ status: 422, errors: [{ path: 'reason' }] });
    await expect(settle({ ...body, reason: 'Agreed by telephone' }, 'Ines Okafor')).rejects.toMatchObject({ status: 403 });
    await expect(settle({ ...body, how: 'confirm' }, 'Ines Okafor')).rejects.toThrow('cannot be settled that way');
    await expect(settle({ ...body, code: 'account-missing', reason: 'because' })).rejects.toThrow('cannot be settled that way');
    const ines = await world.as('Ines Okafor');
    const { rowVersion, lines } = await world.show(bills[0]!);
    const row = { do: 'set-cell', line: lines[0]!.id };
    await world.run(changeBill, ines, { id: bills[0]! }, { rowVersion, operations: [{ ...row, field: 'amount', value: '22.00' }, { ...row, field: 'unitPrice', value: '0.22' }] }); // prettier-ignore
    expect(await settle({ ...body, reason: 'Agreed by telephone' })).toEqual({ settled: 2, left: 1 });
    expect(await cause('order-price')).toMatchObject({ open: 1, ended: 3, right: 1 });
    const log = await world.rows(`select note from event where verb = 'overruled' and subject_id = $1`, bills[1]);
    expect(log).toEqual([{ note: 'Agreed by telephone' }]);
    // Settled for good: it goes on, and nothing of it is open any more.
    await world.run(sendOn, ines, { id: bills[1]! }, { rowVersion: (await world.show(bills[1]!)).rowVersion });
    expect((await open({ code: 'order-price' })).map((e) => e.invoiceNumber)).toEqual(['X-3']);
    expect(await settle({ ...body, exceptions: [crypto.randomUUID()], reason: 'Agreed' })).toEqual({ settled: 0, left: 1 });
  });
  it('one by one and in one go are the same', async () => {
    const [last] = await open({ code: 'order-price' });
    const one = { code: last!.code, path: last!.path, key: last!.key, how: 'overrule', reason: 'Agreed by telephone' };
    const id = last!.billId;
    await world.run(settleException, await world.as('Halina Voss'), { id }, { rowVersion: (await world.show(id)).rowVersion, ...one });
    expect(await cause('order-price')).toMatchObject({ open: 0, ended: 4, right: 1 });
  });
});
