import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { choicesFor } from '../accounts/choices.ts';
import { changeBill } from '../bills/change.ts';
import { setUsual, showUsual } from '../coding/usual.ts';
import { newDimension, newDimensionValue } from '../dimensions/service.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { changeItem, newItem } from './service.ts';
import { listItems } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const kit = () => world.as('Kit Arden');
const item = (more: object = {}) => ({
  code: 'POWER',
  name: 'Electricity',
  alsoCalled: null,
  unit: null,
  price: null,
  currency: null,
  accountId: mbg().account('6010'),
  taxCodeId: mbg().taxCode('R5').id,
  stocked: false,
  active: true,
  ...more,
});
/** The one line of a bill whose supplier is chosen later: what is read goes the same way. */
async function coded(description: string, supplier: string) {
  const id = await world.build.bill({
    supplier: null,
    tax: '0.50',
    lines: [{ amount: '10.00', description, account: null, centre: null, code: null }],
  });
  const operations = [{ do: 'set', field: 'supplierId', value: world.master.supplier(supplier) }];
  await world.run(changeBill, await world.as('Ines Okafor'), { id }, { rowVersion: (await world.show(id)).rowVersion, operations });
  return (await world.show(id)).lines[0]!;
}
let stranger = '';
beforeAll(async () => {
  // A supplier with nothing posted and nothing usual.
  [{ name: stranger }] = (await world.rows(
    `update supplier set account_id = null, cost_centre_id = null, tax_code_id = null where id = (select id from supplier where company_id = $1 order by code limit 1) returning name`,
    mbg().id,
  )) as [{ name: string }];
});

describe('an item', () => {
  it('codes rows that say so where nothing else is known, until it is closed', async () => {
    expect((await coded('Electricity, May', stranger)).accountId).toBeNull();
    const made = await world.run(newItem, await kit(), {}, item({ alsoCalled: 'day units, KWH-2' }));
    for (const text of ['Electricity, May', 'Day units 4,210', 'POWER']) {
      const line = await coded(text, stranger);
      expect([line.accountId, line.taxCodeId]).toEqual([mbg().account('6010'), mbg().taxCode('R5').id]);
      expect(line.marks['accountId']!.proof).toBe('Usual for the item “Electricity”');
    }
    await world.run(changeItem, await kit(), made, item({ active: false }));
    expect((await coded('Electricity, May', stranger)).accountId).toBeNull();
    await world.run(changeItem, await kit(), made, item());
    const log = await world.rows(`select verb, before, after from event where subject_type = 'item' order by seq`);
    expect(log.map((e) => e.verb)).toEqual(['made', 'changed', 'changed']);
    expect(log[1]).toMatchObject({ before: { active: true, alsoCalled: 'day units, KWH-2' }, after: { active: false, alsoCalled: null } });
  });
  it('never brings an account that the bill’s day may not use', async () => {
    await world.rows(`update ledger_account set active = false where id = $1`, mbg().account('6010'));
    const line = await coded('Electricity, May', stranger);
    expect([line.accountId, line.taxCodeId]).toEqual([null, mbg().taxCode('R5').id]);
    await world.rows(`update ledger_account set active = true where id = $1`, mbg().account('6010'));
  });
  it('is offered by code and name, with what a row that takes it gets', async () => {
    await world.run(newItem, await kit(), {}, item({ code: 'BULB-9', name: 'Lamp, 9 W', unit: 'piece', price: '4.25', currency: 'GBP' }));
    const asker = { company: mbg(), me: { id: world.master.person('Ines Okafor') } };
    const [lamp, ...others] = await choicesFor(world.database.db, asker, 'items', 'lamp', '2026-11-20');
    expect(others).toEqual([]);
    expect(lamp).toMatchObject({ code: 'BULB-9', detail: '4.25 GBP a piece', unit: 'piece', price: '4.25', currency: 'GBP' });
    expect(lamp).not.toHaveProperty('stocked');
    expect(lamp!.going!.map((g) => [g.field, g.code])).toEqual([['accountId', '6010'], ['taxCodeId', 'R5']]); // prettier-ignore
    const page = await listItems(world.database.db, mbg().id, '', null, 1);
    expect(page.map((i) => [i.code, i.account, i.taxCode])).toEqual([['BULB-9', '6010 Fertilisers', 'R5']]);
    expect((await listItems(world.database.db, mbg().id, '', ['BULB-9', page[0]!.id], 5)).map((i) => i.code)).toEqual(['POWER']);
  });
  it('is refused where it says half of a price, a code twice, or another company’s account', async () => {
    const make = async (more: object, who = kit()) => world.run(newItem, await who, {}, item({ code: 'X1', ...more }));
    await expect(make({ price: '4.00' })).rejects.toMatchObject({ status: 422, errors: [{ path: 'currency' }] });
    await expect(make({ currency: 'GBP' })).rejects.toMatchObject({ status: 422, errors: [{ path: 'price' }] });
    await expect(make({ price: '-1', currency: 'GBP' })).rejects.toThrow('zero or more');
    await expect(make({ code: 'POWER' })).rejects.toMatchObject({ status: 409 });
    await expect(make({ accountId: world.master.company('MNT').account('6000') })).rejects.toThrow('does not belong to this company');
    await expect(make({}, world.as('Ines Okafor'))).rejects.toMatchObject({ status: 403 });
    await expect(world.rows(`update item set price = -1, currency = 'GBP'`)).rejects.toThrow('item_price');
  });
});

describe('what is usual in the company', () => {
  it('codes what nothing else says, and is said so; what is trusted more stays', async () => {
    const usual = { accountId: mbg().account('6300'), costCentreId: mbg().centre('210') };
    await world.run(setUsual, await kit(), {}, { coding: usual });
    expect((await showUsual(world.database.db, mbg().id)).shown.map((s) => s.code)).toEqual(['6300', '210']);
    const line = await coded('Something never seen', stranger);
    expect([line.accountId, line.costCentreId]).toEqual([usual.accountId, usual.costCentreId]);
    expect(line.marks['accountId']!.proof).toBe('Usual in this company');
    expect((await coded('Electricity, May', stranger)).accountId).toBe(mbg().account('6010'));
    await world.run(setUsual, await kit(), {}, { coding: { costCentreId: usual.costCentreId } });
    expect((await coded('Something never seen', stranger)).accountId).toBeNull();
    const log = await world.rows(`select before, after from event where subject_type = 'usual-coding' order by seq`);
    expect(log[1]).toEqual({ before: { accountId: '6300 Carriage inwards' }, after: { accountId: null } });
    await expect(world.run(setUsual, await world.as('Ines Okafor'), {}, { coding: {} })).rejects.toMatchObject({ status: 403 });
  });
  it('says where the pennies of a foreign bill go', async () => {
    const own = mbg();
    await world.rows(`delete from exchange_rate where company_id = $1 and currency = 'EUR'`, own.id);
    await world.rows(`insert into exchange_rate (company_id, currency, day, rate) values ($1, 'EUR', '2026-01-01', 0.5)`, own.id);
    await world.run(setUsual, await kit(), {}, { coding: {}, roundingAccountId: own.account('6300') });
    await world.run(setUsual, await kit(), {}, { coding: {} });
    expect(await showUsual(world.database.db, own.id)).toMatchObject({ roundingAccount: '6300 Carriage inwards' });
    const of = (amount: string) => ({ amount, code: 'Z0' });
    const [{ name: supplier }] = (await world.rows(`select name from supplier where company_id = $1 and name <> $2 limit 1`, own.id, stranger)) as [{ name: string }]; // prettier-ignore
    const id = await world.build.bill({
      supplier,
      stage: 'posted',
      currency: 'EUR',
      tax: '0',
      lines: [of('0.05'), of('0.05'), of('0.05')],
    });
    const lines = await world.rows(
      `select a.code, l.debit, l.credit, l.currency_amount from journal_line l join ledger_account a on a.id = l.account_id
       join journal_entry e on e.id = l.entry_id where e.source_id = $1 order by l.position`,
      id,
    );
    expect(lines.slice(3)).toEqual([
      { code: '6300', debit: '0', credit: '0.01', currency_amount: '0.00' },
      { code: '2100', debit: '0', credit: '0.08', currency_amount: '-0.15' },
    ]);
    await world.run(setUsual, await kit(), {}, { coding: {}, roundingAccountId: null });
    const theirs = world.master.company('MNT').account('6300');
    const wrong = world.run(setUsual, await kit(), {}, { coding: {}, roundingAccountId: theirs });
    await expect(wrong).rejects.toThrow('does not belong to this company');
  });
});

it('a supplier’s usual dimensions are of their own dimension, and code its rows', async () => {
  const put = { active: true, validFrom: null, validTo: null };
  for (const name of ['Project', 'Fund']) await world.run(newDimension, await kit(), {}, { name, always: false, active: true });
  const { id } = await world.run(newDimensionValue, await kit(), {}, { field: 'dimension1', code: 'ROOF', name: 'Roof', ...put });
  await world.rows(`update supplier set dimension_1 = $1 where name = $2`, id, stranger);
  expect((await coded('Anything', stranger)).dimension1).toBe(id);
  await expect(world.rows(`update supplier set dimension_2 = $1 where name = $2`, id, stranger)).rejects.toThrow('another dimension');
});
