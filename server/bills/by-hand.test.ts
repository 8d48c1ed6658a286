import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { takeFiles } from '../testing/arrivals.ts';
import { arrive, invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { newBill } from './by-hand.ts';
import { changeBill } from './change.ts';
import { documentsFor, fileForBill, joinDocument } from './documents.ts';
import { approve, sendOn } from './moves.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const ines = () => world.as('Ines Okafor');
const make = async (body: object) => (await world.run(newBill, await ines(), {}, body)).id;
const version = async (id: string) => (await world.show(id)).rowVersion;
const pdf = async (invoice: Parameters<typeof makePdf>[0], name = `${invoice.number}.pdf`) => ({
  name,
  mediaType: 'application/pdf',
  bytes: await makePdf(invoice),
});

describe('a bill by hand', () => {
  it('begins empty in the hands of whoever makes it; for a supplier as that one is usually coded', async () => {
    const empty = await world.show(await make({ as: 'new' }));
    expect(empty).toMatchObject({ supplierId: null, currency: 'GBP', documentId: null, stage: 'read', assignee: { name: 'Ines Okafor' } });
    const supplierId = world.master.supplier(world.someSupplier('MBG')!);
    await world.rows(
      'update supplier set account_id = $1, terms = $2 where id = $3',
      world.master.company('MBG').account('6010'),
      '14 days',
      supplierId,
    );
    const of = await world.show(await make({ as: 'new', supplierId }));
    expect(of).toMatchObject({ supplierId, terms: '14 days', lines: [{ accountId: world.master.company('MBG').account('6010') }] });
    expect(of.events).toMatchObject([{ verb: 'made', person: 'Ines Okafor', note: 'By hand' }]);
  });
  it('as a copy has all but number and dates; as a credit note the same turned round; both point at where they came from', async () => {
    const from = await world.build.bill({ number: 'C-1', lines: [{ amount: '100.00' }, { amount: '20.00', kind: 'charge' }] });
    const [copy, credit] = [
      await world.show(await make({ as: 'copy', billId: from })),
      await world.show(await make({ as: 'credit-note', billId: from })),
    ];
    expect(copy).toMatchObject({ kind: 'invoice', invoiceNumber: null, issueDate: null, gross: '144.00', madeFrom: from });
    expect(copy.lines.map((l) => [l.kind, l.amount])).toEqual([['line', '100.00'], ['charge', '20.00']]); // prettier-ignore
    expect(credit).toMatchObject({ kind: 'credit-note', gross: '144.00', madeFrom: from });
    await expect(make({ as: 'credit-note', billId: credit.id })).rejects.toThrow('a credit note itself');
    await expect(world.run(newBill, await world.as('Ines Okafor', 'MNT'), {}, { as: 'copy', billId: from })).rejects.toMatchObject({
      status: 404,
    });
    const theirs = world.master.supplier(world.someSupplier('MNT')!);
    await expect(make({ as: 'new', supplierId: theirs })).rejects.toMatchObject({ status: 404 });
  });
});

describe('whoever made a bill', () => {
  it('cannot approve it, even where somebody else sent it on', async () => {
    await world.rows(`insert into membership values ($1, $2, 'approver')`, world.master.person('Ines Okafor'), (await ines()).company.id);
    const from = await world.build.bill({ number: 'M-0' });
    const id = await make({ as: 'copy', billId: from });
    const tobias = await world.as('Tobias Fenn');
    await world.run(
      changeBill,
      tobias,
      { id },
      {
        rowVersion: 1,
        operations: [
          { do: 'set', field: 'invoiceNumber', value: 'M-1' },
          { do: 'set', field: 'issueDate', value: '2026-11-20' },
          { do: 'set', field: 'dueDate', value: '2026-12-20' },
        ],
      },
    );
    await world.run(sendOn, tobias, { id }, { rowVersion: await version(id) });
    expect((await world.show(id)).workedOn).toContain(world.master.person('Ines Okafor'));
    await expect(world.run(approve, await ines(), { id }, { rowVersion: await version(id) })).rejects.toMatchObject({ status: 403 });
    // The database knows it, too.
    await expect(
      world.database.pool.query(`update bill set stage = 'approved', approved_by = $1, approved_at = now() where id = $2`, [
        world.master.person('Ines Okafor'),
        id,
      ]),
    ).rejects.toThrow('cannot approve it');
    await world.rows(`delete from membership where person_id = $1 and role = 'approver'`, world.master.person('Ines Okafor'));
  });
});

describe('its document', () => {
  it('that comes by mail or scan later joins it by supplier and number; what was typed stays, what is empty is filled', async () => {
    const invoice = invoiceOf(0, { number: 'J-1', lines: 2 });
    const known = await world.show(await arrive(world, invoiceOf(0, { number: 'J-0', lines: 2 })));
    const id = await make({ as: 'new', supplierId: known.supplierId });
    await world.run(changeBill, await ines(), { id }, {
      rowVersion: 1,
      operations: [{ do: 'set', field: 'invoiceNumber', value: 'J-1' }, { do: 'set', field: 'purchaseOrder', value: 'PO-MINE' }],
    }); // prettier-ignore
    await takeFiles(world, [await pdf(invoice)], { channel: 'folder' });
    const bill = await world.show(id);
    expect(bill).toMatchObject({ invoiceNumber: 'J-1', purchaseOrder: 'PO-MINE', gross: invoice.gross, issueDate: invoice.issueDate });
    expect(bill.documentId).not.toBeNull();
    expect(bill.lines.map((l) => l.amount)).toEqual(invoice.lines.map((l) => l.amount));
    expect(bill.marks['gross']?.mark).toBeTruthy();
    // Typed and printed differ: somebody looks.
    expect(bill.unsure).toContain('purchaseOrder');
    expect(bill.events.map((e) => e.verb)).toContain('joined');
    const others = await world.rows(`select stage from bill where invoice_number = 'J-1' and id <> $1`, id);
    expect(others).toEqual([{ stage: 'discarded' }]);
    await expect(fileForBill(world.services, await ines(), id, 'own', async () => pdf(invoice))).rejects.toThrow(
      'has its document already',
    );
  });
  it('that is dropped on it is its own whatever it says, and an order or delivery note is kept beside it', async () => {
    const id = await make({ as: 'new' });
    const invoice = invoiceOf(1, { number: 'J-2', lines: 1 });
    await fileForBill(world.services, await ines(), id, 'own', async () => pdf(invoice));
    await world.drain();
    const bill = await world.show(id);
    expect(bill).toMatchObject({ invoiceNumber: 'J-2', gross: invoice.gross });
    await fileForBill(world.services, await ines(), id, 'further', async () => pdf(invoiceOf(2, { number: 'J-3' }), 'order.pdf'));
    await world.drain();
    const { further } = await documentsFor(world.database.db, bill.companyId, id, world.services.now());
    expect(further).toMatchObject([{ name: 'order.pdf', state: 'aside', note: 'Kept beside bill J-2.' }]);
    expect(await world.rows(`select 1 from bill where invoice_number = 'J-3'`)).toEqual([]);
  });
  it('is chosen from what came: the bill that it made by itself goes, unless somebody works on that one', async () => {
    const [came, worked] = [await arrive(world, invoiceOf(0, { number: 'J-4' })), await arrive(world, invoiceOf(0, { number: 'J-5' }))];
    const id = await make({ as: 'new', supplierId: (await world.show(came)).supplierId });
    const company = (await ines()).company.id;
    const { candidates } = await documentsFor(world.database.db, company, id, world.services.now());
    expect(candidates.map((c) => c.name)).toEqual(expect.arrayContaining(['J-4.pdf', 'J-5.pdf']));
    await world.run(
      changeBill,
      await ines(),
      { id: worked },
      { rowVersion: await version(worked), operations: [{ do: 'set', field: 'terms', value: 'x' }] },
    );
    const document = async (of: string) => (await world.show(of)).documentId!;
    const join = async (documentId: string, as: 'own' | 'further') => world.run(joinDocument, await ines(), { id }, { documentId, as });
    await expect(join(await document(worked), 'further')).rejects.toThrow('Somebody works on the bill of this document');
    const mine = await document(came);
    expect(await join(mine, 'own')).toMatchObject({ documentId: mine, invoiceNumber: 'J-4' });
    expect((await world.show(came)).stage).toBe('discarded');
    await expect(join(mine, 'further')).rejects.toThrow('own document');
    await expect(join(crypto.randomUUID(), 'further')).rejects.toMatchObject({ status: 404 });
  });
  it('kept beside one bill is not taken away for another; a file that is here already is not brought twice, and says what to do', async () => {
    const [one, two] = [await make({ as: 'new' }), await make({ as: 'new' })];
    const order = await pdf(invoiceOf(2, { number: 'J-6' }), 'order-6.pdf');
    await fileForBill(world.services, await ines(), one, 'further', async () => order);
    await world.drain();
    const company = (await ines()).company.id;
    const [kept] = (await documentsFor(world.database.db, company, one, world.services.now())).further;
    const { candidates } = await documentsFor(world.database.db, company, two, world.services.now());
    expect(candidates.map((c) => c.id)).not.toContain(kept!.id);
    for (const as of ['own', 'further'] as const)
      await expect(world.run(joinDocument, await ines(), { id: two }, { documentId: kept!.id, as })).rejects.toThrow(
        'kept beside another bill',
      );
    const before = await world.rows('select count(*)::int as n from arrival');
    await expect(fileForBill(world.services, await ines(), two, 'own', async () => order)).rejects.toThrow(
      'This file is here already, as order-6.pdf. Choose it from what came lately, or see Arrivals.',
    );
    expect(await world.rows('select count(*)::int as n from arrival')).toEqual(before);
  });
  it('can be sent on without one', async () => {
    const id = await make({ as: 'copy', billId: await world.build.bill({ number: 'C-2' }) });
    await world.run(changeBill, await ines(), { id }, {
      rowVersion: 1,
      operations: [{ do: 'set', field: 'invoiceNumber', value: 'HAND-1' }, { do: 'set', field: 'issueDate', value: '2026-11-20' }, { do: 'set', field: 'dueDate', value: '2026-12-20' }],
    }); // prettier-ignore
    expect(await world.run(sendOn, await ines(), { id }, { rowVersion: await version(id) })).toMatchObject({
      stage: 'coded',
      documentId: null,
    });
  });
});
