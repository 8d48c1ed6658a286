import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { furtherLists, importLists, type ImportListName, type ImportRun } from '@ledgerline/contract';
import * as files from '../testing/files.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { csvOf, tableOfList } from './export.ts';
import { furtherTables } from './further.ts';
import { findingsOf } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
  await files.withDimensions(world);
});
beforeAll(async () => {
  const lists: [ImportListName, string][] = [
    ['items', 'Code,Name,Price,Currency,Usual account\nPOWER,Electricity,,,6010\nPOT,"Pot, 2 l",0.22,GBP,6000'],
    ['terms', 'Code,Name,Terms,Also called\nMA,Monthly account,30 eom,"monthly, m/a"\nN30,30 days,net 30,'],
    ['budgets', 'Account,Cost centre,Year,Jan,Feb,Dec\n6000,200,2026,1000,1000,500.50\n6000,,2026,9000,,'],
    [
      'orders',
      'Order,Line,Supplier,Date,Currency,Description,Quantity,Price,Account\nPO-1,1,S1001,2026-11-02,GBP,Pots,100,0.22,6000\nPO-1,2,S1001,2026-11-02,GBP,Soil,20,8.40,6010',
    ],
  ];
  const came: [ImportListName, string] = [
    'receipts',
    'Delivery note,Received on,Order,Line,Quantity\nDN-1,2026-11-10,PO-1,1,60\nDN-1,2026-11-10,po-1,2,20',
  ];
  for (const [list, content] of [...lists, came])
    expect((await through(await take(list, content))).counts).toMatchObject({ made: 2, bad: 0 });
});
afterAll(() => world.close());
const bytes = (text: string) => new TextEncoder().encode(text);
const mine = () => world.master.company('MBG').id;

const take = (list: ImportListName, content: string | Uint8Array, name?: string) => files.take(world, list, content, name);
const through = (run: ImportRun, goodOnly?: boolean) => files.through(world, run, goodOnly);

describe('values of a company’s own dimensions from a file', () => {
  it('are told apart by dimension and code, and come into the dimension that is named', async () => {
    const run = await take(
      'dimension-values',
      'Dimension,Project code,Name,Until\nproject,ROOF,Palm House roof,\nProject,POND,Pond,2026-12-31\nFund,POND,Pond fund,\nSeason,X,X,\nFund,POND,again,',
    );
    expect(run.counts).toMatchObject({ rows: 5, good: 3, bad: 2, made: 2, changed: 1 });
    const found = await findingsOf(world.database.db, mine(), run.id, {}, 0);
    expect(found.map((f) => [f.row, f.sentence])).toEqual([
      [5, 'There is no dimension “Season”.'],
      [6, 'This value is in row 4 already.'],
    ]);
    await through(run, true);
    const values = await world.rows(
      `select field, code, name, valid_to::text from dimension_value where company_id = $1 order by field, code`,
      mine(),
    );
    expect(values).toEqual([
      { field: 'dimension1', code: 'POND', name: 'Pond', valid_to: '2026-12-31' },
      { field: 'dimension1', code: 'ROOF', name: 'Palm House roof', valid_to: null },
      { field: 'dimension2', code: 'POND', name: 'Pond fund', valid_to: null },
      { field: 'dimension2', code: 'ROOF', name: 'Roof', valid_to: null },
    ]);
  });
  it('tax codes need an account for what is owed under reverse charge', async () => {
    const run = await take(
      'tax-codes',
      'Code,Name,Rate,Account,Reverse charge,Output account\nRX,Reverse,20,1800,yes,\nRY,Reverse,20,1800,yes,2200',
    );
    const found = await findingsOf(world.database.db, mine(), run.id, {}, 0);
    expect(found.map((f) => [f.row, f.sentence])).toEqual([[2, 'Reverse charge needs an account for the tax that is owed.']]);
    await through(run, true);
    const [made] = await world.rows(`select rate, recoverable, reverse_charge, active from tax_code where code = 'RY'`);
    expect(made).toEqual({ rate: '20', recoverable: '100', reverse_charge: true, active: true });
  });
});

describe('what goes with the rows of a list', () => {
  const errors = async (run: ImportRun) => (await findingsOf(world.database.db, mine(), run.id, { severity: 'error' }, 0)).map((f) => [f.row, f.sentence]); // prettier-ignore
  it('comes with accounts: what they need, and what is filled in with them, in any order and case', async () => {
    const head = 'Code,Name,Kind,Needs,Filled in with it';
    const run = await take('accounts', [head, '7901,Roof works,expense,"fund, PROJECT","fund roof; Project ROOF"', '7902,Bad,expense,Branch,Project NONE', '7903,Twice,expense,,"Project ROOF, project roof"'].join('\n')); // prettier-ignore
    expect(await errors(run)).toEqual([
      [3, 'There is no dimension “Branch”.'],
      [3, 'There is no “Project NONE” among the dimensions. Write the dimension’s name and the value’s code.'],
      [4, 'One value of each dimension goes with it.'],
    ]);
    await through(run, true);
    const [made] = await world.rows(`select id, needs_dimensions from ledger_account where code = '7901'`);
    expect(made.needs_dimensions).toEqual(['dimension1', 'dimension2']);
    const going = () => world.rows(`select field from going_with where account_id = $1 order by field`, made.id);
    expect(await going()).toEqual([{ field: 'dimension1' }, { field: 'dimension2' }]);
    expect(
      (await take('accounts', [head, '7901,Roof works,expense,"Project, Fund","Project ROOF, Fund ROOF"'].join('\n'))).counts.same,
    ).toBe(1);
    await through(await take('accounts', [head, '7901,Roof works,expense,Fund,'].join('\n')));
    expect(await going()).toEqual([]);
    await through(await take('accounts', 'Code,Name,Kind\n7901,Roof works again,expense'));
    expect((await world.rows(`select needs_dimensions from ledger_account where code = '7901'`))[0].needs_dimensions).toEqual([
      'dimension2',
    ]);
  });
  it('comes with cost centres and with values', async () => {
    await through(await take('cost-centres', 'Code,Name,Filled in with it\n290,Wetland,Project ROOF'));
    await through(await take('dimension-values', 'Dimension,Code,Name,Filled in with it\nProject,POND,Pond,Fund ROOF'));
    const rows = await world.rows(`select c.code as centre, o.code as value, v.code, g.field from going_with g join dimension_value v on v.id = g.value_id
      left join cost_centre c on c.id = g.cost_centre_id left join dimension_value o on o.id = g.of_value_id where g.account_id is null order by c.code`); // prettier-ignore
    expect(rows).toEqual([
      { centre: '290', value: null, code: 'ROOF', field: 'dimension1' },
      { centre: null, value: 'POND', code: 'ROOF', field: 'dimension2' },
    ]);
  });
  it('comes with tax codes: later rates and what is withheld', async () => {
    const run = await take('tax-codes', ['Code,Name,Rate,Account,Withheld %,Account for what is withheld,Later rates', 'WH,Withheld,20,1800,10,2200,2028-07-01 22%; 2027-01-01 21', 'WA,No account,20,1800,10,,', 'WB,Days,20,1800,,,2027-02-30 21', 'WC,Twice,20,1800,,,2027-01-01 21; 2027-01-01 22'].join('\n')); // prettier-ignore
    expect(await errors(run)).toEqual([
      [3, 'What is withheld needs an account that it is owed on.'],
      [4, 'Later rates are not understood. Write them as 2027-01-01 21; 2028-07-01 22.'],
      [5, 'Two rates begin on the same day.'],
    ]);
    await through(run, true);
    expect(await world.rows(`select withheld, later_rates from tax_code where code = 'WH'`)).toEqual([
      { withheld: '10', later_rates: [{ from: '2027-01-01', rate: '21' }, { from: '2028-07-01', rate: '22' }] },
    ]); // prettier-ignore
  });
});

it('lines of one order say the same of it', async () => {
  const run = await take('orders', ['Order,Line,Supplier,Date,Currency,Description,Quantity,Price', 'PO-5,1,S1001,2026-11-02,GBP,Pots,1,1', 'po-5,2,S1002,2026-11-03,GBP,Pots,0,-1', 'PO-5,x,S1001,2026-11-02,GBP,Pots,1,1'].join('\n')); // prettier-ignore
  const errors = await findingsOf(world.database.db, mine(), run.id, { severity: 'error' }, 0);
  expect(errors.map((f) => [f.row, f.column, f.sentence])).toEqual([
    [3, 'Quantity', 'This has to be above zero.'],
    [3, 'Price', 'This has to be zero or more.'],
    [3, 'Supplier', 'po-5 has S1001 in row 2.'],
    [3, 'Date', 'po-5 has 2026-11-02 in row 2.'],
    [4, 'Line', '“x” is not a line’s number, from 1.'],
  ]);
  await through(run, true);
  const orders = await world.rows(`select o.number, count(l.id)::int as lines from purchase_order o join order_line l on l.order_id = o.id where o.number = 'PO-5' group by 1`); // prettier-ignore
  expect(orders).toEqual([{ number: 'PO-5', lines: 1 }]);
});

it('lines of orders come with weight, volume and whether they need a receipt; a file without these columns leaves them alone', async () => {
  const kept = () => world.rows(`select weight, volume, needs_receipt from order_line l join purchase_order o on o.id = l.order_id where o.number = 'PO-W' order by l.position`); // prettier-ignore
  await through(await take('orders', 'Order,Line,Supplier,Date,Currency,Description,Quantity,Price,"Weight, kg",Volume,Needs a receipt\nPO-W,1,S1001,2026-11-02,GBP,Soil,1,1,40,0.08,no\nPO-W,2,S1001,2026-11-02,GBP,Pots,1,1,,,')); // prettier-ignore
  const all = [{ weight: '40', volume: '0.08', needs_receipt: false }, { weight: null, volume: null, needs_receipt: true }]; // prettier-ignore
  expect(await kept()).toEqual(all);
  await through(await take('orders', 'Order,Line,Supplier,Date,Currency,Description,Quantity,Price\nPO-W,1,S1001,2026-11-02,GBP,Soil,2,1'));
  expect(await kept()).toEqual(all);
});

it('a line of an order whose code is an item’s is of that item, and a bill’s row finds it by what suppliers call it', async () => {
  await through(await take('items', 'Code,Name,Also called\nCANE,Bamboo cane,"tonkin stake, TK-180"'));
  const [{ code }] = await world.rows('select code from supplier where name = $1', world.someSupplier('MBG'));
  const file = (quantity: number) => `Order,Line,Supplier,Date,Currency,Item code,Description,Quantity,Price\nPO-C,1,${code},2026-11-02,GBP,cane,For the walled garden,${quantity},2.50`; // prettier-ignore
  const items = () => world.rows(`select i.code from order_line l join item i on i.id = l.item_id join purchase_order o on o.id = l.order_id where o.number = 'PO-C'`); // prettier-ignore
  await through(await take('orders', file(40)));
  await through(await take('orders', file(50)));
  expect(await items()).toEqual([{ code: 'CANE' }]);
  const id = await world.build.bill({ supplier: world.someSupplier('MBG')!, order: 'PO-C', number: 'C-20411', lines: [{ item: 'TK 180', description: 'Tonkin stake', quantity: '40', unitPrice: '2.50', amount: '100.00' }] }); // prettier-ignore
  expect(await world.rows('select why from line_match where bill_id = $1', id)).toEqual([{ why: 'same code, same text, same price' }]);
});

it('an order’s number is one however its letters are written, in one file and in the next', async () => {
  const rows = (...lines: string[]) => ['Order,Line,Supplier,Date,Currency,Description,Quantity,Price', ...lines].join('\n');
  await through(await take('orders', rows('PO-6,1,S1001,2026-11-02,GBP,Pots,1,1', 'po-6,2,S1001,2026-11-02,GBP,Soil,1,1')));
  await through(await take('orders', rows('Po-6,3,S1001,2026-11-02,GBP,Glass,1,1')));
  const orders = await world.rows(`select o.number, count(l.id)::int as lines from purchase_order o join order_line l on l.order_id = o.id where lower(o.number) = 'po-6' group by 1`); // prettier-ignore
  expect(orders).toEqual([{ number: 'PO-6', lines: 3 }]);
});

describe('what came of orders, from a file', () => {
  const file = (...lines: string[]) => ['Delivery note,Received on,Order,Line,Quantity', ...lines].join('\n');
  const received = async () => (await world.rows(`select sum(r.quantity)::float as n from receipt_line r join order_line l on l.id = r.order_line_id join purchase_order o on o.id = l.order_id where o.number = 'PO-7' group by l.position order by l.position`)).map((r) => r.n); // prettier-ignore
  it('is booked by delivery note, once however often the file comes, and stays as it was booked', async () => {
    await through(await take('orders', 'Order,Line,Supplier,Date,Currency,Description,Quantity,Price\nPO-7,1,S1001,2026-11-02,GBP,Pots,100,1\nPO-7,2,S1001,2026-11-02,GBP,Soil,20,1')); // prettier-ignore
    const one = file('DN-7,2026-11-10,PO-7,1,60', 'DN-7,2026-11-10,PO-7,2,20', 'DN-8,2026-11-12,PO-7,1,-10');
    expect((await through(await take('receipts', one))).counts).toMatchObject({ made: 3 });
    expect((await through(await take('receipts', one))).counts).toMatchObject({ made: 0, same: 3 });
    expect(await received()).toEqual([50, 20]);
    const run = await take('receipts', file('DN-7,2026-11-10,PO-7,1,61', 'DN-9,2026-11-12,PO-7,3,1', 'DN-9,2026-11-12,PO-77,1,1', 'DN-9,2026-11-12,PO-7,1,0')); // prettier-ignore
    expect((await findingsOf(world.database.db, mine(), run.id, { severity: 'error' }, 0)).map((f) => [f.row, f.sentence])).toEqual([
      [2, 'This is booked already with 60, and stays. Book what came beside it under a note of its own.'],
      [3, 'Order PO-7 has no line 3.'],
      [4, 'There is no order “PO-77”.'],
      [5, 'Leave a line out that nothing came of.'],
    ]);
    // A note that is there in part gets its further lines; another day is another note.
    await through(
      await take('orders', 'Order,Line,Supplier,Date,Currency,Description,Quantity,Price\nPO-7,3,S1001,2026-11-02,GBP,Glass,5,1'),
    );
    await through(await take('receipts', file('dn-8,2026-11-12,po-7,3,5')));
    expect(await received()).toEqual([50, 20, 5]);
    const other = await take('receipts', file('DN-8,2026-11-13,PO-7,2,1'));
    expect((await findingsOf(world.database.db, mine(), other.id, { severity: 'error' }, 0)).map((f) => f.sentence)).toEqual([
      'Delivery note DN-8 of PO-7 is booked already for 2026-11-12.',
    ]);
    const back = await through(await take('receipts', file('DN-10,2026-11-13,PO-7,1,-51')));
    expect([back.state, back.note]).toEqual(['failed', 'More of line 1 of PO-7 would go back than has come. Nothing was booked.']);
    expect(await received()).toEqual([50, 20, 5]);
  });
  it('an order and its receipt from files find the bill that came before them', async () => {
    const id = await world.build.bill({ supplier: world.someSupplier('MBG')!, order: 'PO-8', number: 'B-8', lines: [{ description: 'Bamboo cane 180 cm', quantity: '40', unitPrice: '2.50', amount: '100.00' }] }); // prettier-ignore
    const codes = async () => (await world.rows(`select code from bill_exception where bill_id = $1 and state = 'open' and code like 'order-%'`, id)).map((r) => r.code); // prettier-ignore
    const [{ code }] = await world.rows('select s.code from supplier s join bill b on b.supplier_id = s.id where b.id = $1', id);
    expect(await codes()).toEqual(['order-unknown']);
    await through(await take('orders', `Order,Line,Supplier,Date,Currency,Description,Quantity,Price\nPO-8,1,${code},2026-11-02,GBP,Bamboo cane 180 cm,40,2.50`)); // prettier-ignore
    expect(await codes()).toEqual(['order-not-received']);
    await through(await take('receipts', file('DN-8A,2026-11-13,PO-8,1,40')));
    expect(await codes()).toEqual([]);
  });
});

describe('lists as files', () => {
  it.each(importLists)('%s written and brought in again change nothing, as CSV and as XLSX', async (list) => {
    const table = await tableOfList(world.database.db, mine(), list, '', false);
    expect(table.rows.length).toBeGreaterThan(1);
    for (const [name, content] of [
      ['a.csv', bytes(csvOf(table))],
      ['a.xlsx', (await world.services.sheets.write(table))!],
    ] as const) {
      const run = await take(list, content, name);
      const errors = await findingsOf(world.database.db, mine(), run.id, { severity: 'error' }, 0);
      expect([name, errors, run.counts.same]).toEqual([name, [], table.rows.length]);
    }
  });
  it.each(furtherLists)('%s go into a file, too', async (list) => {
    await world.rows(`insert into combination (id, company_id, when_field, when_codes, only_field, only_codes) values (gen_random_uuid(), $1, 'accountId', '7*', 'dimension1', 'ROOF')`, mine()); // prettier-ignore
    await world.rows(`insert into coding_rule (id, company_id, words, account_id, made_by) values (gen_random_uuid(), $1, 'skip', $2, $3)`, mine(), world.master.company('MBG').account('6000'), world.master.person('Kit Arden')); // prettier-ignore
    const { heads, rows } = await furtherTables[list](world.database.db, mine());
    if (list !== 'distributions') expect(rows.length).toBeGreaterThan(0);
    expect(rows.every((r) => r.length === heads.length)).toBe(true);
    const said = rows.map((r) => r.join(' | ')).join('\n');
    const told = { people: 'Ines Okafor |  | ines@', combinations: 'Account | 7* | Project | ROOF | yes', 'coding-rules': 'skip | 6000 Growing media | Kit Arden | yes', checks: 'stops', events: 'brought in', distributions: '' }; // prettier-ignore
    expect(said).toContain(told[list]);
  });
  it('are as filtered; a template has the heads alone; words that look like formulas stay words', async () => {
    const heads = await tableOfList(world.database.db, mine(), 'accounts', '', true);
    expect([heads.rows, heads.heads[0]]).toEqual([[], 'Code']);
    const some = await tableOfList(world.database.db, mine(), 'accounts', 'growing media', false);
    expect(some.rows.map((r) => r.slice(0, 2))).toEqual([['6000', 'Growing media']]);
    expect(csvOf({ heads: ['A'], rows: [['=1+1'], ['-2.50'], ['a,"b"']] })).toBe(`\uFEFFA\r\n'=1+1\r\n-2.50\r\n"a,""b"""\r\n`);
  });
});
