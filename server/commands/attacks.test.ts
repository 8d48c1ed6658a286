import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { clientOf } from '../testing/client.ts';
import { makeWorld, type World } from '../testing/world.ts';

/** What one careful attacker did, and what must not work again: everything over HTTP, as a member with a role. */
let world: World;
let ask: ReturnType<typeof clientOf>;
let bill: { id: string; line: string; rowVersion: number };
beforeAll(async () => {
  world = await makeWorld();
  ask = clientOf(world);
});
afterAll(() => world.close());
beforeEach(async () => {
  const id = await world.build.bill();
  const shown = await world.show(id);
  bill = { id, line: shown.lines[0]!.id, rowVersion: shown.rowVersion };
});
const stage = async (id = bill.id) => (await world.rows('select stage from bill where id = $1', id))[0].stage;

describe('a clerk', () => {
  it('cannot approve by saving fields that only the server may say', async () => {
    for (const [field, value] of [
      ['stage', 'approved'],
      ['approvedBy', world.master.person('Marguerite Sable')],
      ['sentBy', world.master.person('Tobias Fenn')],
      ['unsure', null],
      ['marks', null],
      ['supplierReason', 'sure'],
      ['rowVersion', '1'],
      ['companyId', world.master.company('MNT').id],
    ]) {
      const { status } = await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 1, operations: [{ do: 'set', field, value }] });
      expect(status, String(field)).toBe(400);
    }
    const { status } = await ask('Ines', 'PATCH', `/bills/${bill.id}`, {
      rowVersion: 1,
      header: { stage: 'approved' },
      operations: [{ do: 'looked', path: 'x' }],
    });
    expect([status, await stage()]).toEqual([400, 'read']);
  });
  it('cannot bring marks, proofs or doubts of their own', async () => {
    const mark = { page: 1, x: 1, y: 1, w: 1, h: 1 };
    for (const more of [{ proof: 'sure' }, { confidence: 1 }, { marks: { gross: { mark, confidence: 1, proof: 'x' } } }]) {
      const op = { do: 'set', field: 'gross', value: '1.00', ...more };
      expect((await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 1, operations: [op] })).status).toBe(400);
    }
    const line = {
      do: 'add-line',
      line: '01900000-0000-7000-8000-00000000000a',
      kind: 'line',
      after: null,
      marks: { amount: { ...mark, proof: 'x' } },
    };
    expect((await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 1, operations: [line] })).status).toBe(400);
  });
  it('cannot put a line into another bill, company or a bill that was sent on', async () => {
    const sent = await world.build.bill({ stage: 'coded' });
    for (const more of [{ billId: sent }, { companyId: world.master.company('MNT').id }, { position: 99 }]) {
      const op = { do: 'add-line', line: '01900000-0000-7000-8000-00000000000b', kind: 'line', after: null, ...more };
      expect((await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 1, operations: [op] })).status).toBe(400);
      const cells = { do: 'add-line', line: '01900000-0000-7000-8000-00000000000b', kind: 'line', after: null, cells: more };
      expect((await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 1, operations: [cells] })).status).toBe(400);
    }
    const { rowVersion } = await world.show(sent);
    const { status } = await ask('Ines', 'PATCH', `/bills/${sent}`, {
      rowVersion,
      operations: [{ do: 'set', field: 'terms', value: 'x' }],
    });
    expect(status).toBe(409);
  });
  it('cannot use another company’s supplier, account, cost centre or tax code', async () => {
    const other = world.master.company('MNT');
    const supplier = (await world.rows('select id from supplier where company_id = $1 limit 1', other.id))[0].id;
    for (const op of [
      { do: 'set', field: 'supplierId', value: supplier },
      { do: 'set-cell', line: bill.line, field: 'accountId', value: other.account('6000') },
      { do: 'set-cell', line: bill.line, field: 'costCentreId', value: other.centre('200') },
      { do: 'set-cell', line: bill.line, field: 'taxCodeId', value: other.taxCode('S20').id },
      { do: 'set-cell', line: bill.line, field: 'dimension1', value: other.account('6000') },
    ]) {
      const { status, data } = await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 1, operations: [op] });
      expect([status, data.title], JSON.stringify(op)).toEqual([422, expect.stringContaining('does not belong to this company')]);
    }
    expect((await world.show(bill.id)).rowVersion).toBe(1);
  });
  it('cannot clear a difference that holds the bill back by saying that there is no doubt', async () => {
    const documentId = await world.build.document();
    const findings = {
      syntax: 'CII',
      profile: null,
      payable: null,
      broken: [],
      differences: [
        { field: 'grossTotal', data: '120.00', page: '130.00', sentence: 'The total is 120.00 in the data, but 130.00 on its page.' },
      ],
    };
    await world.rows('update document set findings = $2 where id = $1', documentId, JSON.stringify(findings));
    const id = await world.build.bill({ documentId });
    const { rowVersion } = await world.show(id);
    await ask('Ines', 'PATCH', `/bills/${id}`, { rowVersion, operations: [{ do: 'looked', path: 'gross' }] });
    expect((await ask('Ines', 'POST', `/bills/${id}/send`, { rowVersion: rowVersion + 1 })).status).toBe(422);
    const settle = (how: string, more = {}) =>
      ask('Ines', 'POST', `/bills/${id}/exceptions`, {
        rowVersion: rowVersion + 1,
        code: 'data-differs',
        path: 'gross',
        key: 'grossTotal',
        how,
        ...more,
      });
    expect((await settle('confirm')).status).toBe(422);
    expect((await settle('overrule', { reason: 'I say so' })).status).toBe(403);
    expect((await settle('choose')).status).toBe(422);
    const { status, data } = await settle('choose', { take: 'data' });
    expect([status, data.exceptions, data.settled[0].how, data.settled[0].person]).toEqual([200, [], 'choose:data', 'Ines Okafor']);
  });
  it('cannot take the place of the clerk who sent a bill on', async () => {
    const id = await world.build.bill({ stage: 'coded', sentBy: 'Tobias Fenn' });
    expect((await ask('Ines', 'POST', `/bills/${id}/take-back`, { rowVersion: (await world.show(id)).rowVersion })).status).toBe(403);
  });
});

describe('a controller', () => {
  it('cannot close another company’s period', async () => {
    const body = { year: 2026, month: 11, open: false, companyId: world.master.company('MNT').id };
    expect((await ask('Halina', 'PUT', '/periods', body)).status).toBe(400);
    const open = await world.rows('select count(*)::int as n from period where not open');
    expect(open).toEqual([{ n: 0 }]);
  });
  it('cannot make a check that posting needs ask or be off', async () => {
    for (const code of ['proof-off', 'supplier-missing', 'bank-differs', 'duplicate', 'data-differs'])
      expect((await ask('Halina', 'PUT', `/checks/${code}`, { severity: 'off' })).status, code).toBe(422);
    expect((await ask('Halina', 'PUT', '/checks/no-such-check', { severity: 'off' })).status).toBe(404);
  });
});

describe('whoever worked on a bill', () => {
  it.each([
    [
      'edited',
      async () =>
        void (await ask('Ines', 'PATCH', `/bills/${bill.id}`, {
          rowVersion: bill.rowVersion,
          operations: [{ do: 'set', field: 'terms', value: 'net 9' }],
        })),
    ],
    ['sent on', async () => undefined],
  ])('and %s it cannot approve it, given the role too', async (_, work) => {
    const person = world.master.person('Ines Okafor'),
      company = world.master.company('MBG').id;
    await work();
    const sender = _ === 'edited' ? 'Tobias' : 'Ines';
    await ask(sender, 'POST', `/bills/${bill.id}/send`, { rowVersion: (await world.show(bill.id)).rowVersion });
    expect(await stage()).toBe('coded');
    await world.rows(`insert into membership values ($1, $2, 'approver')`, person, company);
    const { status, data } = await ask('Ines', 'POST', `/bills/${bill.id}/approve`, { rowVersion: (await world.show(bill.id)).rowVersion });
    await world.rows(`delete from membership where person_id = $1 and company_id = $2 and role = 'approver'`, person, company);
    expect([status, data.title]).toEqual([403, expect.stringContaining('Somebody else has to approve it')]);
    await expect(
      world.rows(`update bill set stage = 'approved', approved_by = $2 where id = $1`, bill.id, person),
      'not past the service either',
    ).rejects.toMatchObject({ constraint: 'bill_not_own_approval' });
  });
});

describe('the event log', () => {
  it('has every save with what was before and after, by whom and from where', async () => {
    await ask('Ines', 'PATCH', `/bills/${bill.id}`, {
      rowVersion: 1,
      operations: [
        { do: 'set', field: 'terms', value: 'net 9' },
        { do: 'set-cell', line: bill.line, field: 'description', value: 'Pots' },
      ],
    });
    const [event] = await world.rows(`select * from event where subject_id = $1 and verb = 'changed'`, bill.id);
    expect([event.before, event.after, event.person_id, event.source]).toEqual([
      { terms: null, [`${bill.line}.description`]: 'Line 1' },
      { terms: 'net 9', [`${bill.line}.description`]: 'Pots' },
      world.master.person('Ines Okafor'),
      'web',
    ]);
  });
  it('has every change of settings, suppliers and periods', async () => {
    const tries: [string, string, string, unknown][] = [
      ['Halina', 'PUT', '/periods', { year: 2026, month: 1, open: false }],
      ['Halina', 'POST', '/periods/year', { year: 2030 }],
      ['Kit', 'PUT', '/checks/due-early', { severity: 'asks' }],
      [
        'Kit',
        'POST',
        '/cost-centres',
        { code: 'E1', name: 'Event', parentId: null, ownerId: null, active: true, validFrom: null, validTo: null },
      ],
      ['Kit', 'PUT', '/rates', { currency: 'CHF', day: '2026-11-01', rate: '0.9' }],
      [
        'Kit',
        'PUT',
        '/settings',
        { name: 'Marrowby Gardens', taxId: null, mailAddress: 'new@gardens.marrowby.example', queueOrder: 'age' },
      ],
      ['Ines', 'PUT', '/scanning', { separator: 'blank' }],
      [
        'Ines',
        'POST',
        '/suppliers',
        { name: 'Eventful Ltd', taxId: null, iban: null, email: null, phone: null, address: null, currency: 'GBP', terms: null },
      ],
      [
        'Kit',
        'POST',
        '/people',
        { name: 'New Body', email: 'new@marrowby.example', title: null, password: 'long enough to do', roles: ['clerk'] },
      ],
    ];
    for (const [as, method, path, body] of tries) {
      const [{ n: before }] = await world.rows('select count(*)::int as n from event where company_id is not null');
      expect((await ask(as, method, path, body)).status, path).toBe(200);
      const [{ n: after }] = await world.rows('select count(*)::int as n from event where company_id is not null');
      expect(after, path).toBe(before + 1);
    }
  });
  it('cannot be changed, shortened or emptied, and a row that was is found', async () => {
    const refused = { constraint: 'event_stays' };
    await expect(world.rows(`update event set verb = 'x'`)).rejects.toMatchObject(refused);
    await expect(world.rows('delete from event')).rejects.toMatchObject(refused);
    await expect(world.rows('truncate event')).rejects.toMatchObject(refused);
    const company = world.master.company('MBG').id;
    const broken = async () => (await world.rows('select event_chain_break($1)::int as at', company))[0].at;
    expect(await broken()).toBe(null);
    const [{ seq }] = await world.rows('select max(seq)::int - 1 as seq from event where company_id = $1', company);
    const past = async (change: string) => {
      const client = await world.owner.connect();
      try {
        await client.query('begin');
        await client.query('alter table event disable trigger user');
        await client.query(change, [company, seq]);
        return (await client.query('select event_chain_break($1)::int as at', [company])).rows[0].at;
      } finally {
        await client.query('rollback');
        client.release();
      }
    };
    expect(await past(`update event set note = 'nothing happened' where company_id = $1 and seq = $2`)).toBe(seq);
    expect(await past('update event set person_id = null where company_id = $1 and seq = $2 and person_id is not null')).toBe(seq);
    expect(await past('delete from event where company_id = $1 and seq = $2')).toBe(seq + 1);
  });
  it('keeps one order without gaps when twenty write at once', async () => {
    const ids = await world.build.bills(20, () => ({}));
    const answers = await Promise.all(
      ids.map((id) => ask('Ines', 'PATCH', `/bills/${id}`, { rowVersion: 1, operations: [{ do: 'set', field: 'terms', value: 'net 3' }] })),
    );
    expect(answers.map((a) => a.status)).toEqual(ids.map(() => 200));
    const company = world.master.company('MBG').id;
    const [{ at, n, last }] = await world.rows(
      'select event_chain_break($1) as at, count(*)::int as n, max(seq)::int as last from event where company_id = $1',
      company,
    );
    expect([at, n]).toEqual([null, last]);
  });
  it('has nothing of what did not happen', async () => {
    const told = `select count(*)::int as n from event where subject_type <> 'sign-in' and verb <> 'refused'`;
    const [{ n: before }] = await world.rows(told);
    await ask('Ines', 'PATCH', `/bills/${bill.id}`, { rowVersion: 7, operations: [{ do: 'set', field: 'terms', value: 'late' }] });
    await ask('Ines', 'POST', `/bills/${bill.id}/approve`, { rowVersion: 1 });
    const [{ n: after }] = await world.rows(told);
    expect(after).toBe(before);
  });
});
