import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { sendOn } from '../bills/moves.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';
import { alikeRows, codeAlike } from './alike.ts';
import { forgetLines, learnedFor } from './learned.ts';
import { changeCodingRule, listRules, newCodingRule, rulesFor } from './rules.ts';
import { tryRule } from './trial.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const ines = () => world.as('Ines Okafor');
const names = () => world.rows('select name from supplier where company_id = $1 order by code', mbg().id);
let power = '',
  other = '';
beforeAll(async () => {
  [power, other] = (await names()).slice(0, 2).map((r) => r.name as string) as [string, string];
});
const id = (name: string) => world.master.supplier(name);
const rule = (more: object = {}) => ({ supplierId: null, words: null, coding: {}, active: true, ...more });
/** An uncoded bill of a supplier, coded by choosing the supplier: what is read goes the same way. */
async function coded(supplier: string, description: string, more: object = {}) {
  const bill = await world.build.bill({
    supplier: null,
    lines: [{ amount: '10.00', description, account: null, centre: null, code: null }],
    ...more,
  });
  const { rowVersion } = await world.show(bill);
  await world.run(changeBill, await ines(), { id: bill }, { rowVersion, operations: [{ do: 'set', field: 'supplierId', value: id(supplier) }] }); // prettier-ignore
  const [line] = (await world.show(bill)).lines;
  return { bill, line: line! };
}

describe('a rule', () => {
  it('codes lines that are read from then on, says so at the cell, and comes before what was posted', async () => {
    for (const n of ['1', '2', '3'])
      await world.build.bill({ stage: 'posted', supplier: power, number: `R-${n}`, lines: [{ amount: '10.00', description: 'Standing charge', account: '6000' }] }); // prettier-ignore
    expect((await coded(power, 'Standing charge')).line.accountId).toBe(mbg().account('6000'));
    const made = await world.run(newCodingRule, await ines(), {}, rule({
      supplierId: id(power), words: 'standing', coding: { accountId: mbg().account('6140'), costCentreId: mbg().centre('210') },
    })); // prettier-ignore
    const { line } = await coded(power, 'Standing charge, June');
    expect([line.accountId, line.costCentreId]).toEqual([mbg().account('6140'), mbg().centre('210')]);
    expect(line.marks['accountId']).toMatchObject({ proof: 'By a rule for “standing” from this supplier' });
    expect((await coded(other, 'Standing charge')).line.accountId).not.toBe(mbg().account('6140'));
    await world.run(changeCodingRule, await ines(), made, rule({ supplierId: id(power), words: 'standing', coding: { accountId: mbg().account('6140') }, active: false })); // prettier-ignore
    expect((await coded(power, 'Standing charge')).line.accountId).toBe(mbg().account('6000'));
    const log = await world.rows(`select verb, before, after from event where subject_type = 'coding-rule' order by seq`);
    expect(log).toEqual([
      { verb: 'made', before: null, after: { supplier: power, words: 'standing', accountId: '6140 Costs 6140', costCentreId: '210 Palm House', active: true } },
      { verb: 'changed', before: { active: true, costCentreId: '210 Palm House' }, after: { active: false, costCentreId: null } },
    ]); // prettier-ignore
  });
  it('is about something and says something, of this company’s lists', async () => {
    const make = async (more: object) => world.run(newCodingRule, await ines(), {}, rule(more));
    const coding = { accountId: mbg().account('6140') };
    await expect(make({ coding })).rejects.toMatchObject({ status: 422, errors: [{ path: 'words', sentence: expect.anything() }] });
    await expect(make({ words: '--, ..', coding })).rejects.toThrow('no word in it');
    await expect(make({ words: 'x1', coding: {} })).rejects.toThrow('says at least one thing');
    const theirs = world.master.company('MNT');
    await expect(make({ words: 'x1', coding: { accountId: theirs.account('6000') } })).rejects.toThrow('does not belong to this company');
    const [foreign] = await world.rows('select id from supplier where company_id = $1 limit 1', theirs.id);
    await expect(make({ supplierId: foreign.id, coding })).rejects.toThrow('does not belong to this company');
    await expect(world.run(newCodingRule, await world.as('Marguerite Sable'), {}, rule({ words: 'x1', coding }))).rejects.toMatchObject({ status: 403 }); // prettier-ignore
    await expect(world.rows(`insert into coding_rule (id, company_id, words, made_by) values (gen_random_uuid(), $1, 'x', $2)`, mbg().id, world.master.person('Kit Arden'))).rejects.toThrow('says_something'); // prettier-ignore
  });
  it('says nothing that a bill’s day may not use', async () => {
    const made = await world.run(newCodingRule, await ines(), {}, rule({ words: 'winter fleece', coding: { accountId: mbg().account('6300'), costCentreId: mbg().centre('200') } })); // prettier-ignore
    await world.rows(`update ledger_account set valid_to = '2026-11-01' where id = $1`, mbg().account('6300'));
    const of = async (day: string) => (await rulesFor(world.database.db, mbg().id, null, day)).find((r) => r.id === made.id)!.coding;
    expect(await of('2026-11-01')).toEqual({ accountId: mbg().account('6300'), costCentreId: mbg().centre('200') });
    expect(await of('2026-11-02')).toEqual({ costCentreId: mbg().centre('200') });
    await world.rows(`update ledger_account set valid_to = null where id = $1`, mbg().account('6300'));
  });
  it('is listed with its codes; a supplier has its own', async () => {
    const all = await listRules(world.database.db, mbg().id);
    expect(all.map((r) => [r.supplier, r.words, r.shown.map((s) => s.code), r.active, r.madeBy])).toEqual([
      [power, 'standing', ['6140'], false, 'Ines Okafor'],
      [null, 'winter fleece', ['6300', '200'], true, 'Ines Okafor'],
    ]);
    expect((await listRules(world.database.db, mbg().id, id(power))).map((r) => r.words)).toEqual(['standing']);
    expect(await listRules(world.database.db, world.master.company('MNT').id)).toEqual([]);
  });
});

describe('a rule that is tried', () => {
  const trial = (asked: object) => tryRule(world.database.db, mbg().id, asked, testDay);
  it('tells what was posted as it says and what otherwise, that first, and the rows in hand that it codes', async () => {
    const line = (account: string) => [{ amount: '10.00', description: 'Hedge trimming', account, centre: '200' }];
    await world.build.bill({ stage: 'posted', supplier: other, number: 'T-1', issueDate: '2026-03-01', lines: line('6000') });
    await world.build.bill({ stage: 'posted', supplier: other, number: 'T-2', issueDate: '2026-04-01', lines: line('6140') });
    await world.build.bill({ stage: 'posted', supplier: power, number: 'T-3', issueDate: '2026-05-01', lines: line('6000') });
    await world.build.bill({ stage: 'posted', supplier: other, number: 'T-4', issueDate: '2025-11-01', lines: line('6140') });
    await world.build.bill({ supplier: other, number: 'T-5', lines: [{ amount: '1.00', description: 'Hedge trimming', account: null }] });
    const found = await trial({ words: 'hedge', accountId: mbg().account('6000') });
    expect(found).toMatchObject({ lines: 3, same: 2, otherwise: 1, inHand: 1 });
    expect(found.examples.map((e) => [e.invoiceNumber, e.same, e.was])).toEqual([['T-2', false, '6140'], ['T-3', true, '6000'], ['T-1', true, '6000']]); // prettier-ignore
    expect(await trial({ words: 'hedge', supplierId: id(power), accountId: mbg().account('6000') })).toMatchObject({ lines: 1, same: 1, inHand: 0 }); // prettier-ignore
    expect(await trial({ words: 'nothing like it', accountId: mbg().account('6000') })).toEqual({ lines: 0, same: 0, otherwise: 0, inHand: 0, examples: [] }); // prettier-ignore
    const elsewhere = await tryRule(world.database.db, world.master.company('MNT').id, { words: 'hedge' }, testDay);
    expect(elsewhere.lines).toBe(0);
  });
});

describe('what was learned of a supplier', () => {
  it('is seen by kinds of lines, and forgotten for what is posted by now', async () => {
    const line = (account: string, description: string) => [{ amount: '10.00', description, account, centre: '200' }];
    const moss = (await names()).map((r) => r.name as string)[2]!;
    await world.build.bill({ stage: 'posted', supplier: moss, number: 'L-1', issueDate: '2026-09-01', lines: line('6000', 'Bark, fine') });
    await world.build.bill({
      stage: 'posted',
      supplier: moss,
      number: 'L-2',
      issueDate: '2026-10-01',
      lines: line('6140', 'Fine bark 20'),
    });
    await world.build.bill({ stage: 'posted', supplier: moss, number: 'L-3', issueDate: '2026-10-02', lines: line('6300', 'Delivery') });
    const learned = async () => learnedFor(world.database.db, mbg().id, id(moss));
    const { lines, groups } = await learned();
    expect(lines).toBe(3);
    expect(groups.map((g) => [g.words, g.description, g.times])).toEqual([['bark fine', 'Fine bark 20', 2], ['delivery', 'Delivery', 1]]); // prettier-ignore
    expect(groups[0]!.codings.map((c) => [c.shown.map((s) => s.code), c.times, c.last])).toEqual([
      [['6140', '200', 'S20'], 1, '2026-10-01'],
      [['6000', '200', 'S20'], 1, '2026-09-01'],
    ]);
    expect((await coded(moss, 'Bark, fine')).line.marks['accountId']).toBeTruthy();
    await world.run(forgetLines, await ines(), { id: id(moss) }, { words: 'bark fine' });
    expect((await learned()).groups.map((g) => g.words)).toEqual(['delivery']);
    const { line: after } = await coded(moss, 'Bark, fine');
    expect(after.marks['accountId']?.proof ?? '').not.toContain('lines like this');
    // What is posted later is learned again.
    await world.build.bill({ stage: 'posted', supplier: moss, number: 'L-4', issueDate: '2026-10-02', lines: line('6140', 'Bark, fine') });
    expect((await learned()).groups.map((g) => [g.words, g.times])).toEqual([['bark fine', 1], ['delivery', 1]]); // prettier-ignore
    const [log] = await world.rows(`select note, person_id from event where verb = 'forgot'`);
    expect(log).toEqual({ note: '2 lines like “Fine bark 20”', person_id: world.master.person('Ines Okafor') });
    await expect(learnedFor(world.database.db, world.master.company('MNT').id, id(moss))).rejects.toMatchObject({ status: 404 });
  });
});

describe('uncoded rows that are alike', () => {
  beforeEach(async () => {
    await world.rows(`update bill set stage = 'discarded' where stage in ('read', 'returned')`);
  });
  const uncoded = (number: string, ...descriptions: string[]) =>
    world.build.bill({
      supplier: other,
      number,
      lines: descriptions.map((description) => ({ amount: '5.00', description, account: null })),
    });
  const code = async (rows: { billId: string; lineId: string }[], coding: object) =>
    world.run(codeAlike, await ines(), {}, { rows, coding });
  it('stand together over many bills, those with most rows first, and are coded in one go', async () => {
    const [one, two] = [await uncoded('A-1', 'Skip hire 4 yd', 'Gate'), await uncoded('A-2', 'Skip hire, 8 yd')];
    await world.build.bill({ supplier: power, number: 'A-3', lines: [{ amount: '5.00', description: 'Skip hire', account: null }] });
    const { groups, more } = await alikeRows(world.database.db, mbg().id);
    expect(more).toBe(false);
    expect(groups.map((g) => [g.supplier, g.rows.map((r) => r.invoiceNumber)])).toEqual([
      [other, ['A-2', 'A-1']],
      [power, ['A-3']],
      [other, ['A-1']],
    ]);
    const done = await code(groups[0]!.rows.map(({ billId, lineId }) => ({ billId, lineId })), { accountId: mbg().account('6300') }); // prettier-ignore
    expect(done).toEqual({ coded: 2, bills: 2, left: [] });
    const accounts = async (bill: string) => (await world.show(bill)).lines.map((l) => l.accountId);
    expect([await accounts(one), await accounts(two)]).toEqual([[mbg().account('6300'), null], [mbg().account('6300')]]);
    expect((await alikeRows(world.database.db, mbg().id)).groups).toHaveLength(2);
    const log = await world.rows(`select person_id, verb from event where subject_id = any($1) and verb = 'changed'`, [one, two]);
    expect(log).toEqual([one, two].map(() => ({ person_id: world.master.person('Ines Okafor'), verb: 'changed' })));
  });
  it('keep what somebody typed meanwhile, and leave bills alone that moved on', async () => {
    const [typed, sent, mine] = [await uncoded('B-1', 'Mulch'), await uncoded('B-2', 'Mulch'), await uncoded('B-3', 'Mulch')];
    const lineOf = async (bill: string) => (await world.show(bill)).lines[0]!.id;
    const set = async (bill: string) =>
      world.run(changeBill, await ines(), { id: bill }, { rowVersion: 1, operations: [{ do: 'set-cell', line: await lineOf(bill), field: 'accountId', value: mbg().account('6000') }] }); // prettier-ignore
    await set(typed);
    await set(sent);
    await world.run(sendOn, await ines(), { id: sent }, { rowVersion: (await world.show(sent)).rowVersion });
    const rows = await Promise.all([typed, sent, mine].map(async (billId) => ({ billId, lineId: await lineOf(billId) })));
    const there = { billId: await world.build.bill({ company: 'MNT' }), lineId: crypto.randomUUID() };
    expect(await code([...rows, there], { accountId: mbg().account('6300') })).toEqual({ coded: 1, bills: 1, left: ['B-2'] });
    expect((await world.show(typed)).lines[0]!.accountId).toBe(mbg().account('6000'));
    expect((await world.show(mine)).lines[0]!.accountId).toBe(mbg().account('6300'));
    await expect(code(rows, {})).rejects.toThrow('Choose an account');
    const last = await uncoded('B-4', 'Mulch');
    const theirs = code([{ billId: last, lineId: await lineOf(last) }], { accountId: world.master.company('MNT').account('6000') });
    await expect(theirs).rejects.toThrow('does not belong to this company');
  });
});
