import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settleException } from '../bills/settle.ts';
import { getBill } from '../bills/show.ts';
import { orderOf } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { openExceptions } from './list.ts';
import { listChecks, setCheck } from './service.ts';
import { settleMany } from './settle-many.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const code = 'order-price';
const set = async (body: object, check = code) => world.run(setCheck, await world.as('Kit Arden'), { code: check }, body);

/** A bill that is dearer than its order, and what each person may do about it. */
async function dearer() {
  const order = await orderOf(world, supplier, { lines: [{ needsReceipt: false }] });
  const id = await world.build.bill({ supplier, order: order.number, lines: [{ description: 'Terracotta pot, 2 l', quantity: '100', unit: 'pc', unitPrice: '0.23', amount: '23.00' }] }); // prettier-ignore
  const offered = async (...roles: string[]) =>
    (await getBill(world.database.db, { ...mbg(), roles }, id, '2026-11-20')).exceptions.find((e) => e.code === code)!.settledBy;
  const overrule = async (who: string) => {
    const { rowVersion, exceptions } = await world.show(id);
    const { path, key } = exceptions.find((e) => e.code === code)!;
    return world.run(
      settleException,
      await world.as(who),
      { id },
      { rowVersion, code, path, key, how: 'overrule', reason: 'agreed with them' },
    );
  };
  return { id, offered, overrule };
}

describe('who may overrule what a check finds', () => {
  it('is for controllers, where a company has said nothing', async () => {
    const { offered, overrule } = await dearer();
    expect([await offered('clerk'), await offered('approver'), await offered('controller')]).toEqual([[], [], ['overrule']]);
    await expect(overrule('Ines Okafor')).rejects.toMatchObject({ status: 403, message: expect.stringMatching(/overruled by controllers alone/) }); // prettier-ignore
    await overrule('Halina Voss');
  });
  it('is for whom the company lets, on one bill and on many, and for nobody where it says so', async () => {
    await set({ overruledBy: 'clerks' });
    const one = await dearer();
    expect(await one.offered('clerk')).toEqual(['overrule']);
    await one.overrule('Ines Okafor');
    await set({ overruledBy: 'approvers' });
    const two = await dearer();
    expect([await two.offered('clerk'), await two.offered('approver')]).toEqual([[], ['overrule']]);
    const [found] = (await openExceptions(world.database.db, { ...mbg(), roles: ['clerk'] }, '', { code }, null, 10)).map((r) => r.row).filter((e) => e.billId === two.id); // prettier-ignore
    expect(found!.settles).toBeNull();
    const many = async (who: string) => world.run(settleMany, await world.as(who), {}, { code, how: 'overrule', reason: 'agreed', exceptions: [found!.id] }); // prettier-ignore
    await expect(many('Ines Okafor')).rejects.toMatchObject({ status: 403 });
    expect(await many('Marguerite Sable')).toEqual({ settled: 1, left: 0 });
    await set({ overruledBy: 'nobody' });
    const three = await dearer();
    expect(await three.offered('controller')).toEqual([]);
    await expect(three.overrule('Halina Voss')).rejects.toMatchObject({ status: 403, message: expect.stringMatching(/lets nobody/) });
  });
  it('is set beside how severe it is: neither changes the other, both are in the event log', async () => {
    await set({ overruledBy: 'approvers' });
    await set({ severity: 'asks' });
    const now = async () => (await listChecks(world.database.db, mbg().id)).checks.find((c) => c.code === code);
    expect(await now()).toMatchObject({ severity: 'asks', overruledBy: 'approvers' });
    await set({ severity: 'stops' });
    expect(await now()).toMatchObject({ severity: 'stops', overruledBy: 'approvers' });
    await expect(set({ overruledBy: 'clerks' }, 'account-missing')).rejects.toMatchObject({ status: 422 });
    await expect(set({}, code)).rejects.toMatchObject({ status: 400 });
    const [event] = await world.rows(`select before, after from event where subject_type = 'check' and note = $1 and after ? 'overruledBy' order by seq desc limit 1`, code); // prettier-ignore
    expect(event).toEqual({ before: { overruledBy: 'nobody' }, after: { overruledBy: 'approvers' } });
  });
});
