import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { orderOf, receive } from '../testing/orders.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { putBudget } from './service.ts';
import { budgetAt, listBudgets } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const kit = () => world.as('Kit Arden');
const months = (...amounts: (string | null)[]) => Array.from({ length: 12 }, (_, i) => amounts[i] ?? null);
const put = async (account: string, centre: string | null, amounts: (string | null)[], year = 2026) =>
  world.run(
    putBudget,
    await kit(),
    {},
    { accountId: mbg().account(account), costCentreId: centre && mbg().centre(centre), year, months: months(...amounts) },
  );
const list = async (q = '', after: string | null = null, limit = 10) =>
  (await listBudgets(world.database.db, mbg().id, 2026, q, after, limit)).map((b) => [
    b.account.split(' ')[0],
    b.costCentre?.split(' ')[0] ?? null,
    b.year,
    b.posted,
    b.waiting,
  ]);

describe('a year’s budgets', () => {
  it('stand with what was posted and what waits, of the cost centre or of all together', async () => {
    await put('6000', '200', ['100.00', '100.50']);
    await put('6000', null, ['1000']);
    await put('6010', '210', ['50']);
    await put('6000', '200', ['7'], 2025);
    expect(await list()).toEqual([
      ['6000', null, '1000', '0', '0'],
      ['6000', '200', '200.50', '0', '0'],
      ['6010', '210', '50', '0', '0'],
    ]);
    const line = (amount: string, centre: string) => ({ amount, account: '6000', centre });
    await world.build.bill({ stage: 'posted', lines: [line('40.00', '200'), line('2.00', '210')] });
    await world.build.bill({ stage: 'posted', kind: 'credit-note', lines: [line('15.00', '200')] });
    await world.build.bill({ stage: 'coded', lines: [line('60.00', '200')] });
    await world.build.bill({ lines: [line('1.10', '210')] });
    await world.build.bill({ issueDate: '2025-11-02', lines: [line('9.00', '200')] });
    expect(await list('6000')).toEqual([
      ['6000', null, '1000', '27.00', '61.10'],
      ['6000', '200', '200.50', '25.00', '60.00'],
    ]);
  });
  it('wait in the company’s currency where a bill is in another', async () => {
    await world.rows(`insert into exchange_rate (company_id, currency, day, rate) values ($1, 'EUR', '2026-01-01', 0.5) on conflict (company_id, currency, day) do update set rate = 0.5`, mbg().id); // prettier-ignore
    await world.rows(`delete from exchange_rate where company_id = $1 and currency = 'EUR' and day > '2026-01-01'`, mbg().id);
    await world.build.bill({ currency: 'EUR', lines: [{ amount: '10.00', account: '6010', centre: '210' }] });
    expect(await list('6010')).toEqual([['6010', '210', '50', '0', '5.00']]);
  });
  it('wait at the rate of the month’s first day where the company takes rates by month', async () => {
    await world.rows(`insert into exchange_rate (company_id, currency, day, rate) values ($1, 'EUR', '2026-11-01', 0.8), ($1, 'EUR', '2026-11-02', 0.9) on conflict (company_id, currency, day) do update set rate = excluded.rate`, mbg().id); // prettier-ignore
    await world.rows(`update bill set issue_date = '2026-11-10' where currency = 'EUR'`);
    expect(await list('6010')).toEqual([['6010', '210', '50', '0', '9.00']]);
    await world.rows(`update company set rate_by = 'month' where id = $1`, mbg().id);
    expect(await list('6010')).toEqual([['6010', '210', '50', '0', '8.00']]);
    await world.rows(`update company set rate_by = 'day' where id = $1`, mbg().id);
    await world.rows(`delete from exchange_rate where company_id = $1 and currency = 'EUR' and day > '2026-01-01'`, mbg().id);
  });
  it('wait without tax where a bill’s prices include it, at the rate of its day, but under reverse charge', async () => {
    const of = async (issueDate: string, amount: string, change = '') => {
      const id = await world.build.bill({ issueDate, lines: [{ amount, account: '6300', centre: '210' }] });
      await world.rows(`update bill set prices_include_tax = true where id = $1`, id);
      if (change) await world.rows(`update bill_line set tax_code_id = ${change} where bill_id = $1`, id);
    };
    await put('6300', '210', ['10']);
    const { id: s20 } = mbg().taxCode('S20');
    await world.rows(`update tax_code set later_rates = '[{"from": "2026-06-01", "rate": "25"}]' where id = $1`, s20);
    await of('2026-05-31', '1.20'); // 1.00 at 20%
    expect(await list('6300')).toEqual([['6300', '210', '10', '0', '1.00']]);
    await of('2026-06-01', '12.50'); // 10.00 at 25%
    await of('2026-06-01', '100.00', 'null');
    await of('2026-06-01', '1000.00', `(select id from tax_code where company_id = '${mbg().id}' and reverse_charge limit 1)`);
    expect(await list('6300')).toEqual([['6300', '210', '10', '0', '1111.00']]);
    await world.rows(`update tax_code set later_rates = '[]' where id = $1`, s20);
    await world.rows(`update bill set stage = 'discarded' where prices_include_tax`);
    await put('6300', '210', []);
  });
  it('go on after the last of a page, and are found by any part of a name', async () => {
    const all = await listBudgets(world.database.db, mbg().id, 2026, '', null, 10);
    expect(await list('', budgetAt(all[0]!), 1)).toEqual([['6000', '200', '200.50', '25.00', '60.00']]);
    expect((await list('palm')).map((b) => b[0])).toEqual(['6010']);
  });
  it('are set anew, taken away with all months empty, and stand in the event log', async () => {
    await put('6010', '210', ['50', '20']);
    await put('6010', '210', ['50', '20']);
    await put('6010', '210', []);
    expect(await list('6010')).toEqual([]);
    const log = await world.rows(`select verb, note, before, after from event where subject_type = 'budget' and note like '6010%' order by seq`); // prettier-ignore
    expect(log).toEqual([
      { verb: 'made', note: '6010 210 2026', before: { m01: null }, after: { m01: '50' } },
      { verb: 'changed', note: '6010 210 2026', before: { m02: null }, after: { m02: '20' } },
      { verb: 'changed', note: '6010 210 2026', before: { m01: '50', m02: '20' }, after: { m01: null, m02: null } },
    ]);
  });
  it('are of this company’s lists, set by those who may, and once a month', async () => {
    const theirs = world.master.company('MNT').account('6000');
    const body = { accountId: theirs, costCentreId: null, year: 2026, months: months('1') };
    await expect(world.run(putBudget, await kit(), {}, body)).rejects.toThrow('does not belong to this company');
    const own = { ...body, accountId: mbg().account('6000') };
    await expect(world.run(putBudget, await world.as('Ines Okafor'), {}, own)).rejects.toMatchObject({ status: 403 });
    const twice = `insert into budget (id, company_id, account_id, year, month, amount) values (gen_random_uuid(), $1, $2, 2026, 1, 1)`;
    await expect(world.rows(twice, mbg().id, mbg().account('6000'))).rejects.toThrow('budget_once');
  });
  it('count a charge that is shared where its goods are', async () => {
    const supplier = world.someSupplier('MBG')!;
    await put('6300', null, ['500']);
    await put('6010', '200', ['500']);
    const order = await orderOf(world, supplier, { lines: [{ account: '6010', centre: '200' }] });
    await receive(world, order, { [order.lines[0]!]: '100' });
    const id = await world.build.bill({ supplier, number: 'CH-20411', lines: [{ kind: 'charge', description: 'Carriage', amount: '24.00', account: '6300' }] }); // prettier-ignore
    const waits = async () =>
      (await list())
        .filter(([account, centre]) => (account === '6300' && !centre) || (account === '6010' && centre === '200'))
        .map((b) => [b[0], b[4]]);
    expect(await waits()).toEqual([['6010', '0'], ['6300', '24.00']]); // prettier-ignore
    const [row] = await world.rows('select id, company_id from bill_line where bill_id = $1', id);
    const [came] = await world.rows('select id from receipt_line where order_line_id = $1', order.lines[0]);
    await world.rows(
      `insert into charge (bill_line_id, company_id, bill_id, basis) values ($1, $2, $3, 'value')`,
      row.id,
      row.company_id,
      id,
    );
    await world.rows(`insert into charge_share (bill_line_id, company_id, receipt_line_id, amount, account_id, cost_centre_id) values ($1, $2, $3, 24.00, $4, $5)`, row.id, row.company_id, came.id, mbg().account('6010'), mbg().centre('200')); // prettier-ignore
    expect(await waits()).toEqual([['6010', '24.00'], ['6300', '0']]); // prettier-ignore
  });
});
