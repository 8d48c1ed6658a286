import { KindGuard, type TSchema } from '@sinclair/typebox';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { permissions, type Permission } from '@ledgerline/contract';
import { takeFile } from '../imports/service.ts';
import { byRole, clientOf } from '../testing/client.ts';
import { makeWorld, type World } from '../testing/world.ts';
import type { Route } from './define.ts';

let world: World;
let ask: ReturnType<typeof clientOf>;
/** What the nursery, the other company, has: its ids are not the gardens'. */
const theirs: Record<string, string> = {};
beforeAll(async () => {
  world = await makeWorld();
  ask = clientOf(world);
  const documentId = await world.build.document({ company: 'MNT' });
  theirs['bills'] = await world.build.bill({ company: 'MNT', documentId });
  await world.build.bill({ company: 'MNT', stage: 'posted', number: 'T-1' });
  const one = async (what: string) => (await world.rows(what, world.master.company('MNT').id))[0].id as string;
  theirs['documents'] = documentId;
  theirs['arrivals'] = await one('select arrival_id as id from document where company_id = $1');
  theirs['terms'] = await one(`insert into payment_terms (id, company_id, code, name, terms) values (gen_random_uuid(), $1, 'N30', '30 days', 'net 30') returning id`); // prettier-ignore
  theirs['entries'] = await one('select id from journal_entry where company_id = $1');
  theirs['entry-lines'] = await one('select id from journal_line where company_id = $1 limit 1');
  theirs['suppliers'] = await one('select id from supplier where company_id = $1 limit 1');
  theirs['bank-accounts'] = await one('select id from bank_account where company_id = $1 limit 1');
  theirs['accounts'] = await one('select id from ledger_account where company_id = $1 limit 1');
  theirs['cost-centres'] = await one('select id from cost_centre where company_id = $1 limit 1');
  theirs['distributions'] = crypto.randomUUID();
  await world.rows(
    `insert into distribution_key (id, company_id, name) values ($1, $2, 'Theirs')`,
    theirs['distributions'],
    world.master.company('MNT').id,
  );
  const nursery = world.master.company('MNT').id;
  theirs['dimension-values'] = crypto.randomUUID();
  theirs['combinations'] = crypto.randomUUID();
  await world.rows(`insert into dimension (company_id, field, name) values ($1, 'dimension1', 'Theirs')`, nursery);
  await world.rows(
    `insert into dimension_value (id, company_id, field, code, name) values ($1, $2, 'dimension1', 'X', 'X')`,
    theirs['dimension-values'],
    nursery,
  );
  await world.rows(
    `insert into combination (id, company_id, when_field, when_codes, only_field, only_codes) values ($1, $2, 'accountId', '6*', 'taxCodeId', 'S20')`,
    theirs['combinations'],
    nursery,
  );
  theirs['orders'] = crypto.randomUUID();
  await world.rows(
    `insert into purchase_order (id, company_id, number, plain_number, supplier_id, order_date, currency) values ($1, $2, 'X', 'X', $3, '2026-11-01', 'GBP')`,
    theirs['orders'],
    nursery,
    theirs['suppliers'],
  );
  theirs['items'] = crypto.randomUUID();
  await world.rows(`insert into item (id, company_id, code, name) values ($1, $2, 'X', 'X')`, theirs['items'], nursery);
  theirs['coding-rules'] = crypto.randomUUID();
  await world.rows(
    `insert into coding_rule (id, company_id, words, account_id, made_by) values ($1, $2, 'x', $3, $4)`,
    theirs['coding-rules'],
    nursery,
    world.master.company('MNT').account('6000'),
    world.master.person('Kit Arden'),
  );
  theirs['tax-codes'] = await one('select id from tax_code where company_id = $1 limit 1');
  const [outsider] = await world.rows(
    `insert into person (id, name, email, password_hash) values (gen_random_uuid(), 'Nora Only', 'nora@marrowby.example', 'x') returning id`,
  );
  await world.rows(`insert into membership values ($1, $2, 'clerk')`, outsider.id, world.master.company('MNT').id);
  theirs['people'] = outsider.id;
  theirs['views'] = crypto.randomUUID();
  await world.rows(
    `insert into saved_view (id, company_id, person_id, shared, name, q, sort, sort_order, columns) values ($1, $2, $3, true, 'Theirs', '', 'due', 'asc', '["due"]')`,
    theirs['views'],
    world.master.company('MNT').id,
    outsider.id,
  );
  theirs['imports'] = await takeFile(world.services, await world.as('Kit Arden', 'MNT'), 'rates', {
    name: 'x.csv',
    bytes: new TextEncoder().encode('Date,Currency,Rate\n2026-11-01,CHF,0.9'),
  });
  theirs['repeats'] = crypto.randomUUID();
  await world.rows(
    `insert into repeat (id, company_id, supplier_id, name, every, begins, fixed, template) values ($1, $2, $3, 'Theirs', 'month', '2026-11-01', true, '{"head":{},"lines":[]}')`,
    theirs['repeats'],
    world.master.company('MNT').id,
    theirs['suppliers'],
  );
});
afterAll(() => world.close());

const whoMay = (access: string): string => byRole[permissions[access as Permission][0]]!;
const ofCompany = (route: Route): boolean => route.access !== 'public' && route.access !== 'signed-in';
const zero = '00000000-0000-7000-8000-000000000000';
const filled = (path: string): string =>
  path
    .replace(/:id/g, zero)
    .replace(':sha', '0'.repeat(64))
    .replace(':page', '1')
    .replace(':number', '1')
    .replace(':row', zero)
    .replace(':code', 'duplicate')
    .replace(':field', 'dimension1')
    .replace(':step', 'tax');

/** Every object of a schema, each once with a property too many; all else is left as small as it can be. */
function* withMore(schema: TSchema): Generator<unknown> {
  if (KindGuard.IsObject(schema)) {
    yield { somethingMore: 1 };
    for (const [name, of] of Object.entries(schema.properties)) for (const value of withMore(of)) yield { [name]: value };
  } else if (KindGuard.IsArray(schema)) for (const value of withMore(schema.items)) yield [value];
  else if (KindGuard.IsUnion(schema)) for (const of of schema.anyOf) yield* withMore(of);
}

describe('all routes', () => {
  it('that change something take a closed body: one property more, at any depth, is refused by name', async () => {
    let tried = 0;
    for (const route of world.api.routes.filter((r) => r.body)) {
      const as = route.access === 'public' ? null : ofCompany(route) ? whoMay(route.access) : 'Ines';
      for (const body of withMore(route.body!)) {
        tried++;
        const path = ofCompany(route) ? filled(route.path) : `/${filled(route.path)}`;
        const { status, data } = await ask(as, route.method.toUpperCase(), path, body);
        const told = JSON.stringify(data?.errors ?? data);
        if (route.path === '/documents/:id/spot') expect(status, route.path).toBe(400);
        else
          expect([status, told.includes('somethingMore cannot be set here.')], `${route.method} ${route.path} ${told}`).toEqual([
            400,
            true,
          ]);
      }
    }
    expect(tried).toBeGreaterThan(45);
  });
  it('that ask take a closed query', async () => {
    for (const route of world.api.routes.filter((r) => r.method === 'get' && ofCompany(r))) {
      const { status } = await ask(whoMay(route.access), 'GET', `${filled(route.path)}?somethingMore=1`);
      expect(status, route.path).toBe(400);
    }
  });
  it('that change something say what they answer, and so does every question but files and streams', () => {
    const silent = world.api.routes.filter((r) => !r.answer).map((r) => `${r.method} ${r.path}`);
    expect(silent.sort()).toEqual(
      [
        'get /arrivals/:id/files/:sha',
        'get /arrivals/:id/original',
        'get /arrivals/:id/pictures/:sha/:page',
        'get /documents/:id/cleaned/:number',
        'get /documents/:id/file',
        'get /documents/:id/files/:sha',
        'get /documents/:id/picture/:number',
        'get /bills/file',
        'get /entries/file',
        'get /imports/:id/left-out',
        'get /live',
        'get /openapi.json',
        'get /exports/:list',
        'get /lists/:list/file',
        'get /received-not-billed/file',
        'get /scanning/separator',
        'get /tax-summary/file',
        'post /read',
      ].sort(),
    );
  });
  it('find nothing under another company’s id, whatever is asked of it', async () => {
    const bodies: Record<string, unknown> = {
      'patch /bills/:id': { rowVersion: 1, operations: [{ do: 'set', field: 'terms', value: 'x' }] },
      'post /bills/:id/verify': { code: 'x', path: 'x', key: '', asked: 'Somebody', how: 'By telephone' },
      'post /bills/:id/exceptions': { rowVersion: 1, code: 'x', path: 'x', key: '', how: 'confirm' },
      'post /bills/:id/send': { rowVersion: 1 },
      'post /bills/:id/take-back': { rowVersion: 1 },
      'post /bills/:id/approve': { rowVersion: 1 },
      'post /bills/:id/restore': { rowVersion: 1 },
      'post /bills/:id/return': { rowVersion: 1, note: 'because' },
      'post /bills/:id/set-aside': { rowVersion: 1, note: 'because' },
      'post /bills/:id/discard': { rowVersion: 1, note: 'because' },
      'post /bills/:id/assign': { rowVersion: 1, personId: null },
      'post /bills/:id/move': { rowVersion: 1, companyId: world.master.company('MNT').id },
      'post /bills/:id/match': { rowVersion: 1, row: crypto.randomUUID() },
      'post /bills/:id/without-order': { rowVersion: 1, without: true },
      'post /bills/:id/await-receipt': { rowVersion: 1 },
      'post /bills/:id/debit-note': { rowVersion: 1 },
      'post /bills/:id/share-charge': { rowVersion: 1, row: crypto.randomUUID(), basis: null, goods: [] },
      'put /terms/:id': { code: 'X', name: 'X', terms: 'net 30', alsoCalled: null, active: true },
      'post /bills/:id/here': {},
      'delete /bills/:id/here': {},
      'post /bills/:id/documents': { documentId: crypto.randomUUID(), as: 'further' },
      'post /bills/:id/notes': { text: 'Hello', mentions: [] },
      'post /bills/:id/notes/seen': {},
      'put /arrivals/:id/pages': { documents: [], leftOut: [] },
      'put /imports/:id/mapping': { mapping: [] },
      'post /imports/:id/run': { goodOnly: true },
      'post /documents/:id/retry': {},
      'post /arrivals/:id/retry': {},
      'post /documents/:id/spot': { page: 1, x: 1, y: 1, w: 5, h: 5, digits: false },
      'put /suppliers/:id': {
        name: 'Taken over',
        taxId: null,
        email: null,
        phone: null,
        address: null,
        currency: 'GBP',
        terms: null,
        coding: {},
        rowVersion: 1,
      },
      'post /suppliers/:id/bank-accounts': { iban: 'GB12XQZB00123456987654', note: 'by post' },
      'post /bank-accounts/:id/verify': { how: 'by telephone' },
      'post /bank-accounts/:id/retire': {},
      'put /accounts/:id': {
        code: 'X',
        name: 'X',
        group: 'X',
        kind: 'expense',
        needsCostCentre: false,
        parentId: null,
        postable: true,
        taxCodeId: null,
        active: true,
        validFrom: null,
        validTo: null,
      },
      'put /cost-centres/:id': { code: 'X', name: 'X', parentId: null, ownerId: null, active: true, validFrom: null, validTo: null },
      'put /distributions/:id': {
        name: 'X',
        active: true,
        parts: ['200', '210'].map((code) => ({ costCentreId: world.master.company('MBG').centre(code), weight: '1' })),
      },
      'put /orders/:id': { number: 'X', supplierId: world.master.supplier(world.someSupplier('MBG')!), orderDate: '2026-11-01', currency: 'GBP', note: null, active: true, lines: [{ itemId: null, code: null, description: 'X', quantity: '1', unit: null, unitPrice: '1', coding: {} }] }, // prettier-ignore
      'put /items/:id': { code: 'X', name: 'X', alsoCalled: null, unit: null, price: null, currency: null, accountId: null, taxCodeId: null, stocked: false, active: true }, // prettier-ignore
      'put /dimension-values/:id': { field: 'dimension1', code: 'X', name: 'X', active: true, validFrom: null, validTo: null },
      'put /combinations/:id': { whenField: 'accountId', whenCodes: '6*', onlyField: 'taxCodeId', onlyCodes: 'S20', active: true },
      'put /coding-rules/:id': {
        supplierId: null,
        words: 'mine now',
        coding: { accountId: world.master.company('MBG').account('6000') },
        active: true,
      },
      'post /suppliers/:id/learned/forget': { words: 'x' },
      'put /tax-codes/:id': {
        code: 'X',
        name: 'X',
        rate: '1',
        recoverable: '1',
        reverseCharge: false,
        accountId: world.master.company('MBG').account('1800'),
        outputAccountId: null,
        active: true,
        validFrom: null,
        validTo: null,
      },
      'put /repeats/:id': {
        rowVersion: 1,
        name: 'Rent',
        every: 'month',
        weeks: null,
        begins: '2026-11-01',
        until: null,
        fixed: true,
        documentWithin: null,
      },
      'delete /views/:id': {},
      'put /views/:id': { name: 'X', shared: false, q: '', sort: 'due', order: 'asc', columns: ['due'] },
      'put /people/:id/roles': { roles: ['clerk'] },
    };
    // What a change would do takes what the change takes.
    for (const name of Object.keys(bodies)) if (name.startsWith('put ')) bodies[`${name.replace('put ', 'post ')}/effect`] = bodies[name];
    const withId = world.api.routes.filter((r) => r.path.includes(':id') && ofCompany(r));
    expect(withId.length).toBeGreaterThan(30);
    for (const route of withId) {
      const name = `${route.method} ${route.path}`,
        id = theirs[route.path.split('/')[1]!];
      expect(id, `an id for ${name}`).toBeTruthy();
      if (route.body) expect(bodies, 'a body for each route').toHaveProperty([name]);
      const path = filled(route.path.replace(':id', id!));
      const { status } = await ask(
        whoMay(route.access),
        route.method.toUpperCase(),
        path,
        route.method === 'get' ? undefined : (bodies[name] ?? {}),
      );
      expect(status, name).toBe(404);
    }
  });
  it('are closed to strangers, and to roles that they do not name', async () => {
    for (const route of world.api.routes.filter(ofCompany)) {
      const allowed = permissions[route.access as Permission] as readonly string[];
      expect((await ask(null, route.method.toUpperCase(), filled(route.path), route.method === 'get' ? undefined : {})).status).toBe(401);
      for (const [role, who] of Object.entries(byRole)) {
        if (allowed.includes(role)) continue;
        const { status } = await ask(who, route.method.toUpperCase(), filled(route.path), route.method === 'get' ? undefined : {});
        expect(status, `${route.method} ${route.path} as ${role}`).toBe(403);
      }
    }
  });
  it('refuse what is no id, no cursor, no date and no JSON with words, never with an error of their own', async () => {
    const dashes = '-'.repeat(36);
    expect((await ask('Ines', 'GET', `/bills/${dashes}`)).status).toBe(404);
    const cursor = (...parts: unknown[]) => Buffer.from(JSON.stringify(parts)).toString('base64url');
    for (const list of ['/bills', '/bills?sort=due', '/bills?sort=dated', '/bills?sort=total', '/entries', '/arrivals'])
      for (const bad of [
        'x',
        cursor('x', dashes),
        cursor("1' or 1=1", zero),
        cursor('2026-02-31', zero),
        cursor('2026-11-23T25:00:00Z', zero),
        cursor(1, zero),
      ])
        expect((await ask('Ines', 'GET', `${list}${list.includes('?') ? '&' : '?'}cursor=${bad}`)).status, `${list} ${bad}`).toBe(400);
    expect((await ask('Ines', 'GET', `/suppliers?cursor=${cursor('x', dashes)}`)).status).toBe(400);
    for (const due of ['due:2026-02-30', 'due:2026-13-01', 'due:nonsense', 'over:1e99']) {
      const { status, data } = await ask('Ines', 'GET', `/bills?q=${encodeURIComponent(due)}`);
      expect([status, data.bills], due).toEqual([200, []]);
    }
    const broken = await world.api.app.request('/api/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"email":',
    });
    expect(broken.status).toBe(400);
    const foreign = await world.api.app.request('/api/session', { method: 'POST', headers: { origin: 'null' }, body: '{}' });
    expect(foreign.status).toBe(403);
  });
});
