import { KindGuard, type TSchema } from '@sinclair/typebox';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { permissions, type Permission } from '@ledgerline/contract';
import { newCodingRule } from '../coding/rules.ts';
import { newCombination } from '../dimensions/combinations.ts';
import { newDimension, newDimensionValue } from '../dimensions/service.ts';
import { chainBreak } from '../events/store.ts';
import { byRole, clientOf } from '../testing/client.ts';
import { makeWorld, type World } from '../testing/world.ts';
import type { Route } from './define.ts';

/** Bodies and questions that fit their schemas in shape, and are hostile in what they say: an answer in words, never an error. */
let world: World;
let ask: ReturnType<typeof clientOf>;
let routes: Route[];
const own: Record<string, string> = {};
beforeAll(async () => {
  world = await makeWorld();
  ask = clientOf(world);
  const companyId = world.master.company('MBG').id;
  own['documents'] = await world.build.document();
  own['bills'] = await world.build.bill({ documentId: own['documents'] });
  await world.build.bill({ stage: 'posted' });
  const one = async (what: string) => (await world.rows(`${what} limit 1`, companyId))[0].id as string;
  own['arrivals'] = await one('select id from arrival where company_id = $1');
  own['entries'] = await one('select id from journal_entry where company_id = $1');
  own['suppliers'] = world.master.supplier(world.someSupplier('MBG')!);
  own['bank-accounts'] = await one('select id from bank_account where company_id = $1');
  await world.rows(`insert into item (id, company_id, code, name) values (gen_random_uuid(), $1, 'X', 'X')`, companyId);
  await world.rows(`insert into purchase_order (id, company_id, number, plain_number, supplier_id, order_date, currency) values (gen_random_uuid(), $1, 'X', 'X', $2, '2026-11-01', 'GBP')`, companyId, own['suppliers']); // prettier-ignore
  own['items'] = await one('select id from item where company_id = $1');
  own['orders'] = await one('select id from purchase_order where company_id = $1');
  own['accounts'] = world.master.company('MBG').account('6000');
  own['cost-centres'] = world.master.company('MBG').centre('200');
  own['tax-codes'] = world.master.company('MBG').taxCode('S20').id;
  const always = { active: true, validFrom: null, validTo: null };
  const make = async (use: typeof newDimensionValue | typeof newCombination | typeof newCodingRule, body: object) =>
    ((await use.perform(world.services, await world.as('Kit Arden'), {}, body)) as { id: string }).id;
  await world.run(newDimension, await world.as('Kit Arden'), {}, { name: 'Project', always: false, active: true });
  own['dimension-values'] = await make(newDimensionValue, { field: 'dimension1', code: 'P', name: 'P', ...always });
  own['combinations'] = await make(newCombination, { whenField: 'accountId', whenCodes: '1*', onlyField: 'taxCodeId', onlyCodes: 'S20', active: true }); // prettier-ignore
  own['coding-rules'] = await make(newCodingRule, {
    supplierId: null,
    words: 'pots',
    coding: { accountId: own['accounts'] },
    active: true,
  });
  own['lines'] = await one('select id from bill_line where company_id = $1');
  // Signing in and up have limits of their own; a person's roles are what the asking rests on.
  routes = world.api.routes.filter((r) => permissions[r.access as Permission] !== undefined && !r.path.startsWith('/people'));
});
afterAll(() => world.close());

const nasty = [
  '\u0000',
  'a\u0000b',
  '\ud800',
  '\u202Egnp.exe',
  "'; drop table bill; --",
  '<img src=x onerror=alert(1)>',
  '{{7*7}}',
  '%00',
  '%',
  '../../etc/passwd',
  '__proto__',
  ' ',
  '',
  'x'.repeat(5000),
  '9'.repeat(40),
  '99999999999999.99',
  '-99999999999999.99',
  '0.000000000000000000001',
  '1e400',
  'NaN',
  '-0',
  '٣',
  '2026-02-30',
  '0000-00-00',
  '9999-12-31',
  '0001-01-01',
  'QQQ',
  'EUR',
];
const numbers = [0, -1, 1, 2, 99, 2 ** 31, -(2 ** 31) - 1, 2 ** 53, 1e300, 0.1];
const text = () => fc.oneof(fc.constantFrom(...nasty, ...Object.values(own)), fc.string({ unit: 'binary', maxLength: 12 }));

/** Values of a schema's shape. */
function shaped(schema: TSchema): fc.Arbitrary<unknown> {
  if (KindGuard.IsObject(schema)) {
    const named = Object.fromEntries(Object.entries(schema.properties).map(([name, of]) => [name, shaped(of)]));
    return fc.record(named, { requiredKeys: schema.required ?? [] });
  }
  if (KindGuard.IsArray(schema))
    return fc.array(shaped(schema.items), { minLength: schema.minItems ?? 0, maxLength: Math.max(3, schema.minItems ?? 0) });
  if (KindGuard.IsUnion(schema)) return fc.oneof(...schema.anyOf.map(shaped));
  if (KindGuard.IsLiteral(schema)) return fc.constant(schema.const);
  if (KindGuard.IsNull(schema)) return fc.constant(null);
  if (KindGuard.IsBoolean(schema)) return fc.boolean();
  if (KindGuard.IsInteger(schema) || KindGuard.IsNumber(schema)) return fc.constantFrom(...numbers);
  if (KindGuard.IsString(schema) && schema.pattern) return fc.oneof(text(), fc.stringMatching(new RegExp(schema.pattern)));
  return text();
}
const pathOf = (route: Route) =>
  fc
    .record({ id: fc.oneof({ weight: 4, arbitrary: fc.constant(own[route.path.split('/')[1]!] ?? '') }, text()), other: text() })
    .map(({ id, other }) =>
      route.path.replace(/:\w+/g, (name) => encodeURIComponent((name === ':id' ? id : other).toWellFormed().slice(0, 200)) || '-'),
    );
const whoMay = (route: Route) => byRole[permissions[route.access as Permission][0]]!;

it('no body of the right shape brings a command down, and the event chain stays whole', async () => {
  let tried = 0;
  for (const route of routes.filter((r) => r.body))
    await fc.assert(
      fc.asyncProperty(pathOf(route), fc.oneof({ weight: 5, arbitrary: shaped(route.body!) }, fc.jsonValue()), async (path, body) => {
        tried++;
        const { status, data } = await ask(whoMay(route), route.method.toUpperCase(), path, body);
        expect(status, `${route.method} ${path} ${JSON.stringify(body)}`).toBeLessThan(500);
        if (status >= 400) expect(data?.title, `${route.method} ${path} ${status}`).toMatch(/\S/);
      }),
      { numRuns: 45, endOnFailure: true },
    );
  expect(tried).toBeGreaterThan(600);
  expect(await chainBreak(world.database.db, world.master.company('MBG').id)).toBe(null);
}, 120_000);

it('no question brings a list down', async () => {
  const names = ['q', 'cursor', 'limit', 'sort', 'order', 'kind', 'from', 'to', 'after'];
  const streams = ['/live'];
  for (const route of routes.filter((r) => r.method === 'get' && !streams.includes(r.path)))
    await fc.assert(
      fc.asyncProperty(pathOf(route), fc.constantFrom(...names), text(), async (path, name, value) => {
        const { status } = await ask(whoMay(route), 'GET', `${path}?${name}=${encodeURIComponent(value.toWellFormed())}`);
        expect(status, `${path} ${name} ${JSON.stringify(value)}`).toBeLessThan(500);
      }),
      { numRuns: 20, endOnFailure: true },
    );
}, 120_000);
