import Excel from 'exceljs';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type ImportListName, type ImportRun } from '@ledgerline/contract';
import * as files from '../testing/files.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { csvOf } from './export.ts';
import { importJob } from './run.ts';
import { bringIn, setMapping } from './service.ts';
import { findingsOf, leftOut, showRun } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
  await files.withDimensions(world);
});
afterAll(() => world.close());
const kit = (code = 'MBG') => world.as('Kit Arden', code);
const bytes = (text: string) => new TextEncoder().encode(text);
const mine = () => world.master.company('MBG').id;

const take = (list: ImportListName, content: string | Uint8Array, name?: string) => files.take(world, list, content, name);
const through = (run: ImportRun, goodOnly?: boolean) => files.through(world, run, goodOnly);
const account = async (code: string) =>
  (await world.rows(`select a.*, p.code as parent from ledger_account a left join ledger_account p on p.id = a.parent_id where a.company_id = $1 and a.code = $2`, mine(), code))[0]; // prettier-ignore
const eventsOf = (id: string) => world.rows(`select verb, source, before, after from event where subject_id = $1 order by seq`, id);

describe('a chart from a file', () => {
  const chart = [
    'Account number;Account name;Type;Sub-account of;VAT code;Category;Remarks',
    '7001;Gas;expense;7000;S20;Energy;from the old system',
    '7000;Energy;expense;;;Energy;',
    '7002;Oil;cost;7000;S20;Energy;',
    '7003;;expense;7000;S19;Energy;',
  ].join('\r\n');
  it('is looked through first: nothing is changed, and every error is named by row and column', async () => {
    const run = await take('accounts', chart);
    expect(run).toMatchObject({
      state: 'checked',
      fault: null,
      mapping: ['code', 'name', 'kind', 'parent', 'taxCode', 'group', null],
      counts: { rows: 4, good: 2, bad: 2, warnings: 0, made: 2, changed: 0, same: 0 },
    });
    expect(run.sample[0]).toEqual(['7001', 'Gas', 'expense', '7000', 'S20', 'Energy', 'from the old system']);
    const found = (query: object) => findingsOf(world.database.db, mine(), run.id, query, 0);
    expect((await found({})).map((f) => [f.row, f.column, f.cell])).toEqual([
      [4, 'Type', 'cost'],
      [5, 'Account name', ''],
      [5, 'VAT code', 'S19'],
    ]);
    expect((await found({ sort: 'column', order: 'desc' })).map((f) => f.column)).toEqual(['VAT code', 'Type', 'Account name']);
    expect((await found({ q: 's19' })).map((f) => f.row)).toEqual([5]);
    expect(await found({ severity: 'warning' })).toEqual([]);
    expect(await account('7001')).toBeUndefined();
    await expect(world.run(bringIn, await kit(), { id: run.id }, { goodOnly: false })).rejects.toThrow('2 rows have errors');
    const done = await through(run, true);
    expect(done).toMatchObject({ state: 'done', progress: 2, counts: { made: 2 } });
    expect(await account('7001')).toMatchObject({ name: 'Gas', kind: 'expense', parent: '7000', group_name: 'Energy', postable: true });
    expect(await eventsOf((await account('7001')).id)).toEqual([
      { verb: 'made', source: 'import', before: null, after: expect.objectContaining({ code: '7001', parent: '7000', taxCode: 'S20' }) },
    ]);
    await expect(world.run(bringIn, await kit(), { id: run.id }, { goodOnly: true })).rejects.toThrow('or was already');
  });
  it('gives the rows with errors back as a file, each with what is wrong, and takes that file', async () => {
    const run = await take('accounts', chart);
    const sheet = await leftOut(world.database.db, mine(), run.id);
    expect(sheet.heads.at(-1)).toBe('What is wrong');
    expect(sheet.rows.map((r) => [r[0], r[2], r.at(-1)])).toEqual([
      ['7002', 'cost', expect.stringContaining('Type: ')],
      ['7003', 'expense', expect.stringMatching(/^Account name: .* VAT code: There is no tax code “S19”/)],
    ]);
    const again = await take('accounts', csvOf(sheet));
    expect([again.counts.rows, again.counts.bad, again.mapping.at(-1)]).toEqual([2, 2, null]);
    await expect(leftOut(world.database.db, world.master.company('MNT').id, run.id)).rejects.toMatchObject({ status: 404 });
  });
  it('mended and chosen again it updates: what is there already stays, with no event', async () => {
    const mended = chart.replace('cost', 'Expense').replace('7003;;', '7003;Coal;').replace('S19', 'S20').replace('Gas', 'Town gas');
    const done = await through(await take('accounts', mended));
    expect(done.counts).toMatchObject({ rows: 4, good: 4, bad: 0, made: 2, changed: 1, same: 1 });
    const gas = await eventsOf((await account('7001')).id);
    expect(gas[1]).toMatchObject({ verb: 'changed', before: { name: 'Gas' }, after: { name: 'Town gas' } });
    expect(await eventsOf((await account('7000')).id)).toHaveLength(1);
  });
  it('of two columns of one name each is told by its own cell', async () => {
    const run = await take('accounts', 'Code,Name,Kind,Tax,Tax\n7050,One,expense,S20,R5\n');
    await world.run(setMapping, await kit(), { id: run.id }, { mapping: ['code', 'name', 'kind', null, 'validFrom'] });
    const found = await findingsOf(world.database.db, mine(), run.id, {}, 0);
    expect(found.map((f) => [f.column, f.cell])).toEqual([['Tax', 'R5']]);
  });
  it('columns are mapped by hand where a name tells nothing, and so the next time', async () => {
    const odd = 'A,B,C\n7100,Water,expense\n';
    const run = await take('accounts', odd);
    expect([run.mapping, run.fault]).toEqual([[null, null, null], 'Say which column holds: Code, Name, Kind.']);
    await expect(world.run(bringIn, await kit(), { id: run.id }, { goodOnly: true })).rejects.toThrow('Say which column');
    await world.run(setMapping, await kit(), { id: run.id }, { mapping: ['code', 'name', 'kind'] });
    expect((await showRun(world.database.db, mine(), run.id)).counts).toMatchObject({ good: 1, made: 1 });
    expect((await take('accounts', odd)).mapping).toEqual(['code', 'name', 'kind']);
  });
  it('two accounts change places under each other in one go', async () => {
    await through(await take('accounts', 'Code,Name,Kind,Under\n7200,A,expense,\n7201,B,expense,7200\n'));
    const run = await take('accounts', 'Code,Name,Kind,Under\n7200,A,expense,7201\n7201,B,expense,\n');
    expect(run.counts).toMatchObject({ bad: 0, changed: 2 });
    expect((await through(run)).state).toBe('done');
    expect([(await account('7200')).parent, (await account('7201')).parent]).toEqual(['7201', null]);
  });
  it('bills under review are checked again', async () => {
    const bill = await world.build.bill({ lines: [{ amount: '10.00', account: '6300' }] });
    await through(await take('accounts', 'Code,Name,Kind,Open\n6300,Carriage inwards,expense,no\n'));
    expect((await world.show(bill)).exceptions.map((e) => e.code)).toEqual(['account-closed']);
  });
});

describe('what goes wrong while rows are brought in', () => {
  it('leaves nothing half-done: a failure at the last step keeps all of it out, and it can be done again', async () => {
    const run = await take('accounts', 'Code,Name,Kind\n7300,One,expense\n7301,Two,expense\n');
    await world.run(bringIn, await kit(), { id: run.id }, { goodOnly: false });
    await world.rows(`create function refuse() returns trigger language plpgsql as $$ begin raise exception 'on purpose'; end $$`);
    await world.rows(`create trigger refuse before insert on event for each row when (new.source = 'import') execute function refuse()`);
    for (const _ of [1, 2]) await expect(importJob(world.services, run.id)).rejects.toThrow();
    await importJob(world.services, run.id);
    await world.rows('drop trigger refuse on event');
    expect(await account('7300')).toBeUndefined();
    const after = await showRun(world.database.db, mine(), run.id);
    expect([after.state, after.note]).toEqual(['failed', expect.stringContaining('Nothing was changed')]);
    expect((await through(run)).state).toBe('done');
    expect((await account('7301')).name).toBe('Two');
  });
  it('what changed since the dry run is seen: rows that have errors by now are not slipped in', async () => {
    const run = await take('accounts', 'Code,Name,Kind,Usual tax code\n7400,One,expense,R55\n');
    expect(run.counts.bad).toBe(0);
    await world.run(bringIn, await kit(), { id: run.id }, { goodOnly: false });
    await world.rows(`update tax_code set code = 'R56' where company_id = $1 and code = 'R55'`, mine());
    await world.drain();
    const after = await showRun(world.database.db, mine(), run.id);
    await world.rows(`update tax_code set code = 'R55' where company_id = $1 and code = 'R56'`, mine());
    expect([after.state, after.note, await account('7400')]).toEqual([
      'failed',
      expect.stringContaining('rows have errors now'),
      undefined,
    ]);
  });
  it('two files at once, and somebody at a row meanwhile: one after the other, and nobody’s change is lost', async () => {
    const first = await take('accounts', 'Code,Name,Kind\n7450,One,expense\n7451,Two,expense\n');
    const second = await take('accounts', 'Code,Name,Kind,Group\n7451,Two,asset,Late\n7450,One,asset,Late\n');
    for (const { id } of [first, second]) await world.run(bringIn, await kit(), { id }, { goodOnly: false });
    await Promise.all([importJob(world.services, first.id), importJob(world.services, second.id)]);
    expect([(await showRun(world.database.db, mine(), first.id)).state, (await showRun(world.database.db, mine(), second.id)).state]).toEqual(['done', 'done']); // prettier-ignore
    expect(await world.rows(`select count(*)::int as n from ledger_account where company_id = $1 and code like '745_'`, mine())).toEqual([
      { n: 2 },
    ]);
    // A person's change of a field that the file does not have, made while the file waits for it.
    const { id } = await account('7450');
    const third = await take('accounts', 'Code,Name,Kind\n7450,Won,expense\n');
    await world.run(bringIn, await kit(), { id: third.id }, { goodOnly: false });
    const client = await world.owner.connect();
    await client.query('begin');
    await client.query(`update ledger_account set needs_cost_centre = true where id = $1`, [id]);
    const job = importJob(world.services, third.id);
    await vi.waitFor(async () => expect((await world.rows(`select count(*)::int as n from pg_locks where not granted`))[0].n).toBeGreaterThan(0), 10_000); // prettier-ignore
    await client.query('commit');
    client.release();
    await job;
    expect(await account('7450')).toMatchObject({ name: 'Won', needs_cost_centre: true });
  });
  it('asked for twice at once it is done once', async () => {
    const run = await take('accounts', 'Code,Name,Kind\n7500,One,expense\n');
    await world.run(bringIn, await kit(), { id: run.id }, { goodOnly: false });
    await Promise.all([importJob(world.services, run.id), importJob(world.services, run.id)]);
    expect(await eventsOf((await account('7500')).id)).toHaveLength(1);
  });
});

describe('suppliers and rates', () => {
  it('bank details of a file wait for a second person; a name that another has is refused, a tax number or account asked about', async () => {
    const [known] = await world.rows(
      `select s.name, s.tax_id, a.iban from supplier s join bank_account a on a.supplier_id = s.id where s.company_id = $1 and s.tax_id is not null limit 1`,
      mine(),
    );
    const run = await take(
      'suppliers',
      `Code,Supplier name,Currency,Payment terms,IBAN,VAT number
S9001,Brackwater Mill,gbp,30 eom,GB12 XQZB 0012 3456 9876 54,
S9002,"${known.name}",GBP,,,
S9003,Fernhollow,GBP,,${known.iban},${known.tax_id}`,
    );
    const found = await findingsOf(world.database.db, mine(), run.id, {}, 0);
    expect(found.map((f) => [f.row, f.severity, f.sentence])).toEqual([
      [3, 'error', expect.stringMatching(/ is supplier S\d+ already\.$/)],
      [4, 'warning', `${known.name} has the same tax number.`],
      [4, 'warning', `${known.name} has the same bank account.`],
    ]);
    await through(run, true);
    const [mill] = await world.rows(`select id, currency, terms from supplier where code = 'S9001'`);
    expect(mill).toMatchObject({ currency: 'GBP', terms: '30 eom' });
    const accounts = () => world.rows('select iban, note, verified_at, retired_at from bank_account where supplier_id = $1', mill.id);
    expect(await accounts()).toEqual([{ iban: 'GB12XQZB00123456987654', note: 'From list.csv', verified_at: null, retired_at: null }]);
    expect((await eventsOf(mill.id)).map((e) => e.verb)).toEqual(['made', 'bank account entered']);
    // Another account waits beside it. The same file again enters nothing, and says that nothing changes.
    const other = 'Code,Supplier name,Currency,Payment terms,IBAN\nS9001,Brackwater Mill,GBP,30 eom,NL91ABNA0417164300\n';
    await world.rows(`update bank_account set verified_at = now(), verified_by = $2, how = 'by telephone' where supplier_id = $1`, mill.id, world.master.person('Halina Voss')); // prettier-ignore
    expect((await through(await take('suppliers', other))).counts).toMatchObject({ changed: 1, same: 0 });
    expect((await take('suppliers', other)).counts).toMatchObject({ changed: 0, same: 1 });
    expect((await eventsOf(mill.id)).filter((e) => e.verb === 'bank account entered')).toHaveLength(2);
    await world.rows(`update bank_account set retired_at = now() where supplier_id = $1 and verified_at is null`, mill.id);
    // Without bank details a later file leaves them alone.
    await through(await take('suppliers', 'Code,Supplier name,Currency,IBAN\nS9001,Brackwater Mills,GBP,\n'));
    expect((await accounts()).filter((a) => a.retired_at === null)).toHaveLength(1);
  });
  it('rates come from the table of a central bank, worked out in the company’s currency', async () => {
    const run = await take('rates', 'Date, USD, GBP, CHF, \n20 November 2026, 1.0800, 0.8640, 0.9600, \n');
    expect(run.heads).toEqual(['From', 'Currency', 'Rate']);
    await through(run);
    const rates = await world.rows(
      `select currency, rate from exchange_rate where company_id = $1 and day = '2026-11-20' order by 1`,
      mine(),
    );
    expect(rates).toEqual([
      { currency: 'CHF', rate: '0.9' },
      { currency: 'EUR', rate: '0.8640' },
      { currency: 'USD', rate: '0.8' },
    ]);
  });
});

describe('files from outside', () => {
  const refused = (content: string | Uint8Array, name = 'x.csv') => expect(take('accounts', content, name)).rejects;
  it('that are no tables say so in words', async () => {
    await refused('').toThrow('This file is empty');
    await refused('Code,Name,Kind\n').toThrow('no rows under its heads');
    await refused(new Uint8Array([0xd0, 0xcf, 0x11, 0xe0]), 'x.xls').toThrow('of the old kind');
    await refused('<?xml version="1.0"?><a/>').toThrow('This is an XML file');
    await refused(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9, 9]), 'x.xlsx').toThrow(/cannot be opened/);
    await refused(Array.from({ length: 61 }, (_, i) => `c${i}`).join(',') + '\n1,2\n').toThrow('more than 60 columns');
  });
  it('a spreadsheet’s days, figures, ticks and formulas are read as they are shown', async () => {
    const book = new Excel.Workbook(),
      page = book.addWorksheet('Chart');
    page.addRow(['Our accounts']);
    page.addRow(['Code', 'Name', 'Kind', 'From', 'Takes lines']);
    page.addRow([7600, { richText: [{ text: 'Gar' }, { text: 'den' }] }, 'expense', new Date('2026-03-01T00:00:00Z'), false]);
    page.addRow([{ formula: 'A3+1', result: 7601 }, 'Shed', 'expense', null, true]);
    const run = await take('accounts', new Uint8Array(await book.xlsx.writeBuffer()), 'x.xlsx');
    expect(run.sample).toEqual([
      ['7600', 'Garden', 'expense', '2026-03-01', 'no'],
      ['7601', 'Shed', 'expense', '', 'yes'],
    ]);
  });
  it('written in Windows’ letters keep their accents', async () => {
    const run = await take('cost-centres', new Uint8Array([...bytes('Code,Name\n900,Caf'), 0xe9, 10]));
    expect(run.sample).toEqual([['900', 'Café']]);
  });
});

it('another company’s import is not here', async () => {
  const run = await take('accounts', 'Code,Name,Kind\n7700,One,expense\n');
  const other = await kit('MNT');
  await expect(showRun(world.database.db, other.company.id, run.id)).rejects.toMatchObject({ status: 404 });
  await expect(findingsOf(world.database.db, other.company.id, run.id, {}, 0)).rejects.toMatchObject({ status: 404 });
  await expect(world.run(setMapping, other, { id: run.id }, { mapping: [] })).rejects.toMatchObject({ status: 404 });
  await expect(world.run(bringIn, other, { id: run.id }, { goodOnly: true })).rejects.toMatchObject({ status: 404 });
});

it('whatever files come one after another, the list is what they say', async () => {
  const codes = ['M1', 'M2', 'M3', 'M4'];
  const row = fc.record({ code: fc.constantFrom(...codes), name: fc.constantFrom('Fern', 'Moss', 'Reed'), parent: fc.option(fc.constantFrom(...codes, 'none'), { nil: '' }) }); // prettier-ignore
  const file = fc.record({ rows: fc.uniqueArray(row, { selector: (r) => r.code, minLength: 1, maxLength: 4 }), parents: fc.boolean() });
  const shown = async () =>
    new Map(
      (await world.rows(
        `select c.code, c.name, p.code as parent from cost_centre c left join cost_centre p on p.id = c.parent_id where c.company_id = $1 and c.code like 'M_'`,
        mine(),
      )).map((c) => [c.code as string, { name: c.name as string, parent: c.parent as string | null }]),
    ); // prettier-ignore
  const inRing = (of: ReadonlyMap<string, { parent: string | null }>, code: string) => {
    let at = of.get(code)?.parent ?? null;
    for (let n = 0; at !== null && n < 9; n++) {
      if (at === code) return true;
      at = of.get(at)?.parent ?? null;
    }
    return at !== null;
  };
  await fc.assert(
    fc.asyncProperty(fc.array(file, { minLength: 1, maxLength: 4 }), async (files) => {
      await world.rows(`update cost_centre set parent_id = null where company_id = $1 and code like 'M_'`, mine());
      await world.rows(`delete from cost_centre where company_id = $1 and code like 'M_'`, mine());
      const model = new Map<string, { name: string; parent: string | null }>();
      for (const { rows, parents } of files) {
        const heads = parents ? 'Code,Name,Part of' : 'Code,Name';
        const text = [heads, ...rows.map((r) => [r.code, r.name, ...(parents ? [r.parent] : [])].join(','))].join('\n');
        // Rows that name what is not there, or is left out itself, are left out; then those that stand under themselves; and so on.
        let good = rows;
        let after = new Map(model);
        for (let before = -1; parents && before !== good.length;) {
          before = good.length;
          const there = new Set([...model.keys(), ...good.map((r) => r.code)]);
          good = good.filter((r) => !r.parent || there.has(r.parent));
          if (good.length < before) continue;
          after = new Map([...model, ...good.map((r) => [r.code, { name: r.name, parent: r.parent || null }] as const)]);
          good = good.filter((r) => !inRing(after, r.code));
        }
        if (!parents)
          after = new Map([...model, ...good.map((r) => [r.code, { name: r.name, parent: model.get(r.code)?.parent ?? null }] as const)]);
        const run = await take('cost-centres', text);
        expect([text, run.counts.good, run.counts.bad]).toEqual([text, good.length, rows.length - good.length]);
        if (good.length === 0) continue;
        const done = await through(run, true);
        expect([text, done.state, done.note]).toEqual([text, 'done', null]);
        for (const r of good) model.set(r.code, after.get(r.code)!);
        expect(await shown()).toEqual(model);
      }
    }),
    { numRuns: 40 },
  );
});
