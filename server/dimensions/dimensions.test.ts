import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Operation } from '@ledgerline/core/bills';
import type { ChoiceKind, Going } from '@ledgerline/contract';
import { choicesFor } from '../accounts/choices.ts';
import { changeAccount, changeCostCentre } from '../accounts/service.ts';
import { listAccounts, listCostCentres } from '../accounts/store.ts';
import { changeBill } from '../bills/change.ts';
import { findEntry } from '../ledger/store.ts';
import { postBills } from '../ledger/posting.ts';
import { previewOf } from '../ledger/journal.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { changeCombination, listCombinations, newCombination } from './combinations.ts';
import { effectOf } from './effect.ts';
import { changeDimension, changeDimensionValue, newDimension, newDimensionValue } from './service.ts';
import { listDimensions, listValues } from './store.ts';

let world: World;
/** Values of project and fund by code. */
const ids: Record<string, string> = {};
beforeAll(async () => {
  world = await makeWorld();
  await world.run(newDimension, await kit(), {}, { name: 'Project', always: false, active: true });
  await world.run(newDimension, await kit(), {}, { name: 'Fund', always: false, active: true });
  for (const code of ['APPEAL', 'GENERAL']) ids[code] = await value('dimension2', code);
  ids['ROOF'] = await value('dimension1', 'ROOF', [{ field: 'dimension2', valueId: ids['APPEAL']! }]);
  ids['POND'] = await value('dimension1', 'POND');
});
afterAll(() => world.close());
const kit = () => world.as('Kit Arden');
const mbg = () => world.master.company('MBG');
const always = { active: true, validFrom: null, validTo: null };
const value = async (field: 'dimension1' | 'dimension2', code: string, going: Going = []) =>
  (await world.run(newDimensionValue, await kit(), {}, { field, code, name: `The ${code}`, going, ...always })).id;
const account = {
  code: '6300',
  name: 'Carriage inwards',
  group: 'expense',
  kind: 'expense',
  needsCostCentre: true,
  parentId: null,
  postable: true,
  taxCodeId: null,
  ...always,
};
const centre = { code: '210', name: 'Palm House', parentId: null, ownerId: null, ...always };
const exceptions = async (id: string) => (await world.show(id)).exceptions.map((e) => e.sentence);
const set = async (id: string, cells: Partial<Record<'dimension1' | 'dimension2' | 'costCentreId' | 'taxCodeId', string | null>>) => {
  const { rowVersion, lines } = await world.show(id);
  const operations = Object.entries(cells).map(([field, to]) => ({ do: 'set-cell', line: lines[0]!.id, field, value: to }) as Operation);
  return world.run(changeBill, await world.as('Ines Okafor'), { id }, { rowVersion, operations });
};

describe('a dimension', () => {
  it('is named by the company, up to six, each name once; a closed one makes room by its name', async () => {
    const make = async (name: string) => world.run(newDimension, await kit(), {}, { name, always: false, active: true });
    await expect(make('Project')).rejects.toThrow('There is a dimension of this name already');
    for (const name of ['Branch', 'Season', 'Vehicle', 'House']) await make(name);
    await expect(make('One more')).rejects.toThrow('There are 6 dimensions already');
    const shown = await listDimensions(world.database.db, mbg().id);
    expect(shown.map((d) => [d.field, d.name, d.values])).toEqual([
      ['dimension1', 'Project', 2],
      ['dimension2', 'Fund', 2],
      ['dimension3', 'Branch', 0],
      ['dimension4', 'Season', 0],
      ['dimension5', 'Vehicle', 0],
      ['dimension6', 'House', 0],
    ]);
    for (const field of ['dimension3', 'dimension4', 'dimension5', 'dimension6'])
      await world.run(changeDimension, await kit(), { field }, { name: `Old ${field}`, always: false, active: false });
    const bill = await world.show(await world.build.bill());
    expect(bill.dimensions.map((d) => d.name)).toEqual(['Project', 'Fund']);
  });
  it('is made by who may change settings, at another company’s own', async () => {
    const put = { name: 'Mine', always: false, active: true };
    await expect(world.run(newDimension, await world.as('Ines Okafor'), {}, put)).rejects.toMatchObject({ status: 403 });
    const there = await world.as('Kit Arden', 'MNT');
    await expect(world.run(changeDimension, there, { field: 'dimension1' }, put)).rejects.toMatchObject({ status: 404 });
    expect((await world.run(newDimension, there, {}, put)).field).toBe('dimension1');
    await expect(world.run(changeDimensionValue, there, { id: ids['ROOF']! }, { field: 'dimension1', code: 'X', name: 'X', ...always })).rejects.toMatchObject({ status: 404 }); // prettier-ignore
  });
  it('is asked for on every row where it always is, at once and until it no longer is', async () => {
    const id = await world.build.bill();
    const put = async (on: boolean) =>
      world.run(changeDimension, await kit(), { field: 'dimension2' }, { name: 'Fund', always: on, active: true });
    await put(true);
    expect(await exceptions(id)).toEqual(['Row 1 needs a fund.']);
    await set(id, { dimension2: ids['GENERAL']! });
    expect(await exceptions(id)).toEqual([]);
    await put(false);
    await set(id, { dimension2: null });
    expect(await exceptions(id)).toEqual([]);
  });
  it('is asked for by the account that needs it', async () => {
    const id = await world.build.bill({ lines: [{ amount: '10.00', account: '6300' }] });
    const put = async (needsDimensions?: string[]) =>
      world.run(changeAccount, await kit(), { id: mbg().account('6300') }, { ...account, ...(needsDimensions ? { needsDimensions } : {}) });
    await put(['dimension1']);
    expect(await exceptions(id)).toEqual(['Row 1 needs a project.']);
    // What is not said stays as it is.
    await put();
    const [shown] = await listAccounts(world.database.db, mbg().id, '6300', null, 1);
    expect(shown!.needsDimensions).toEqual(['dimension1']);
    await set(id, { dimension1: ids['POND']! });
    expect(await exceptions(id)).toEqual([]);
    await put([]);
  });
});

describe('a value', () => {
  it('has its code once in its dimension, stays in it, and closes for bills of a day', async () => {
    await expect(value('dimension1', 'ROOF')).rejects.toThrow('This code is taken');
    ids['SHED'] = await value('dimension1', 'SHED');
    const put = async (more: object) =>
      world.run(changeDimensionValue, await kit(), { id: ids['SHED']! }, { field: 'dimension1', code: 'SHED', name: 'Shed', ...always, ...more }); // prettier-ignore
    await expect(put({ field: 'dimension2' })).rejects.toThrow('stays in its dimension');
    await expect(put({ validFrom: '2026-11-02', validTo: '2026-11-01' })).rejects.toThrow('last day is before the first');
    const id = await world.build.bill();
    await set(id, { dimension1: ids['SHED']! });
    await put({ validTo: '2026-11-01' });
    expect(await exceptions(id)).toEqual(['Row 1 has a project that is closed on the bill’s day. Choose another.']);
    const [logged] = await world.rows(
      `select before, after from event where subject_type = 'dimension-value' and subject_id = $1 and verb = 'changed'`,
      ids['SHED'],
    );
    expect(logged).toEqual({ before: { name: 'The SHED', validTo: null }, after: { name: 'Shed', validTo: '2026-11-01' } });
  });
  it('is of the dimension whose column it stands in, and of the company: the database says so, too', async () => {
    const id = await world.build.bill();
    await expect(set(id, { dimension1: ids['GENERAL']! })).rejects.toThrow('does not belong to this company');
    const direct = world.rows('update bill_line set dimension_1 = $2 where bill_id = $1', id, ids['GENERAL']);
    await expect(direct).rejects.toThrow('A value of another dimension');
    const there = await world.as('Kit Arden', 'MNT');
    const { id: theirs } = await world.run(newDimensionValue, there, {}, { field: 'dimension1', code: 'T', name: 'T', ...always });
    await expect(set(id, { dimension1: theirs })).rejects.toThrow('does not belong to this company');
  });
  it('is listed a page at a time by code, and found by code and name', async () => {
    const page = (q: string, after: [string, string] | null = null, limit = 2) =>
      listValues(world.database.db, mbg().id, 'dimension1', q, after, limit);
    const first = await page('');
    expect(first.map((v) => v.code)).toEqual(['POND', 'ROOF']);
    expect((await page('', [first[1]!.code, first[1]!.id])).map((v) => v.code)).toEqual(['SHED']);
    expect((await page('the roof')).map((v) => [v.code, v.going.map((g) => g.value)])).toEqual([['ROOF', ['APPEAL The APPEAL']]]);
  });
});

describe('what goes with a cost centre', () => {
  it('is offered with it, with what goes with that in its turn, as far as the bill’s day may have it', async () => {
    const put = async (going?: Going) =>
      world.run(changeCostCentre, await kit(), { id: mbg().centre('210') }, { ...centre, ...(going ? { going } : {}) });
    await put([{ field: 'dimension1', valueId: ids['ROOF']! }]);
    await put();
    const [shown] = await listCostCentres(world.database.db, mbg().id, '210', null, 1);
    expect(shown!.going.map((g) => [g.field, g.value])).toEqual([['dimension1', 'ROOF The ROOF']]);
    const [offer] = await choicesFor(world.database.db, await world.as('Ines Okafor'), 'cost-centres', '210', testDay);
    expect(offer!.going!.map((g) => [g.field, g.code])).toEqual([['dimension1', 'ROOF'], ['dimension2', 'APPEAL']]); // prettier-ignore
    const twice = put([{ field: 'dimension1', valueId: ids['ROOF']! }, { field: 'dimension1', valueId: ids['POND']! }]); // prettier-ignore
    await expect(twice).rejects.toMatchObject({ status: 422, errors: [{ path: 'going', sentence: expect.anything() }] });
    const itself = value('dimension1', 'LOOP', [{ field: 'dimension1', valueId: ids['POND']! }]);
    await expect(itself).rejects.toThrow('its own dimension');
    const wrong = put([{ field: 'dimension2', valueId: ids['ROOF']! }]);
    await expect(wrong).rejects.toThrow('does not belong to this company');
    const log = await world.rows(`select after from event where subject_type = 'cost-centre' and subject_id = $1`, mbg().centre('210'));
    expect(log).toEqual([{ after: { going: 'ROOF The ROOF' } }]);
  });
  it('comes along when the bill is coded by its supplier', async () => {
    const supplier = world.someSupplier('MBG')!,
      supplierId = world.master.supplier(supplier);
    await world.rows('update supplier set cost_centre_id = $2 where id = $1', supplierId, mbg().centre('210'));
    const id = await world.build.bill({ supplier: null, lines: [{ amount: '10.00', account: null, centre: null }] });
    const { rowVersion } = await world.show(id);
    await world.run(changeBill, await world.as('Ines Okafor'), { id }, { rowVersion, operations: [{ do: 'set', field: 'supplierId', value: supplierId }] }); // prettier-ignore
    const [line] = (await world.show(id)).lines;
    expect([line!.costCentreId, line!.dimension1, line!.dimension2]).toEqual([mbg().centre('210'), ids['ROOF'], ids['APPEAL']]);
    expect(line!.marks['dimension1']).toMatchObject({ proof: 'Goes with this cost centre' });
  });
});

describe('what goes together', () => {
  const rule = { whenField: 'dimension1', whenCodes: 'roof', onlyField: 'costCentreId', onlyCodes: '210 to 299', active: true };
  it('is a rule in ranges, refused at its field where it cannot be read', async () => {
    const make = async (more: object) => world.run(newCombination, await kit(), {}, { ...rule, ...more });
    await expect(make({ onlyCodes: '210-299' })).rejects.toMatchObject({ status: 422, errors: [{ path: 'onlyCodes', sentence: 'For a range write “210 to 299”.' }] }); // prettier-ignore
    await expect(make({ onlyField: 'dimension1' })).rejects.toThrow('two different things');
    const there = await world.as('Ines Okafor');
    await expect(world.run(newCombination, there, {}, rule)).rejects.toMatchObject({ status: 403 });
    expect(await listCombinations(world.database.db, mbg().id)).toEqual([]);
  });
  it('says what it would do before it is kept: rows in hand that it stops, and what was posted otherwise', async () => {
    await world.build.bill({ stage: 'posted', number: 'G-1', lines: [{ amount: '10.00', centre: '210' }, { amount: '5.00', centre: '200' }] }); // prettier-ignore
    await world.build.bill({ number: 'G-2', lines: [{ amount: '10.00', centre: '210' }] });
    const effect = await effectOf(
      world.database.db,
      mbg().id,
      { whenField: 'costCentreId', whenCodes: '21*', onlyField: 'taxCodeId', onlyCodes: 'Z0' },
      testDay,
    );
    // In hand on 210 with another code than Z0: G-2, and the bill that was coded by its supplier.
    expect(effect).toMatchObject({ bills: 2, stopped: 2, posted: 1, against: 1 });
    expect(effect.examples).toMatchObject([{ invoiceNumber: 'G-1', has: '210', with: 'S20' }]);
    const elsewhere = await effectOf(world.database.db, world.master.company('MNT').id, { whenField: 'costCentreId', whenCodes: '21*', onlyField: 'taxCodeId', onlyCodes: 'Z0' }, testDay); // prettier-ignore
    expect(elsewhere).toEqual({ bills: 0, stopped: 0, posted: 0, against: 0, examples: [] });
  });
  it('stops a bill at the cell that does not fit, and lets it go when the rule is off', async () => {
    const id = await world.build.bill({ lines: [{ amount: '10.00', centre: '200' }] });
    await set(id, { dimension1: ids['ROOF']! });
    const { id: made } = await world.run(newCombination, await kit(), {}, rule);
    expect(await listCombinations(world.database.db, mbg().id)).toMatchObject([{ whenCodes: 'ROOF', onlyCodes: '210 to 299' }]);
    const [found] = (await world.show(id)).exceptions;
    expect(found).toMatchObject({
      code: 'combination-barred',
      path: `${(await world.show(id)).lines[0]!.id}.costCentreId`,
      sentence: 'Row 1 has cost centre 200. Where the project is ROOF, the cost centre must be 210 to 299.',
    });
    await set(id, { costCentreId: mbg().centre('210') });
    expect(await exceptions(id)).toEqual([]);
    await set(id, { costCentreId: mbg().centre('200') });
    await world.run(changeCombination, await kit(), { id: made }, { ...rule, active: false });
    expect(await exceptions(id)).toEqual([]);
    await world.run(changeCombination, await kit(), { id: made }, rule);
  });
  it('is not offered otherwise; what it depends on can always be changed', async () => {
    const offers = async (of: ChoiceKind, beside: object) =>
      (await choicesFor(world.database.db, await world.as('Ines Okafor'), of, '', testDay, beside)).map((c) => c.code);
    expect((await offers('cost-centres', { dimension1: ids['ROOF'] })).every((c) => c.startsWith('21'))).toBe(true);
    expect(await offers('cost-centres', { dimension1: ids['POND'] })).toContain('200');
    // Else a row could not be coded over: first the one, then the other.
    expect(await offers('dimension1', { costCentreId: mbg().centre('200') })).toEqual(['POND', 'ROOF']);
    expect(await offers('dimension1', { costCentreId: mbg().centre('210') })).toEqual(['POND', 'ROOF']);
    // An id of another company says nothing.
    expect(await offers('cost-centres', { dimension1: crypto.randomUUID() })).toContain('200');
  });
  it('is asked once more at posting: what has changed since keeps a bill from the journal', async () => {
    const id = await world.build.bill({ stage: 'approved', number: 'G-9', lines: [{ amount: '10.00', centre: '200' }] });
    await world.rows('alter table bill_line disable trigger bill_line_sent_stays');
    await world.rows('update bill_line set dimension_1 = $2, dimension_2 = $3 where bill_id = $1', id, ids['ROOF'], ids['APPEAL']);
    await world.rows('alter table bill_line enable trigger bill_line_sent_stays');
    const post = async () =>
      world.run(postBills, await world.as('Halina Voss'), {}, { key: crypto.randomUUID(), billIds: [id], entryDate: testDay });
    await expect(post()).rejects.toThrow('G-9 cannot be posted as it is coded: Row 1 has cost centre 200.');
    const [held] = await listCombinations(world.database.db, mbg().id);
    await world.run(changeCombination, await kit(), { id: held!.id }, { ...rule, active: false });
    const company = (await world.as('Halina Voss')).company;
    const preview = await previewOf(world.database.db, company, id, testDay);
    expect(preview.lines.map((l) => [l.costCentre, l.dimensions])).toEqual([['200', ['Project ROOF', 'Fund APPEAL']], [null, []], [null, []]]); // prettier-ignore
    const { posted } = await post();
    const entry = await findEntry(world.database.db, company, posted[0]!.entryId);
    expect(entry.lines.map((l) => l.dimensions)).toEqual([['Project ROOF', 'Fund APPEAL'], [], []]);
    const change = world.rows('update journal_line set dimension_1 = null where entry_id = $1', posted[0]!.entryId);
    await expect(change).rejects.toThrow();
  });
});
