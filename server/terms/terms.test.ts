import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ublOf } from '@ledgerline/documents/einvoice';
import { choicesFor } from '../accounts/choices.ts';
import { newBill } from '../bills/by-hand.ts';
import { csvOf, tableOfList } from '../imports/export.ts';
import { changeSupplier } from '../suppliers/service.ts';
import * as files from '../testing/files.ts';
import { looking, takeFiles } from '../testing/arrivals.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { changeTerms, newTerms } from './service.ts';
import { listedTerms, meantTerms } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const kit = () => world.as('Kit Arden');
const put = (more: object = {}) => ({ code: 'MA', name: 'Monthly account', terms: '30 eom', alsoCalled: 'monthly', active: true, ...more });

/** Gives a supplier terms, as the form does. */
async function agree(terms: string): Promise<{ id: string; name: string }> {
  const [one] = (await world.rows(
    `select id, name, currency, row_version from supplier where company_id = $1 order by code limit 1`,
    mbg().id,
  )) as [{ id: string; name: string; currency: string; row_version: number }];
  const body = { name: one.name, taxId: null, email: null, phone: null, address: null, currency: one.currency, terms, coding: {}, rowVersion: one.row_version, evenSo: true }; // prettier-ignore
  await world.run(changeSupplier, await kit(), { id: one.id }, body);
  return one;
}

describe('a company’s own payment terms', () => {
  it('count for a supplier that has them by name, and a change counts for its next bills alone', async () => {
    const { id } = await world.run(newTerms, await kit(), {}, put());
    const supplier = await agree('monthly account');
    const asker = { company: mbg(), me: { id: world.master.person('Ines Okafor') } };
    expect((await choicesFor(world.database.db, asker, 'suppliers', supplier.name, '2026-11-20'))[0]!.terms).toBe('30 eom');
    const made = async () => world.run(newBill, await world.as('Ines Okafor'), {}, { as: 'new', supplierId: supplier.id });
    const first = (await made()).id;
    await world.run(changeTerms, await kit(), { id }, put({ terms: '45 eom' }));
    const next = (await made()).id;
    expect([(await world.show(first)).terms, (await world.show(next)).terms]).toEqual(['30 eom', '45 eom']);
    const log = await world.rows(`select verb, before, after from event where subject_type = 'terms' order by seq`);
    expect(log).toMatchObject([{ verb: 'made' }, { verb: 'changed', before: { terms: '30 eom' }, after: { terms: '45 eom' } }]);
  });
  it('are what an e-invoice means by their name: its due date is counted from them', async () => {
    const invoice = invoiceOf(0, { number: 'MA-1', lines: 1, issueDate: '2026-11-05' });
    const bytes = ublOf({ ...invoice, terms: 'Strictly Monthly' }).replace(/<cbc:DueDate>.*?<.cbc:DueDate>/, '');
    await world.run(newTerms, await kit(), {}, put({ code: 'SM', alsoCalled: 'strictly monthly' }));
    const id = await takeFiles(world, [{ name: 'ma.xml', mediaType: 'application/xml', bytes }]);
    const [bill] = await looking(() => world).billsOf(id);
    // The end of November and thirty days.
    expect(bill).toMatchObject({ terms: '30 eom', due_date: new Date('2026-12-30') });
  });
  it('stay with suppliers that have them where they are closed, and are no other company’s', async () => {
    const [one] = await listedTerms(world.database.db, mbg().id);
    await world.run(changeTerms, await kit(), { id: one!.id }, put({ active: false }));
    expect(await meantTerms(world.database.db, mbg().id, 'MONTHLY')).toBe('30 eom');
    expect(await meantTerms(world.database.db, world.master.company('MNT').id, 'MONTHLY')).toBe('MONTHLY');
    expect(await meantTerms(world.database.db, mbg().id, null)).toBeNull();
  });
  it('are refused where nobody would understand them, twice, or by whoever may not', async () => {
    const make = async (more: object, who = kit()) => world.run(newTerms, await who, {}, put({ code: 'X', ...more }));
    await expect(make({ terms: 'as agreed' })).rejects.toMatchObject({ status: 422, errors: [{ path: 'terms' }] });
    await expect(make({ terms: 'MA' })).rejects.toMatchObject({ status: 422 });
    await expect(make({ code: 'MA' })).rejects.toMatchObject({ status: 409 });
    await expect(make({}, world.as('Ines Okafor'))).rejects.toMatchObject({ status: 403 });
    const [one] = await listedTerms(world.database.db, mbg().id);
    await expect(world.run(changeTerms, await world.as('Kit Arden', 'MNT'), { id: one!.id }, put())).rejects.toMatchObject({ status: 404 });
    await expect(agree('as agreed')).rejects.toMatchObject({ status: 422, errors: [{ path: 'terms' }] });
  });
  it('come from files and go into them; a file of suppliers may name them', async () => {
    const run = await files.take(world, 'terms', 'Terms code,Name,Payment terms,Aliases\nSTD,Standard,2/10 n30,\nODD,Odd,as agreed,\n');
    expect(run.counts).toMatchObject({ good: 1, bad: 1, made: 1 });
    await files.through(world, run, true);
    const table = await tableOfList(world.database.db, mbg().id, 'terms', '', false);
    expect(csvOf(table)).toContain('STD,Standard,2/10 n30');
    const suppliers = 'Code,Name,Currency,Terms\nS9100,Brackwater Mill,GBP,standard\nS9101,Brackwater Kiln,GBP,as agreed\n';
    expect((await files.take(world, 'suppliers', suppliers)).counts).toMatchObject({ good: 1, bad: 1 });
  });
});
