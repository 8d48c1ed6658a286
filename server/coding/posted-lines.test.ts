import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { suggest, type LineToCode } from '@ledgerline/core/coding';
import { makeWorld, type World } from '../testing/world.ts';
import { postedLines } from './posted-lines.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const mbg = () => world.master.company('MBG');
const supplierId = (name: string) => world.master.supplier(name);
/** The accounts that a line of a supplier is suggested, the likeliest first, each with why. */
async function accounts(description: string, supplier: string | null, company = 'MBG', day = '2026-11-20'): Promise<[string, string][]> {
  const own = world.master.company(company);
  const line: LineToCode = { supplierId: supplier, code: null, description, amount: '100.00', day, taxRate: null };
  const [found] = suggest([line], await postedLines(world.database.db, own.id, supplier, day, []), null, []);
  const codes = await world.rows('SELECT id, code FROM ledger_account WHERE company_id = $1', own.id);
  return found!.accountId.map((o) => [codes.find((c) => c['id'] === o.id)!['code'] as string, o.why]);
}
const posted = (supplier: string, number: string, description: string, account: string, more: object = {}) =>
  world.build.bill({ stage: 'posted', supplier, number, lines: [{ description, amount: '100.00', account }], ...more });

describe('lines that were posted', () => {
  it('are this supplier’s own; with none, others’', async () => {
    const [one, two] = [
      world.someSupplier('MBG')!,
      (await world.rows('SELECT name FROM supplier WHERE company_id = $1 ORDER BY name DESC', mbg().id))[0]!['name'] as string,
    ];
    expect(one).not.toBe(two);
    await posted(one, 'O-1', 'Winter fleece', '6140');
    await posted(one, 'O-2', 'Winter fleece', '6140');
    expect((await accounts('Winter fleece', supplierId(one)))[0]).toEqual([
      '6140',
      expect.stringContaining('2 of 2 lines like this from this supplier'),
    ]);
    expect((await accounts('Winter fleece', supplierId(two)))[0]).toEqual(['6140', expect.stringContaining('from other suppliers')]);
    expect((await accounts('Winter fleece', null))[0]![0]).toBe('6140');
  });
  it('count by their day, whenever they came in: the latest is learned last', async () => {
    const name = world.someSupplier('MBG')!;
    for (const [n, issueDate] of ['2026-08-01', '2026-08-08', '2026-08-15'].entries())
      await posted(name, `D-new-${n}`, 'Cloche hoops', '6000', { issueDate });
    for (const [n, issueDate] of ['2025-03-01', '2025-03-08', '2025-03-15'].entries())
      await posted(name, `D-old-${n}`, 'Cloche hoops', '6140', { issueDate });
    expect((await accounts('Cloche hoops', supplierId(name)))[0]).toEqual(['6000', expect.stringContaining('last 15 Aug 2026')]);
  });
  it('of bills that are not posted yet say nothing', async () => {
    const name = world.someSupplier('MBG')!;
    for (const stage of ['read', 'coded', 'approved'] as const)
      await world.build.bill({
        stage,
        supplier: name,
        number: `S-${stage}`,
        lines: [{ description: 'Zinc trough', amount: '100.00', account: '6140' }],
      });
    const found = await accounts('Zinc trough', supplierId(name));
    expect(found.every(([, why]) => !why.includes('like this') && !why.includes('zinc'))).toBe(true);
  });
  it('on an account that is closed now do not suggest it', async () => {
    const name = world.someSupplier('MBG')!;
    for (const n of [1, 2, 3]) await posted(name, `C-${n}`, 'Slate chippings', '6140');
    expect((await accounts('Slate chippings', supplierId(name)))[0]![0]).toBe('6140');
    await world.owner.query('UPDATE ledger_account SET active = false WHERE company_id = $1 AND code = $2', [mbg().id, '6140']);
    try {
      expect((await accounts('Slate chippings', supplierId(name))).map(([code]) => code)).not.toContain('6140');
    } finally {
      await world.owner.query('UPDATE ledger_account SET active = true WHERE company_id = $1 AND code = $2', [mbg().id, '6140']);
    }
  });
  it('are never another company’s', async () => {
    await posted(world.someSupplier('MBG')!, 'X-1', 'Heather mix', '6140');
    const found = await accounts('Heather mix', null, 'MNT');
    expect(found.every(([, why]) => !why.includes('heather'))).toBe(true);
  });
  it('on accounts that a bill of this day may use', async () => {
    const one = world.someSupplier('MBG')!;
    await posted(one, 'V-1', 'Glass cloches', '6010');
    const offered = async (day: string) => (await accounts('Glass cloches', supplierId(one), 'MBG', day)).map(([code]) => code);
    await world.rows(`update ledger_account set valid_to = '2026-11-19' where id = $1`, mbg().account('6010'));
    expect((await offered('2026-11-19'))[0]).toBe('6010');
    expect(await offered('2026-11-20')).not.toContain('6010');
    await world.rows('update ledger_account set valid_to = null, postable = false where id = $1', mbg().account('6010'));
    expect(await offered('2026-11-19')).not.toContain('6010');
    await world.rows('update ledger_account set postable = true where id = $1', mbg().account('6010'));
  });
});
