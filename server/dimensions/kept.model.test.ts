import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Operation } from '@ledgerline/core/bills';
import { changeAccount, changeCostCentre, changeTaxCode } from '../accounts/service.ts';
import { changeBill } from '../bills/change.ts';
import { setCompany } from '../companies/service.ts';
import { changeSupplier } from '../suppliers/service.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { changeCombination, newCombination } from './combinations.ts';
import { changeDimension, changeDimensionValue, newDimension, newDimensionValue } from './service.ts';

/** Whatever changes in the lists, what is kept of a bill's exceptions is what the checks find: nothing stays open or is missing. */
let world: World;
const bills: string[] = [];
const ids: Record<string, string> = {};
const always = { active: true, validFrom: null, validTo: null };
const kit = () => world.as('Kit Arden');
const mbg = () => world.master.company('MBG');
beforeAll(async () => {
  world = await makeWorld();
  await world.run(newDimension, await kit(), {}, { name: 'Project', always: false, active: true });
  for (const code of ['P1', 'P2'])
    ids[code] = (await world.run(newDimensionValue, await kit(), {}, { field: 'dimension1', code, name: code, ...always })).id;
  const rule = { whenField: 'dimension1', whenCodes: 'P1', onlyField: 'costCentreId', onlyCodes: '210', active: false };
  ids['rule'] = (await world.run(newCombination, await kit(), {}, rule)).id;
  for (let n = 0; n < 3; n++) bills.push(await world.build.bill({ lines: [{ amount: '100.00' }], tax: '20.30', gross: '120.30' }));
});
afterAll(() => world.close());

const own = async (table: string, id: string) => (await world.rows(`select * from ${table} where id = $1`, id))[0];
const steps = {
  async 'the dimension'(n: number) {
    const put = { name: 'Project', always: n % 2 === 0, active: n % 3 > 0 };
    await world.run(changeDimension, await kit(), { field: 'dimension1' }, put);
  },
  async 'a value'(n: number) {
    const put = { field: 'dimension1', code: n % 2 ? 'P1' : 'P2', name: 'P', ...always, validTo: n % 3 ? null : '2026-01-01' };
    await world.run(changeDimensionValue, await kit(), { id: ids[put.code]! }, put);
  },
  async 'what goes together'(n: number) {
    const put = { whenField: 'dimension1', whenCodes: n % 2 ? 'P1' : 'P*', onlyField: 'costCentreId', onlyCodes: '210', active: n % 3 > 0 };
    await world.run(changeCombination, await kit(), { id: ids['rule']! }, put);
  },
  async 'the account'(n: number) {
    const a = await own('ledger_account', mbg().account('6000'));
    const put = { code: a.code, name: a.name, group: a.group_name, kind: a.kind, parentId: null, taxCodeId: null, ...always, needsCostCentre: n % 2 > 0, needsDimensions: n % 3 ? [] : ['dimension1'], postable: n % 5 > 0 }; // prettier-ignore
    await world.run(changeAccount, await kit(), { id: a.id }, put);
  },
  async 'a cost centre'(n: number) {
    const c = await own('cost_centre', mbg().centre('200'));
    await world.run(changeCostCentre, await kit(), { id: c.id }, { code: c.code, name: c.name, parentId: null, ownerId: null, ...always, active: n % 3 > 0 }); // prettier-ignore
  },
  async 'the tax code'(n: number) {
    const { id, companyId: _, ...code } = mbg().taxCode('S20');
    const put = { ...code, laterRates: n % 2 ? [] : [{ from: '2026-10-01', rate: '25' }], active: n % 3 > 0 };
    await world.run(changeTaxCode, await kit(), { id }, put);
  },
  async 'how far tax may differ'(n: number) {
    const c = await own('company', mbg().id);
    const put = {
      name: c.name,
      taxId: c.tax_id,
      mailAddress: c.mail_address,
      queueOrder: c.queue_order,
      taxTolerance: n % 2 ? null : '0.50',
    };
    await world.run(setCompany, await kit(), {}, put);
  },
  async 'the supplier'(n: number) {
    const s = await own('supplier', world.master.supplier(world.someSupplier('MBG')!));
    const put = { name: s.name, taxId: s.tax_id, email: s.email, phone: s.phone, address: s.address, currency: s.currency, terms: s.terms, coding: { accountId: null, costCentreId: null, taxCodeId: null }, rowVersion: s.row_version, blocked: n % 2 ? null : `reason ${n % 3}` }; // prettier-ignore
    await world.run(changeSupplier, await kit(), { id: s.id }, put);
  },
  async 'a bill'(n: number) {
    const id = bills[n % 3]!,
      { rowVersion, lines } = await world.show(id);
    const [field, value] = n % 2 ? ['dimension1', [ids['P1']!, ids['P2']!, null][n % 3]!] : ['costCentreId', mbg().centre(n % 3 ? '200' : '210')]; // prettier-ignore
    const operations = [{ do: 'set-cell', line: lines[0]!.id, field, value } as Operation];
    await world.run(changeBill, await world.as('Ines Okafor'), { id }, { rowVersion, operations });
  },
};

it('after any change of lists, settings and bills, what is kept is what is found', async () => {
  const met = new Set<string>();
  const step = fc.tuple(fc.constantFrom(...(Object.keys(steps) as (keyof typeof steps)[])), fc.nat(29));
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 6 }), async (sequence) => {
      for (const [name, n] of sequence) {
        await steps[name](n);
        for (const id of bills) {
          const found = (await world.show(id)).exceptions.map((e) => `${e.code} ${e.path} ${e.severity} ${e.sentence}`);
          const kept = await world.rows(
            `select code, path, severity, sentence from bill_exception where bill_id = $1 and state = 'open'`,
            id,
          );
          expect(kept.map((k) => `${k.code} ${k.path} ${k.severity} ${k.sentence}`).sort(), `after ${name} ${n}`).toEqual(found.sort());
          for (const e of found) met.add(e.split(' ')[0]!);
        }
      }
    }),
    { numRuns: 25 },
  );
  // It was not all quiet.
  expect([...met]).toEqual(expect.arrayContaining(['dimension-missing', 'tax-unexplained']));
}, 120_000);
