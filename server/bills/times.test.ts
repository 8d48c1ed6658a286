import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { setPeriod } from '../ledger/periods.ts';
import { newRepeat } from '../repeats/service.ts';
import { makeTurns } from '../repeats/turns.ts';
import { arrive, invoiceOf, makeWorld, type World } from '../testing/world.ts';

let world: World;
let supplier = '';
beforeAll(async () => {
  world = await makeWorld();
  supplier = world.someSupplier('MBG')!;
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const bill = (wish: object) => world.build.bill({ supplier, ...wish });
const said = async (id: string, ...codes: string[]) => (await world.show(id)).exceptions.filter((e) => codes.includes(e.code)).map((e) => [e.sentence, e.other]); // prettier-ignore

describe('what is charged or may be spent in a time', () => {
  it('a month that is closed is said', async () => {
    const id = await bill({ issueDate: '2026-09-14' });
    expect(await said(id, 'month-closed')).toEqual([]);
    await world.run(setPeriod, await world.as('Halina Voss'), {}, { year: 2026, month: 9, open: false });
    expect(await said(id, 'month-closed')).toEqual([['Sep 2026 is closed: this bill will be posted in a later month.', null]]);
  });
  it('days that another bill of the supplier charged for the same, of the two the later one; not where that was discarded', async () => {
    const service = (days: string) => [{ description: `Lift service ${days}`, quantity: '1', unitPrice: '100.00', amount: '100.00' }];
    const first = await bill({ number: 'LS-1', lines: service('15 Oct 2026 to 14 Nov 2026') });
    const second = await bill({ number: 'LS-2', lines: service('1 Nov 2026 to 30 Nov 2026') });
    const third = await bill({ number: 'LS-3', lines: service('1 Dec 2026 to 31 Dec 2026') });
    expect([await said(first, 'charged-twice'), await said(third, 'charged-twice')]).toEqual([[], []]);
    expect(await said(second, 'charged-twice')).toEqual([['Row 1 charges 1 Nov 2026 to 30 Nov 2026; LS-1 charged 15 Oct 2026 to 14 Nov 2026 for the same.', first]]); // prettier-ignore
    await world.rows(`update bill set stage = 'discarded' where id = $1`, first);
    expect(await said(second, 'charged-twice')).toEqual([]);
  });
  it('a bill that repeats and has come already; not the bill of the turn itself, nor one far from it', async () => {
    const first = await bill({ number: 'GR-10', issueDate: '2026-10-01' });
    const { id: repeatId } = await world.run(newRepeat, await world.as('Ines Okafor'), {}, { billId: first, name: 'Ground rent', begins: '2026-11-01', every: 'month', weeks: null, until: null, fixed: true, documentWithin: 10 }); // prettier-ignore
    await makeTurns({ ...world.services, now: () => new Date('2026-11-02T06:00:00Z') });
    const [turn] = await world.rows(`select id from bill where repeat_id = $1`, repeatId);
    const again = await bill({ number: 'GR-11', issueDate: '2026-11-04' });
    expect(await said(again, 'repeat-twice')).toEqual([]);
    // Its document came.
    const arrived = await arrive(world, invoiceOf(0, { number: 'GR-11A', issueDate: '2026-11-03' }));
    await world.rows(`update bill set stage = 'discarded' where id = $1`, arrived);
    await world.rows(`update bill set document_id = (select document_id from bill where id = $2), invoice_number = 'GR-11A' where id = $1`, turn!['id'], arrived); // prettier-ignore
    expect(await said(again, 'repeat-twice')).toEqual([
      ['Ground rent repeats, and its bill for 1 Nov 2026 has come already: GR-11A.', turn!['id']],
    ]);
    expect(await said(turn!['id'] as string, 'repeat-twice')).toEqual([]);
    expect(await said(await bill({ number: 'GR-12', issueDate: '2026-11-25' }), 'repeat-twice')).toEqual([]);
    expect(await said(await bill({ number: 'GR-13', issueDate: '2026-11-04', lines: [{ amount: '7.00' }] }), 'repeat-twice')).toEqual([]);
  });
  it('a budget of the year, by what is posted, what has gone on, and this bill; a cost centre by itself', async () => {
    const budget = (centre: string | null, amount: string) =>
      world.rows(`insert into budget (id, company_id, account_id, cost_centre_id, year, month, amount) values (gen_random_uuid(), $1, $2, $3, 2026, 1, $4)`, mbg().id, mbg().account('6010'), centre, amount); // prettier-ignore
    await budget(null, '1000.00');
    await budget(mbg().centre('210'), '150.00');
    const on = (amount: string, centre: string, stage = 'read') => bill({ stage, lines: [{ amount, account: '6010', centre }] });
    await on('600.00', '200', 'posted');
    await on('300.00', '200', 'coded');
    // In hand: no budget is gone for it yet.
    await on('500.00', '200');
    const within = await on('100.00', '210');
    expect(await said(within, 'budget-over')).toEqual([]);
    const over = await on('200.00', '210');
    expect(await said(over, 'budget-over')).toEqual([
      ['Row 1 takes 6010 GBP 100.00 over its budget of 1,000.00 for 2026.', null],
      ['Row 1 takes 6010 at 210 GBP 50.00 over its budget of 150.00 for 2026.', null],
    ]);
    const dollars = await bill({ currency: 'USD', lines: [{ amount: '200.00', account: '6010', centre: '200' }] });
    // 200.00 dollars at 0.8 are 160.00.
    expect(await said(dollars, 'budget-over')).toEqual([['Row 1 takes 6010 GBP 60.00 over its budget of 1,000.00 for 2026.', null]]);
  });
  it('a number unlike the supplier’s last ones', async () => {
    const other = (await world.rows(`select name from supplier where company_id = $1 and name <> $2 and currency = 'GBP' order by code desc limit 1`, mbg().id, supplier))[0]!['name'] as string; // prettier-ignore
    for (let i = 1; i <= 6; i++)
      await world.build.bill({ supplier: other, number: `FW-204${i}`, stage: 'posted', issueDate: `2026-10-0${i}` });
    const odd = await world.build.bill({ supplier: other, number: '884213' }),
      even = await world.build.bill({ supplier: other, number: 'FW-2051' });
    expect(await said(odd, 'number-unlike')).toEqual([[`No bill of ${other} had a number like 884213; the last were FW-2046 and FW-2045. Is it another number of the page?`, null]]); // prettier-ignore
    expect(await said(even, 'number-unlike')).toEqual([]);
  });
});
