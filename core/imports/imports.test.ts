import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DryRun, euroCubes, euroTable, likelyMapping, lists, mappingFault, ratesFor, type ImportList, type Known } from './index.ts';

const known: Known = {
  names: {
    account: new Set(['6000', '6400']),
    'tax-code': new Set(['s20', 'z0']),
    'cost-centre': new Set(['200']),
    person: new Set(['tobias@marrowby.example']),
  },
  parents: new Map([['6000', null], ['6400', '6000']]), // prettier-ignore
};
function run(list: ImportList, heads: string[], rows: string[][]) {
  const spec = lists[list];
  const dry = new DryRun(spec, heads, rows, likelyMapping(heads, spec), known);
  dry.slice(0, rows.length);
  return dry.done();
}
const accounts = (...rows: string[][]) => run('accounts', ['Code', 'Name', 'Kind', 'Under', 'Usual tax code', 'From', 'To'], rows);
const said = (of: ReturnType<typeof run>) => of.findings.map((f) => [f.row, f.column, f.sentence]);

describe('which column is which field', () => {
  it.each([
    [
      ['Account number', 'Account name', 'Type', 'VAT code', 'Active'],
      ['code', 'name', 'kind', 'taxCode', 'active'],
    ],
    [
      ['Konto', 'Bezeichnung', 'Kind', 'Remarks'],
      ['code', 'name', 'kind', null],
    ],
    [
      ['Name', 'Code', '', 'Direct posting', 'cost centre required'],
      ['name', 'code', null, 'postable', 'needsCostCentre'],
    ],
  ])('%j', (heads, fields) => expect(likelyMapping(heads, lists.accounts)).toEqual(fields));
  it('a template’s own heads are found, each once', () => {
    for (const spec of Object.values(lists))
      expect(likelyMapping(spec.fields.map((f) => f.label), spec)).toEqual(spec.fields.map((f) => f.key)); // prettier-ignore
  });
  it('says what is missing, and what is there twice', () => {
    expect(mappingFault(['code', null, 'kind'], lists.accounts)).toBe('Say which column holds: Name.');
    expect(mappingFault(['code', 'name', 'name', 'kind'], lists.accounts)).toBe('Two columns are for Name. Choose one of them.');
    expect(mappingFault(['code', 'name', 'kind', 'colour'], lists.accounts)).toMatch(/does not have/);
    expect(mappingFault(['code', 'name', 'kind', null], lists.accounts)).toBeNull();
  });
});

describe('the dry run', () => {
  it('reads what a row says, kinds of cells and all', () => {
    const { good, findings } = accounts(['6410', 'Gas', 'Expense', '6400', 's20', '1 Jan 2026', '31/12/2026']);
    expect(findings).toEqual([]);
    expect(good).toEqual([
      {
        row: 2,
        values: {
          code: '6410',
          name: 'Gas',
          kind: 'expense',
          parent: '6400',
          taxCode: 's20',
          validFrom: '2026-01-01',
          validTo: '2026-12-31',
        },
      },
    ]);
  });
  it('says what is wrong by row and column, and passes over empty rows', () => {
    const found = accounts(
      ['64 10', 'Gas', 'cost', '', 'S19', '', ''],
      ['', '', ' ', '', '', '', ''],
      ['6420', '', 'asset', '7777', '', '31/02/2026', ''],
      ['6430', 'Oil', 'expense', '', '', '2026-05-02', '2026-05-01'],
      ['6430', 'Oil', 'expense', '', '', '', ''],
    );
    expect(said(found)).toEqual([
      [2, 'Code', '“64 10” has a space in it; a code has none.'],
      [2, 'Kind', '“cost” is none of: expense, asset, income, tax, payable, bank, equity, liability.'],
      [2, 'Usual tax code', 'There is no tax code “S19”. There are S20, Z0.'],
      [4, 'Name', 'Name is empty.'],
      [4, 'Under', 'There is no account “7777”.'],
      [4, 'From', '“31/02/2026” is not a day of the calendar.'],
      [5, null, 'The last day is before the first.'],
      [6, null, 'This account is in row 5 already.'],
    ]);
    expect([found.bad, found.good]).toEqual([4, []]);
  });
  it('a parent may come with the file, in any order; rings are found over many steps', () => {
    const fine = accounts(['9100', 'Sub', 'expense', '9000', '', '', ''], ['9000', 'Top', 'expense', '', '', '', '']);
    expect([fine.findings, fine.good.length]).toEqual([[], 2]);
    const ring = accounts(['6000', 'Media', 'expense', '9100', '', '', ''], ['9100', 'Sub', 'expense', '6400', '', '', '']);
    expect(said(ring)).toEqual([
      [2, null, 'This account stands under itself.'],
      [3, null, 'This account stands under itself.'],
    ]);
  });
  it('what hangs on a row that is left out is left out with it, and says so', () => {
    const found = accounts(
      ['9102', 'Leaf', 'expense', '9101', '', '', ''],
      ['9101', 'Sub', 'expense', '9100', '', '', ''],
      ['9100', 'Top', 'cost', '', '', '', ''],
      ['9103', 'Beside', 'expense', '6000', '', '', ''],
    );
    expect(said(found)).toEqual([
      [4, 'Kind', expect.stringContaining('“cost” is none of')],
      [3, 'Under', '“9100” is left out, so nothing can stand under it.'],
      [2, 'Under', '“9101” is left out, so nothing can stand under it.'],
    ]);
    expect(found.good.map((g) => g.row)).toEqual([5]);
  });
  it('a column tells how its days and figures are written; where none does, it says so', () => {
    const days = (...cells: string[]) => run('rates', ['Date', 'Currency', 'Rate'], cells.map((day, i) => [day, ['USD', 'JPY'][i % 2]!, '1,5'])); // prettier-ignore
    expect(days('11/05/2026', '11/25/2026').good.map((g) => g.values['day'])).toEqual(['2026-11-05', '2026-11-25']);
    const open = days('11/05/2026', '10/05/2026');
    expect(open.good.map((g) => g.values['day'])).toEqual(['2026-05-11', '2026-05-10']);
    expect(open.findings).toEqual([
      expect.objectContaining({ row: 1, column: 'Date', severity: 'warning', sentence: expect.stringContaining('day first') }),
    ]);
    const rates = (...cells: string[]) => run('rates', ['Date', 'Currency', 'Rate'], cells.map((rate, i) => [`2026-11-0${i + 1}`, 'usd', rate])); // prettier-ignore
    expect(rates('0,7741', '0,78').good.map((g) => g.values)).toEqual([
      { day: '2026-11-01', currency: 'USD', rate: '0.7741' },
      { day: '2026-11-02', currency: 'USD', rate: '0.78' },
    ]);
    expect(said(rates('0', 'x', '-1'))).toEqual([
      [2, 'Rate', 'This has to be above zero.'],
      [3, 'Rate', '“x” is not a number.'],
      [4, 'Rate', 'This has to be above zero.'],
    ]);
  });
  it('tax codes: rates as percentages, with or without their sign', () => {
    const heads = ['Code', 'Name', 'VAT rate', 'Deductible', 'Account', 'Reverse'];
    const found = run('tax-codes', heads, [
      ['S20', 'Standard', '20 %', '', '6000', 'no'],
      ['H', 'Half', '20', '50%', '6000', ''],
      ['X', 'Wrong', '120', '-1', 'zzz', ''],
    ]);
    expect(found.good.map(({ values: v }) => [v['rate'], v['recoverable'], v['reverseCharge']])).toEqual([
      ['20', null, false],
      ['20', '50', false],
    ]);
    expect(said(found)).toEqual([
      [4, 'VAT rate', 'This is a percentage between 0 and 100.'],
      [4, 'Deductible', 'This is a percentage between 0 and 100.'],
      [4, 'Account', 'There is no account “zzz”.'],
    ]);
  });
  it('suppliers: terms, check digits, currency', () => {
    const heads = ['Code', 'Name', 'Currency', 'Payment terms', 'IBAN', 'Usual cost centre'];
    const found = run('suppliers', heads, [
      ['S1', 'Quillhaven', 'pounds', 'whenever', 'GB12 XQZB 0012 3456 9876 55', '200'],
      ['S2', 'Fernwick', 'gbp', 'net 30', '', ''],
    ]);
    expect(found.findings.map((f) => f.column)).toEqual(['Currency', 'Payment terms', 'IBAN']);
    expect(found.good[0]!.values).toEqual({ code: 'S2', name: 'Fernwick', currency: 'GBP', terms: 'net 30', iban: null, costCentre: null });
  });
  it('whatever the cells say, every row is brought in, has an error, or is empty', () => {
    const cell = fc.oneof(
      fc.constantFrom('', ' ', '6000', '6410', 'Gas', 'expense', 'asset', 's20', 'yes', 'no', '2026-01-01', '1.5'),
      fc.string({ maxLength: 30 }),
    );
    const heads = lists.accounts.fields.map((f) => f.label);
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: heads.length, maxLength: heads.length }), { maxLength: 12 }), (rows) => {
        const { good, findings, bad } = run('accounts', heads, rows);
        const wrong = new Set(findings.filter((f) => f.severity === 'error').map((f) => f.row));
        const full = rows.flatMap((r, i) => (r.some((c) => c.trim() !== '') ? [i + 2] : []));
        expect([...good.map((g) => g.row), ...wrong].sort((a, b) => a - b)).toEqual(full);
        expect(bad).toBe(wrong.size);
        expect(new Set(good.map((g) => String(g.values['code']).toLowerCase())).size, 'no code twice').toBe(good.length);
      }),
    );
  });
});

describe('rates against the euro', () => {
  // 1 EUR = 1.0800 USD = 0.8640 GBP: a dollar is 0.8 pounds.
  const table = euroTable(
    ['Date', 'USD', 'GBP', 'JPY', ''],
    [['20 November 2026', '1.0800', '0.8640', 'N/A', ''], ['2026-11-19', '1.25', '', '160', '']], // prettier-ignore
  )!;
  it('are told by a day and a column for each currency', () => {
    expect(table).toContainEqual({ day: '2026-11-20', currency: 'USD', perEuro: '1.0800' });
    expect(table).toHaveLength(4);
    expect(euroTable(['Date', 'Currency', 'Rate'], [])).toBeNull();
    expect(euroTable(['Code', 'USD'], [])).toBeNull();
  });
  it('come as cubes of XML, too; another file, a broken one or one that would load something is none', () => {
    const cube = (inner: string, head = '') => `<?xml version="1.0"?>${head}<Envelope><Cube>${inner}</Cube></Envelope>`;
    const day = `<Cube time='2026-11-20'><Cube currency='USD' rate='1.0800'/><Cube currency='GBP' rate='0'/><Cube currency='xx' rate='1'/></Cube>`;
    expect(euroCubes(cube(day))).toEqual([{ day: '2026-11-20', currency: 'USD', perEuro: '1.0800' }]);
    expect(euroCubes(cube(`<Cube time='soon'><Cube currency='USD' rate='1'/></Cube>`))).toEqual([]);
    expect(euroCubes('<Cube time=')).toBeNull();
    expect(euroCubes(cube(day, '<!DOCTYPE x SYSTEM "http://127.0.0.1/x">'))).toBeNull();
  });
  it('become rates of the company’s currency; a day without its own rate is left out', () => {
    expect(ratesFor('GBP', table)).toEqual([
      { day: '2026-11-20', currency: 'EUR', rate: '0.8640' },
      { day: '2026-11-20', currency: 'USD', rate: '0.8' },
    ]);
    expect(ratesFor('EUR', table)).toEqual([
      { day: '2026-11-19', currency: 'JPY', rate: '0.00625' },
      { day: '2026-11-19', currency: 'USD', rate: '0.8' },
      { day: '2026-11-20', currency: 'GBP', rate: '1.157407407' },
      { day: '2026-11-20', currency: 'USD', rate: '0.9259259259' },
    ]);
  });
});
