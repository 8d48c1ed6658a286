import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { arrive, invoiceOf, makeWorld, testDay, type World } from '../testing/world.ts';
import { approve, discard, getBill, restore, returnBill, saveBill, sendOn, setAside, takeBack } from './service.ts';
import { listBills } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const load = async (id: string, code = 'MBG') => getBill(world.database.db, await world.as('Ines Okafor', code), id, testDay);

describe('a bill on its way', () => {
  it('arrives with supplier, terms, coding and a proof that holds', async () => {
    const invoice = invoiceOf(0, { number: 'B-1', lines: 4, charge: true });
    const bill = await load(await arrive(world, invoice));
    expect(bill).toMatchObject({
      invoiceNumber: 'B-1',
      issueDate: invoice.issueDate,
      dueDate: invoice.dueDate,
      net: invoice.net,
      tax: invoice.tax,
      gross: invoice.gross,
      purchaseOrder: invoice.purchaseOrder,
    });
    expect(bill.lines).toHaveLength(5);
    expect(bill.lines.every((l) => l.accountId && l.costCentreId && l.taxCodeId)).toBe(true);
    expect(bill.exceptions.filter((e) => e.blocking)).toEqual([]);
  });
  it('cannot be sent on while the sums are off; the sentence says by how much', async () => {
    const ines = await world.as('Ines Okafor');
    const id = await arrive(world, invoiceOf(1, { number: 'B-2' }));
    const before = await load(id);
    const saved = await saveBill(world.services, ines, id, {
      rowVersion: before.rowVersion,
      header: { gross: String(Number(before.gross) + 1) },
    });
    expect(saved.exceptions).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'proof-off', sentence: expect.stringContaining('Off by 1') })]),
    );
    await expect(sendOn(world.services, ines, id, saved.rowVersion)).rejects.toMatchObject({ status: 422 });
  });
  it('cannot be sent on while a required field is missing', async () => {
    const ines = await world.as('Ines Okafor');
    const id = await arrive(world, invoiceOf(2, { number: 'B-3' }));
    const saved = await saveBill(world.services, ines, id, { rowVersion: 1, header: { invoiceNumber: null } });
    await expect(sendOn(world.services, ines, id, saved.rowVersion)).rejects.toThrow('The invoice number is missing.');
  });
  it('is never overwritten silently: the second to save is told', async () => {
    const id = await arrive(world, invoiceOf(4, { number: 'B-4' }));
    await saveBill(world.services, await world.as('Ines Okafor'), id, { rowVersion: 1, header: { purchaseOrder: 'PO-1' } });
    await expect(
      saveBill(world.services, await world.as('Tobias Fenn'), id, { rowVersion: 1, header: { purchaseOrder: 'PO-2' } }),
    ).rejects.toThrow('Somebody else changed this bill');
    expect((await load(id)).purchaseOrder).toBe('PO-1');
  });
  it('keeps rows by their id and drops those that are gone', async () => {
    const id = await arrive(world, invoiceOf(0, { number: 'B-5', lines: 3 }));
    const bill = await load(id);
    const saved = await saveBill(world.services, await world.as('Ines Okafor'), id, {
      rowVersion: bill.rowVersion,
      lines: [bill.lines[2]!, { ...bill.lines[0]!, description: 'Changed' }],
    });
    expect(saved.lines.map((l) => [l.id, l.description])).toEqual([
      [bill.lines[2]!.id, bill.lines[2]!.description],
      [bill.lines[0]!.id, 'Changed'],
    ]);
  });
  it('refuses a row of another bill', async () => {
    const [a, b] = [await arrive(world, invoiceOf(0, { number: 'B-6' })), await arrive(world, invoiceOf(0, { number: 'B-7' }))];
    const stolen = (await load(a)).lines[0]!;
    await expect(saveBill(world.services, await world.as('Ines Okafor'), b, { rowVersion: 1, lines: [stolen] })).rejects.toThrow();
    expect((await load(a)).lines[0]!.id).toBe(stolen.id);
  });
  it('is approved by somebody else only, once', async () => {
    const ines = await world.as('Ines Okafor'),
      marguerite = await world.as('Marguerite Sable');
    const id = await arrive(world, invoiceOf(7, { number: 'B-8' }));
    const sent = await sendOn(world.services, ines, id, 1);
    await expect(approve(world.services, ines, id, sent.rowVersion)).rejects.toMatchObject({ status: 403 });
    await approve(world.services, marguerite, id, sent.rowVersion);
    await expect(approve(world.services, marguerite, id, sent.rowVersion + 1)).rejects.toMatchObject({ status: 409 });
  });
  it('comes back with the approver’s note and can be sent again', async () => {
    const ines = await world.as('Ines Okafor');
    const id = await arrive(world, invoiceOf(8, { number: 'B-9' }));
    const sent = await sendOn(world.services, ines, id, 1);
    const back = await returnBill(world.services, await world.as('Marguerite Sable'), id, sent.rowVersion, 'Wrong cost centre');
    expect(back).toMatchObject({ stage: 'returned', note: 'Wrong cost centre' });
    expect((await sendOn(world.services, ines, id, back.rowVersion)).stage).toBe('coded');
  });
  it('can be taken back, set aside, discarded and taken up again', async () => {
    const ines = await world.as('Ines Okafor');
    const id = await arrive(world, invoiceOf(11, { number: 'B-10' }));
    const sent = await sendOn(world.services, ines, id, 1);
    const back = await takeBack(world.services, ines, id, sent.rowVersion);
    const aside = await setAside(world.services, ines, id, back.rowVersion, 'Waiting for the delivery');
    const gone = await discard(world.services, ines, id, aside.rowVersion, 'Sent twice');
    expect((await restore(world.services, ines, id, gone.rowVersion)).stage).toBe('read');
  });
  it('with a number that this supplier used before names the other bill', async () => {
    const first = await arrive(world, invoiceOf(12, { number: 'B-11' }));
    await sendOn(world.services, await world.as('Ines Okafor'), first, 1);
    const twin = await arrive(world, invoiceOf(12, { number: 'b-11x' })).then((id) => saveBillNumber(id, 'B-11'));
    expect(twin.exceptions).toEqual(expect.arrayContaining([expect.objectContaining({ code: 'duplicate' })]));
  });
});

async function saveBillNumber(id: string, invoiceNumber: string) {
  return saveBill(world.services, await world.as('Ines Okafor'), id, { rowVersion: 1, header: { invoiceNumber } });
}

describe('the list of bills', () => {
  it('pages by keyset in any order without losing or repeating a row', async () => {
    const companyId = world.master.company('MBG').id;
    for (const sort of ['arrived', 'due', 'dated', 'total'] as const)
      for (const order of ['asc', 'desc'] as const) {
        const whole = await listBills(world.database.db, companyId, { sort, order, limit: 200 }, testDay);
        const seen: string[] = [];
        let cursor: string | undefined;
        for (let i = 0; i < 50; i++) {
          const page = await listBills(world.database.db, companyId, { sort, order, limit: 3, ...(cursor ? { cursor } : {}) }, testDay);
          seen.push(...page.map((r) => r.row.id));
          const last = page.at(-1);
          if (!last || page.length < 3) break;
          cursor = Buffer.from(JSON.stringify([last.key, last.row.id])).toString('base64url');
        }
        expect(seen, `${sort} ${order}`).toEqual(whole.map((r) => r.row.id));
      }
  });
  it('finds by words: supplier, amount, stage, part of a number', async () => {
    const find = async (q: string) =>
      (await listBills(world.database.db, world.master.company('MBG').id, { q }, testDay)).map((r) => r.row);
    expect((await find('supplier:quillhaven')).every((b) => b.supplier!.startsWith('Quillhaven'))).toBe(true);
    expect((await find('stage:returned,coded')).every((b) => ['returned', 'coded'].includes(b.stage))).toBe(true);
    expect((await find('over:500')).every((b) => Number(b.gross) > 500)).toBe(true);
    expect((await find('B-11')).map((b) => b.invoiceNumber).every((n) => n!.includes('B-1'))).toBe(true);
    expect(await find("number:'; drop table bill; --")).toEqual([]);
  });
});
