import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { approve, sendOn } from '../bills/moves.ts';
import { changeSupplier } from '../suppliers/service.ts';
import { postBills } from './posting.ts';
import { trailOf } from './store.ts';
import { invoiceOf, makeWorld, readyToPost, testDay, type World } from '../testing/world.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const rows = async (text: string, ...values: unknown[]) => (await world.owner.query(text, values)).rows;

describe('posting', () => {
  it('writes expense, recoverable tax and payable, and the open item', async () => {
    const invoice = invoiceOf(0, { number: 'P-1', lines: 2, charge: true });
    const id = await readyToPost(world, invoice);
    const {
      posted: [one],
    } = await world.run(postBills, await world.as('Halina Voss'), {}, { key: 'posting-1', billIds: [id], entryDate: testDay });
    const lines = await rows(
      'select a.code, l.debit, l.credit, l.supplier_id from journal_line l join ledger_account a on a.id = l.account_id where entry_id = $1 order by position',
      one!.entryId,
    );
    expect(lines.at(-1)).toMatchObject({ code: '2100', credit: invoice.gross });
    expect(lines.find((l) => l.code === '1800')).toMatchObject({ debit: invoice.tax });
    expect(await rows('select amount, settled from open_item where source_id = $1', id)).toEqual([{ amount: invoice.gross, settled: '0' }]);
  });

  it('turns a credit note the other way round', async () => {
    const invoice = invoiceOf(1, { number: 'P-2', kind: 'credit-note', lines: 1 });
    const id = await readyToPost(world, invoice);
    const {
      posted: [one],
    } = await world.run(postBills, await world.as('Halina Voss'), {}, { key: 'posting-2', billIds: [id], entryDate: testDay });
    const lines = await rows(
      'select a.code, l.debit, l.credit from journal_line l join ledger_account a on a.id = l.account_id where entry_id = $1 order by position',
      one!.entryId,
    );
    expect(lines.at(-1)).toMatchObject({ code: '2100', debit: invoice.gross, credit: '0' });
    expect((await rows('select amount from open_item where source_id = $1', id))[0].amount).toBe(`-${invoice.gross}`);
  });

  it('converts a foreign bill at the rate and still balances', async () => {
    const id = await readyToPost(world, invoiceOf(3, { number: 'P-3', lines: 3, charge: true }));
    const {
      posted: [one],
    } = await world.run(postBills, await world.as('Halina Voss', 'MNT'), {}, { key: 'posting-3', billIds: [id], entryDate: testDay });
    const [sum] = await rows(
      'select sum(debit) - sum(credit) as off, e.currency, e.rate from journal_line l join journal_entry e on e.id = l.entry_id where entry_id = $1 group by 2, 3',
      one!.entryId,
    );
    expect(sum).toMatchObject({ off: '0.00', currency: 'EUR' });
    expect(Number(sum.rate)).toBeGreaterThan(0.8);
  });

  it('leaves rows of text alone out of the entry; the bill keeps them', async () => {
    const id = await world.build.bill({ lines: [{ amount: '100.00' }, { amount: '20.00' }] });
    const ines = await world.as('Ines Okafor');
    const text = crypto.randomUUID();
    await world.run(
      changeBill,
      ines,
      { id },
      {
        rowVersion: 1,
        operations: [
          { do: 'add-line', line: text, kind: 'text', after: null, cells: { description: 'As agreed\non the telephone' } },
          { do: 'set-cell', line: text, field: 'amount', value: '1.00' },
        ],
      },
    );
    expect((await world.show(id)).exceptions.map((e) => e.sentence)).toEqual([
      'Row 1 is text alone and has an amount. Clear it, or make it a line.',
    ]);
    await world.run(changeBill, ines, { id }, { rowVersion: 2, operations: [{ do: 'set-kind', line: text, kind: 'text' }] });
    await world.run(sendOn, ines, { id }, { rowVersion: 3 });
    await world.run(approve, await world.as('Marguerite Sable'), { id }, { rowVersion: 4 });
    await world.run(postBills, await world.as('Halina Voss'), {}, { key: 'posting-text', billIds: [id], entryDate: testDay });
    const posted = await world.show(id);
    expect(posted.lines[0]).toMatchObject({ kind: 'text', description: 'As agreed\non the telephone', amount: null });
    const lines = await rows(
      'select l.debit from journal_line l join bill_line b on b.id = l.bill_line_id where b.bill_id = $1 order by l.position',
      id,
    );
    expect(lines.map((l) => l.debit)).toEqual(['100.00', '20.00']);
  });

  it('the same request twice posts once and answers the same', async () => {
    const id = await readyToPost(world, invoiceOf(4, { number: 'P-4' }));
    const halina = await world.as('Halina Voss');
    const ask = { key: 'posting-twice', billIds: [id], entryDate: testDay };
    const [first, second] = await Promise.all([world.run(postBills, halina, {}, ask), world.run(postBills, halina, {}, ask)]);
    expect(second).toEqual(first);
    expect(await world.run(postBills, halina, {}, ask)).toEqual(first);
    expect(await rows('select count(*)::int as n from journal_entry where source_id = $1', id)).toEqual([{ n: 1 }]);
  });

  it('a key that was used for other bills is refused', async () => {
    const id = await readyToPost(world, invoiceOf(7, { number: 'P-5' }));
    await expect(
      world.run(postBills, await world.as('Halina Voss'), {}, { key: 'posting-twice', billIds: [id], entryDate: testDay }),
    ).rejects.toThrow('made before for other bills');
  });

  it('is all or nothing: one bill that cannot be posted keeps back the rest', async () => {
    const good = await readyToPost(world, invoiceOf(8, { number: 'P-6' }));
    const [posted] = await rows(`select id from bill where invoice_number = 'P-1'`);
    await expect(
      world.run(postBills, await world.as('Halina Voss'), {}, { key: 'posting-mixed', billIds: [good, posted.id], entryDate: testDay }),
    ).rejects.toThrow('P-1 is posted already');
    expect(await rows('select stage from bill where id = $1', good)).toEqual([{ stage: 'approved' }]);
  });

  it('says that a period is closed, and posts nothing', async () => {
    await rows('update period set open = false where year = 2026 and month = 2');
    const [good] = await rows(`select id from bill where invoice_number = 'P-6'`);
    await expect(
      world.run(postBills, await world.as('Halina Voss'), {}, { key: 'posting-closed', billIds: [good.id], entryDate: '2026-02-10' }),
    ).rejects.toThrow('The period 2026-02 is not open');
  });

  it('numbers run without gaps when many are posted at once', async () => {
    const ids: string[] = [];
    for (let i = 0; i < 6; i++) ids.push(await world.build.bill({ stage: 'approved', number: `P-2${i}` }));
    const halina = await world.as('Halina Voss');
    await Promise.all(
      ids.map((id, i) => world.run(postBills, halina, {}, { key: `posting-many-${i}`, billIds: [id], entryDate: testDay })),
    );
    const numbers = (
      await rows('select number from journal_entry where company_id = $1 and year = 2026 order by number', halina.company.id)
    ).map((r) => r.number);
    expect(numbers).toEqual(numbers.map((_, i) => i + 1));
  });

  it('leads from an amount in the ledger to the mark on the page', async () => {
    const [line] = await rows(
      `select l.id, l.debit from journal_line l join bill b on b.id = (select source_id from journal_entry e where e.id = l.entry_id) where b.invoice_number = 'P-1' and l.bill_line_id is not null order by l.position limit 1`,
    );
    const trail = await trailOf(world.database.db, (await world.as('Halina Voss')).company.id, line.id);
    expect(trail.line?.amount).toBe(line.debit);
    expect(trail.mark).toMatchObject({ page: 1 });
    const [page] = await rows('select words from document_page where document_id = $1', trail.documentId);
    const under = page.words.find((w: { x: number; y: number }) => Math.abs(w.x - trail.mark!.x) < 1 && Math.abs(w.y - trail.mark!.y) < 1);
    expect(under.text.replace(/,/g, '')).toBe(line.debit);
  });
});

describe('a supplier', () => {
  const change = async (name: string, more: object) => {
    const [{ company_id: _c, row_version: rowVersion, ...own }] = await world.rows('select * from supplier where id = $1', world.master.supplier(name)); // prettier-ignore
    const body = { name: own.name, taxId: own.tax_id, email: own.email, phone: own.phone, address: own.address, currency: own.currency, terms: own.terms, coding: {}, rowVersion, ...more }; // prettier-ignore
    return world.run(changeSupplier, await world.as('Kit Arden'), { id: own.id }, body);
  };
  const post = async (...billIds: string[]) =>
    world.run(postBills, await world.as('Halina Voss'), {}, { key: crypto.randomUUID(), billIds, entryDate: '2026-11-23' });
  const usual = async (name: string) =>
    (await world.rows('select account_id, cost_centre_id, tax_code_id from supplier where id = $1', world.master.supplier(name)))[0];

  it('that is blocked after its bill was approved holds it back from posting, until it is not', async () => {
    const supplier = world.someSupplier('MBG')!;
    const id = await world.build.bill({ supplier, number: 'BL-1', stage: 'approved' }),
      waiting = await world.build.bill({ supplier, number: 'BL-2' });
    await change(supplier, { blocked: 'a claim is open' });
    expect((await world.show(waiting)).exceptions.map((e) => [e.code, e.sentence])).toEqual([['supplier-blocked', `${supplier} is blocked: a claim is open.`]]); // prettier-ignore
    await expect(post(id)).rejects.toThrow(`BL-1 cannot be posted any more: ${supplier} is blocked: a claim is open.`);
    // What is not said stays; without a reason they go on again.
    await change(supplier, {});
    await expect(post(id)).rejects.toThrow('is blocked');
    // Overruled for this reason, on this bill, it goes; for another one it does not.
    const overrule = (bill: string, because: string) =>
      world.rows(
        `insert into bill_exception (id, company_id, bill_id, code, path, key, sentence, severity, state, how, settled_at, person_id, reason) select gen_random_uuid(), b.company_id, b.id, 'supplier-blocked', 'supplierId', $2, 'x', 'stops', 'overruled', 'overrule', now(), p.id, 'it is owed' from bill b, person p where b.id = $1 and p.name = 'Halina Voss'`,
        bill,
        because,
      );
    await overrule(id, 'an old claim');
    await expect(post(id)).rejects.toThrow('is blocked: a claim is open');
    const owed = await world.build.bill({ supplier, number: 'BL-3', stage: 'approved' });
    await overrule(owed, 'a claim is open');
    await expect(post(id, owed)).rejects.toThrow('BL-1 cannot be posted');
    expect((await post(owed)).posted).toHaveLength(1);
    await change(supplier, { blocked: null });
    expect((await world.show(waiting)).exceptions).toEqual([]);
    expect((await post(id)).posted).toHaveLength(1);
  });
  it('without a usual account takes the coding of its first posted bill’s largest row, where the company wants it; what is set stays', async () => {
    const names = (await world.rows('select name from supplier where company_id = $1 order by name', world.master.company('MBG').id)).map((r) => r.name as string); // prettier-ignore
    const [one, two] = names.slice(-2) as [string, string];
    for (const name of [one, two]) await change(name, { coding: { accountId: null, costCentreId: world.master.company('MBG').centre('200'), taxCodeId: null } }); // prettier-ignore
    const lines = [{ amount: '5.00', account: '6010' }, { amount: '70.00', account: '6000', centre: '210' }]; // prettier-ignore
    await post(await world.build.bill({ supplier: one, number: 'FC-1', stage: 'approved', lines }));
    expect((await usual(one)).account_id).toBe(null);
    await world.rows('update company set first_coding_usual = true where id = $1', world.master.company('MBG').id);
    await post(await world.build.bill({ supplier: two, number: 'FC-2', stage: 'approved', lines }));
    const mine = world.master.company('MBG');
    expect(await usual(two)).toEqual({ account_id: mine.account('6000'), cost_centre_id: mine.centre('200'), tax_code_id: mine.taxCode('S20').id }); // prettier-ignore
    // A later one does not change it.
    await post(
      await world.build.bill({ supplier: two, number: 'FC-3', stage: 'approved', lines: [{ amount: '900.00', account: '6010' }] }),
    );
    expect((await usual(two)).account_id).toBe(mine.account('6000'));
    const log = await world.rows(`select note from event where subject_type = 'supplier' and subject_id = $1 and note like 'Usual%'`, world.master.supplier(two)); // prettier-ignore
    expect(log).toEqual([{ note: 'Usual coding from its first posting, FC-2' }]);
  });
});
