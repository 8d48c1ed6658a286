import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dec } from '@ledgerline/core/money';
import { changeTaxCode } from '../accounts/service.ts';
import { setCompany } from '../companies/service.ts';
import { savedAs } from '../imports/saved.ts';
import { clientOf } from '../testing/client.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { taxLines, taxSummary, taxTable } from './tax-summary.ts';

let world: World;
const year = ['2026-01-01', '2026-12-31'] as const;
const mbg = () => world.master.company('MBG');
const kit = () => world.as('Kit Arden');
const put = (code: string, more: object = {}) => {
  const { id, companyId: _, laterRates: _l, withheld: _w, withheldAccountId: _a, ...own } = mbg().taxCode(code);
  return kit().then((as) => world.run(changeTaxCode, as, { id }, { ...own, ...more }));
};
const posted = (number: string, code: string, amount: string, more: object = {}) =>
  world.build.bill({ number, stage: 'posted', issueDate: '2026-10-05', entryDate: '2026-10-09', lines: [{ amount, code }], ...more });
/** Figures as they are, whatever zeros stand behind. */
const plain = (of: Record<string, unknown>) =>
  Object.fromEntries(
    ['net', 'tax', 'reclaimed', 'borne', 'owed', 'withheld'].flatMap((k) =>
      dec(String(of[k])).isZero() ? [] : [[k, dec(String(of[k])).toFixed(2)]],
    ),
  );
beforeAll(async () => {
  world = await makeWorld();
  await put('R5', { recoverable: '40' });
  // Worked out by hand: 100 and 50 at 20%, a credit of 10; 200 at 5% of which 40% is reclaimed; 300 under reverse charge at 20%.
  await posted('T-1', 'S20', '100.00');
  await posted('T-2', 'S20', '50.00', { entryDate: '2026-11-03' });
  await posted('T-3', 'S20', '10.00', { kind: 'credit-note', entryDate: '2026-11-04' });
  await posted('T-4', 'R5', '200.00', { tax: '10.00', gross: '210.00' });
  await posted('T-5', 'RC20', '300.00', { tax: '0.00', gross: '300.00' });
});
afterAll(() => world.close());
const summary = async (from: string = year[0], to: string = year[1], company = 'MBG') =>
  (await taxSummary(world.database.db, world.master.company(company), from, to)).rows.map((r) => [r.code, r.month, r.entries, plain(r)]);

describe('a tax summary', () => {
  it('adds up by code and month, credit notes taken off; what is not reclaimed stays with the cost', async () => {
    expect(await summary()).toEqual([
      ['R5', '2026-10', 1, { net: '200.00', tax: '10.00', reclaimed: '4.00', borne: '6.00' }],
      ['RC20', '2026-10', 1, { net: '300.00', tax: '60.00', reclaimed: '60.00', owed: '60.00' }],
      ['S20', '2026-10', 1, { net: '100.00', tax: '20.00', reclaimed: '20.00' }],
      ['S20', '2026-11', 2, { net: '40.00', tax: '8.00', reclaimed: '8.00' }],
    ]);
    expect(await summary('2026-11-04', '2026-11-30')).toEqual([['S20', '2026-11', 1, { net: '-10.00', tax: '-2.00', reclaimed: '-2.00' }]]); // prettier-ignore
    expect(await summary(...year, 'MNT')).toEqual([]);
  });
  it('is the ledger’s own: what is reclaimed and owed stands on the accounts', async () => {
    const on = async (code: string) =>
      (await world.rows('select sum(debit - credit) as s from journal_line where account_id = $1', mbg().account(code)))[0].s as string;
    const all = (await taxSummary(world.database.db, mbg(), ...year)).rows;
    const of = (k: 'reclaimed' | 'owed') => all.reduce((n, r) => n.plus(r[k]), dec(0)).toFixed(2);
    expect([await on('1800'), await on('2200')]).toEqual([of('reclaimed'), `-${of('owed')}`]);
  });
  it('leads to its entries and their bills, page by page, and goes into a file', async () => {
    const { id } = mbg().taxCode('S20');
    const asked = { from: year[0], to: year[1], taxCodeId: id };
    const first = await taxLines(world.database.db, mbg().id, asked, null, 2);
    const rest = await taxLines(world.database.db, mbg().id, asked, first[1]!, 2);
    const said = [...first, ...rest].map((l) => [l.entryDate, l.description.split(' ').at(-1), plain(l)]);
    expect(said).toEqual([
      ['2026-10-09', 'T-1', { net: '100.00', tax: '20.00', reclaimed: '20.00' }],
      ['2026-11-03', 'T-2', { net: '50.00', tax: '10.00', reclaimed: '10.00' }],
      ['2026-11-04', 'T-3', { net: '-10.00', tax: '-2.00', reclaimed: '-2.00' }],
    ]);
    expect(first[0]!.billId).toMatch(/^[0-9a-f-]{36}$/);
    const table = await taxTable(world.database.db, mbg().id, ...year);
    expect([table.heads.length, table.rows.map((r) => r[3])]).toEqual([10, ['R5', 'RC20', 'S20', 'S20', 'S20']]);
    const { status } = await clientOf(world)('Halina', 'GET', `/tax-summary/file?from=${year[0]}&to=${year[1]}&format=csv`);
    const text = await (await savedAs(world.services, table, 'csv', 'tax')).text();
    expect([status, text.trim().split('\n').length]).toEqual([200, 6]);
  });
  it('stays as it was posted', async () => {
    await expect(world.rows('update journal_tax set net = 0')).rejects.toThrow('cannot be changed or removed');
    await expect(world.rows('delete from journal_tax')).rejects.toThrow('cannot be changed or removed');
    const late = world.rows('insert into journal_tax select entry_id, $1, company_id, entry_date, 1, 1, 1, 0, 0 from journal_tax limit 1', mbg().taxCode('Z0').id); // prettier-ignore
    await expect(late).rejects.toThrow('already posted');
    // Another rate from now on changes nothing of it.
    const before = await summary();
    await put('S20', { rate: '25' });
    expect(await summary()).toEqual(before);
    await put('S20', { rate: '20' });
  });
  it('of what was posted before there was one comes to the same from the ledger’s lines', async () => {
    const sql = readFileSync(fileURLToPath(new URL('../db/migrations/0025_tax_summary.sql', import.meta.url)), 'utf8');
    const [backfill] = /INSERT INTO journal_tax[\s\S]*?\n\) s;/.exec(sql)!;
    await world.rows('create table earlier (like journal_tax)');
    await world.rows(backfill.replace('INSERT INTO journal_tax', 'INSERT INTO earlier'));
    const of = async (table: string) =>
      world.rows(
        `select entry_id, tax_code_id, net::float, tax::float, reclaimed::float, owed::float, withheld::float from ${table} order by 1, 2`,
      );
    const [kept, earlier] = [await of('journal_tax'), await of('earlier')];
    expect(kept).toHaveLength(5);
    expect(earlier).toEqual(kept);
  });
});

describe('a tax code', () => {
  it('has the rate of the bill’s day', async () => {
    await put('S20', { laterRates: [{ from: '2026-11-01', rate: '22' }] });
    const old = await world.build.bill({ issueDate: '2026-10-31', lines: [{ amount: '100.00' }], tax: '20.00', gross: '120.00' });
    const fresh = await world.build.bill({ issueDate: '2026-11-01', lines: [{ amount: '100.00' }], tax: '22.00', gross: '122.00' });
    const wrong = await world.build.bill({ issueDate: '2026-11-01', lines: [{ amount: '100.00' }], tax: '20.00', gross: '120.00' });
    const codes = async (id: string) => (await world.show(id)).exceptions.map((e) => e.code);
    expect([await codes(old), await codes(fresh), await codes(wrong)]).toEqual([[], [], ['tax-unexplained']]);
    const twice = put('S20', { laterRates: [{ from: '2026-11-01', rate: '22' }, { from: '2026-11-01', rate: '23' }] }); // prettier-ignore
    await expect(twice).rejects.toThrow('Two rates begin on the same day');
    await expect(put('S20', { laterRates: [{ from: '2026-11-01', rate: '122' }] })).rejects.toThrow('between 0 and 100');
    // What is not said stays as it is.
    await put('S20', { name: 'Standard' });
    expect(await codes(fresh)).toEqual([]);
    await put('S20', { laterRates: [] });
    expect(await codes(wrong)).toEqual([]);
  });
  it('that withholds leaves the supplier the rest, owed on its account', async () => {
    await expect(put('Z0', { withheld: '20', withheldAccountId: null })).rejects.toThrow('needs an account');
    await put('Z0', { withheld: '20', withheldAccountId: mbg().account('2200') });
    const id = await posted('T-9', 'Z0', '100.00', { tax: '0.00', gross: '100.00', entryDate: '2026-12-01' });
    const [item] = await world.rows('select amount::float, base_amount::float from open_item where bill_id = $1', id);
    expect(item).toEqual({ amount: 80, base_amount: 80 });
    expect(await summary('2026-12-01', '2026-12-31')).toEqual([['Z0', '2026-12', 1, { net: '100.00', withheld: '20.00' }]]);
    await put('Z0', { withheld: '0', withheldAccountId: null });
  });
});

describe('tax that is typed over', () => {
  it('passes as far as the company lets it, and is posted with the code that has most', async () => {
    const off = await world.build.bill({
      number: 'T-8',
      issueDate: '2026-11-05',
      lines: [{ amount: '100.00' }],
      tax: '20.40',
      gross: '120.40',
    });
    const codes = async () => (await world.show(off)).exceptions.map((e) => e.code);
    expect(await codes()).toEqual(['tax-unexplained']);
    const own = (await world.rows('select name, tax_id, mail_address, queue_order from company where id = $1', mbg().id))[0];
    const lets = async (taxTolerance: string | null) =>
      world.run(setCompany, await kit(), {}, { name: own.name, taxId: own.tax_id, mailAddress: own.mail_address, queueOrder: own.queue_order, taxTolerance }); // prettier-ignore
    await lets('0.50');
    expect([await codes(), (await world.rows(`select state from bill_exception where bill_id = $1`, off))[0].state]).toEqual([
      [],
      'settled',
    ]);
    // What passes is still told.
    expect([(await world.show(off)).tax, (await world.show(off)).taxByRates]).toEqual(['20.40', '20.00']);
    await expect(lets('-1')).rejects.toThrow('zero or more');
    await lets(null);
    expect(await codes()).toEqual(['tax-unexplained']);
    expect(testDay > '2026-11-05').toBe(true);
  });
});
