import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { takeFile } from '../imports/service.ts';
import { newOrder } from '../orders/service.ts';
import { newReceipt } from '../receipts/service.ts';
import { clientOf } from '../testing/client.ts';
import { makeWorld, type World } from '../testing/world.ts';

/**
 * A small world, worked out by hand. The gardens, on 23 November 2026:
 * - F-1 posted 2 Nov: 100.00 + 20.00 = 120.00, due 20 Nov: late
 * - F-2 posted 3 Nov: 50.00 + 30.00 + 16.00 = 96.00, due 28 Nov: within 7 days
 * - F-3 credit note posted 4 Nov: 10.00 + 2.00 = 12.00, owed back
 * - F-4 in EUR posted 5 Nov at 0.85: 200.00 + 40.00 = 240.00, that is GBP 204.00, due 12 Dec: within 30 days
 * - F-5 with the approver (sent on by Tobias), F-6 ready to post, F-7 to review without an account, F-8 to review, clean
 */
let world: World;
let ask: ReturnType<typeof clientOf>;
const id: Record<string, string> = {};
const asked = new Set<string>();
const get = async (as: string, path: string, route = path.split('?')[0]!) => {
  asked.add(route);
  const { status, data } = await ask(as, 'GET', path);
  expect(status, path).toBe(200);
  return data;
};
beforeAll(async () => {
  world = await makeWorld();
  ask = clientOf(world);
  const posted = (number: string, day: string, wish: object) =>
    world.build.bill({ number, stage: 'posted', issueDate: day, entryDate: day, ...wish });
  id['document'] = await world.build.document({ words: ['Total', '120.00'], name: 'f-1.pdf' });
  id['F-1'] = await posted('F-1', '2026-11-02', { dueDate: '2026-11-20', documentId: id['document'] });
  id['F-2'] = await posted('F-2', '2026-11-03', {
    dueDate: '2026-11-28',
    lines: [{ amount: '50.00' }, { amount: '30.00', account: '6010' }],
  });
  id['F-3'] = await posted('F-3', '2026-11-04', { kind: 'credit-note', dueDate: null, lines: [{ amount: '10.00' }] });
  id['F-4'] = await posted('F-4', '2026-11-05', { dueDate: '2026-12-12', currency: 'EUR', lines: [{ amount: '200.00' }] });
  id['F-5'] = await world.build.bill({ number: 'F-5', stage: 'coded', sentBy: 'Tobias Fenn', issueDate: '2026-10-31' });
  id['F-6'] = await world.build.bill({ number: 'F-6', stage: 'approved', issueDate: '2026-10-30' });
  id['F-7'] = await world.build.bill({ number: 'F-7', lines: [{ amount: '5.00', account: null }], issueDate: '2026-10-29' });
  id['F-8'] = await world.build.bill({ number: 'F-8', dueDate: '2026-11-25', issueDate: '2026-10-28' });
  id['supplier'] = (await world.rows('select supplier_id from bill where id = $1', id['F-1']))[0].supplier_id;
  id['entry'] = (await world.rows('select id from journal_entry where source_id = $1', id['F-2']))[0].id;
  id['arrival'] = (await world.rows('select arrival_id from document where id = $1', id['document']))[0].arrival_id;
});
afterAll(() => world.close());

describe('every question, on a world worked out by hand', () => {
  it('today: what waits, what falls due, credits apart', async () => {
    const t = await get('Ines', '/today');
    expect(t.waiting).toEqual({ review: 2, returned: 0, approve: 1, post: 1, unread: 0 });
    expect(t.due).toEqual([
      { label: 'Late', amount: '120.00', count: 1 },
      { label: 'Next 7 days', amount: '96.00', count: 1 },
      { label: 'Next 30 days', amount: '204.00', count: 1 },
      { label: 'Later', amount: '0.00', count: 0 },
      { label: 'Credits', amount: '-12.00', count: 1 },
    ]);
    expect(t.oldest.map((b: { invoiceNumber: string; task: string }) => [b.invoiceNumber, b.task])).toEqual([
      ['F-8', 'review'],
      ['F-7', 'review'],
    ]);
    expect(t.latest).toEqual([expect.objectContaining({ channel: 'upload', documents: 1 })]);
    expect(t.week.at(-1)).toEqual({ day: '2026-11-23', arrived: 8, posted: 4 });
    expect((await get('Marguerite', '/today')).oldest.map((b: { task: string }) => b.task)).toEqual(['approve']);
    expect((await get('Halina', '/today')).oldest.map((b: { task: string }) => b.task)).toEqual(['post']);
  });
  it('bills: the list, its exceptions, the next one, one with all of it', async () => {
    const { bills, next } = await get('Ines', '/bills?sort=total&order=desc');
    expect(
      bills.map((b: { invoiceNumber: string; gross: string; stops: number }) => [b.invoiceNumber, b.gross, b.stops]).slice(0, 2),
    ).toEqual([
      ['F-4', '240.00', 0],
      ['F-8', '120.00', 0],
    ]);
    expect([bills.length, next]).toEqual([8, null]);
    const stopped = await get('Ines', '/bills?q=exception:account-missing');
    expect(stopped.bills.map((b: { invoiceNumber: string; stops: number }) => [b.invoiceNumber, b.stops])).toEqual([['F-7', 1]]);
    expect(bills.find((b: { invoiceNumber: string }) => b.invoiceNumber === 'F-2').entry).toBe('2026-00002');
    expect(await get('Ines', '/bills/next')).toEqual({ id: id['F-7'], left: 2 });
    expect(await get('Marguerite', '/bills/next?queue=approve')).toEqual({ id: id['F-5'], left: 1 });
    const one = await get('Ines', `/bills/${id['F-7']}`, '/bills/:id');
    expect(one.exceptions).toEqual([
      expect.objectContaining({
        code: 'account-missing',
        severity: 'stops',
        path: `${one.lines[0].id}.accountId`,
        sentence: 'Row 1 needs an account.',
      }),
    ]);
    expect(one.named.map((c: { code: string }) => c.code).sort()).toEqual(['200', 'S1001', 'S20']);
    const beside = await get('Ines', `/bills/${id['F-8']}/with-supplier`, '/bills/:id/with-supplier');
    expect(beside.bills.map((b: { invoiceNumber: string }) => b.invoiceNumber)).toEqual(['F-4', 'F-3', 'F-2', 'F-1', 'F-5', 'F-6']);
  });
  it('coding: what was learned, a rule on trial, and rows that are alike', async () => {
    const { lines, groups } = await get('Ines', `/suppliers/${id['supplier']}/learned`, '/suppliers/:id/learned');
    // Four posted bills, F-2 with two lines: five lines, all called the same.
    expect([lines, groups.map((g: { times: number; codings: unknown[] }) => [g.times, g.codings.length])]).toEqual([5, [[5, 2]]]);
    const tried = await get('Ines', `/coding-rules/trial?supplierId=${id['supplier']}&accountId=${world.master.company('MBG').account('6000')}`, '/coding-rules/trial'); // prettier-ignore
    expect(tried).toMatchObject({ lines: 5, same: 4, otherwise: 1, inHand: 1 });
    const alike = await get('Ines', '/alike');
    expect(alike.groups.map((g: { rows: { invoiceNumber: string }[] }) => g.rows.map((r) => r.invoiceNumber))).toEqual([['F-7']]);
  });
  it('the journal before it exists', async () => {
    const j = await get('Halina', `/bills/${id['F-6']}/journal`, '/bills/:id/journal');
    expect([
      j.total,
      j.rate,
      j.lines.map((l: { account: string; debit: string; credit: string }) => [l.account, l.debit, l.credit]),
    ]).toEqual([
      '120.00',
      '1',
      [
        ['6000', '100.00', '0'],
        ['1800', '20.00', '0'],
        ['2100', '0', '120.00'],
      ],
    ]);
  });
  it('entries, one with its lines, and the trail of an amount', async () => {
    const numbers = async (q: string) =>
      (await get('Halina', `/entries?q=${encodeURIComponent(q)}`)).entries.map((e: { number: string }) => e.number);
    expect([await numbers('2026-00002'), await numbers('3'), await numbers('invoice F-1'), await numbers('F-1 F-2')]).toEqual([
      ['2026-00002'],
      expect.arrayContaining(['2026-00003']),
      ['2026-00001'],
      [],
    ]);
    const { entries } = await get('Halina', '/entries');
    expect(entries.map((e: { number: string; total: string; sourceType: string }) => [e.number, e.total, e.sourceType])).toEqual([
      ['2026-00004', '204.00', 'bill'],
      ['2026-00003', '12.00', 'bill'],
      ['2026-00002', '96.00', 'bill'],
      ['2026-00001', '120.00', 'bill'],
    ]);
    const entry = await get('Halina', `/entries/${id['entry']}`, '/entries/:id');
    expect(entry.lines.map((l: { account: string; debit: string; credit: string }) => [l.account, l.debit, l.credit])).toEqual([
      ['6000', '50.00', '0'],
      ['6010', '30.00', '0'],
      ['1800', '16.00', '0'],
      ['2100', '0', '96.00'],
    ]);
    const trail = await get('Halina', `/entry-lines/${entry.lines[1].id}/trail`, '/entry-lines/:id/trail');
    expect([trail.journal.debit, trail.line.row, trail.line.amount, trail.bill.invoiceNumber]).toEqual(['30.00', 2, '30.00', 'F-2']);
    const span = 'from=2026-11-01&to=2026-11-30';
    const { rows } = await get('Halina', `/tax-summary?${span}`);
    expect(rows.map((r: { code: string; entries: number }) => [r.code, r.entries])).toContainEqual(['S20', expect.any(Number)]);
    const behind = await get('Halina', `/tax-summary/lines?${span}&limit=1`, '/tax-summary/lines');
    expect([behind.lines.length, typeof behind.next]).toEqual([1, 'string']);
    const { periods } = await get('Halina', '/periods');
    expect([periods.length, periods.find((p: { year: number; month: number }) => p.year === 2026 && p.month === 11)]).toEqual([
      36,
      { year: 2026, month: 11, open: true, entries: 4 },
    ]);
  });
  it('suppliers with their bills and what is open, and an account', async () => {
    const { suppliers } = await get('Ines', '/suppliers');
    const one = suppliers.find((s: { id: string }) => s.id === id['supplier']);
    expect([one.bills, one.lastBill, one.open]).toEqual([
      8,
      '2026-11-05',
      [
        { currency: 'EUR', amount: '240.00' },
        { currency: 'GBP', amount: '204.00' },
      ],
    ]);
    expect(suppliers.filter((s: { bills: number }) => s.bills > 0)).toHaveLength(1);
    const account = await get('Ines', `/suppliers/${id['supplier']}`, '/suppliers/:id');
    const { items, next } = await get('Ines', `/suppliers/${id['supplier']}/items`, '/suppliers/:id/items');
    expect(next).toBe(null);
    expect(
      items.map((i: { invoiceNumber: string; amount: string; open: string; entry: string }) => [
        i.invoiceNumber,
        i.amount,
        i.open,
        i.entry,
      ]),
    ).toEqual([
      ['F-4', '240.00', '240.00', '2026-00004'],
      ['F-3', '-12.00', '-12.00', '2026-00003'],
      ['F-2', '96.00', '96.00', '2026-00002'],
      ['F-1', '120.00', '120.00', '2026-00001'],
    ]);
    const paged = await get('Ines', `/suppliers/${id['supplier']}/items?show=open&limit=3`, '/suppliers/:id/items');
    const rest = await get('Ines', `/suppliers/${id['supplier']}/items?show=open&limit=3&cursor=${paged.next}`, '/suppliers/:id/items');
    expect([paged.items.length, rest.items.map((i: { invoiceNumber: string }) => i.invoiceNumber), rest.next]).toEqual([3, ['F-1'], null]);
    expect(await get('Ines', `/suppliers/${id['supplier']}/items?show=settled`, '/suppliers/:id/items')).toEqual({ items: [], next: null });
    expect([account.open, account.bankAccounts.map((a: { state: string }) => a.state)]).toEqual([one.open, ['verified']]);
  });
  it('type-ahead: by the beginning of the code and any part of the name, the likeliest first', async () => {
    const codes = async (of: string, q: string) =>
      (await get('Ines', `/choices?of=${of}&q=${encodeURIComponent(q)}`)).choices.map((c: { code: string }) => c.code);
    expect(await codes('accounts', '60')).toEqual(expect.arrayContaining(['6000', '6010']));
    expect(await codes('accounts', 'media grow')).toEqual(['6000']);
    expect(await codes('accounts', '1800')).toEqual([]);
    expect(await codes('all-accounts', '1800')).toEqual(['1800']);
    expect(await codes('cost-centres', 'palm')).toEqual(['210']);
    expect(await codes('tax-codes', 'r5')).toEqual(['R5', 'R55']);
    expect(await codes('suppliers', 'nothing like this')).toEqual([]);
    expect(await codes('accounts', "100%_'; drop table bill; --")).toEqual([]);
    expect(await get('Ines', '/currencies')).toEqual({ currencies: ['GBP', 'EUR', 'JPY', 'USD'] });
  });
  it('the lists of the settings', async () => {
    const accounts = (await get('Halina', '/accounts')).accounts;
    expect(accounts.find((a: { code: string }) => a.code === '6000')).toMatchObject({
      name: 'Growing media',
      kind: 'expense',
      needsCostCentre: true,
      active: true,
    });
    expect((await get('Halina', '/accounts?limit=2')).next).not.toBe(null);
    expect((await get('Halina', '/cost-centres?q=arb')).costCentres.map((c: { code: string }) => c.code)).toEqual(['200']);
    const { taxCodes } = await get('Halina', '/tax-codes');
    expect(taxCodes.find((t: { code: string }) => t.code === 'RC20')).toMatchObject({
      rate: '20',
      reverseCharge: true,
      account: '1800 Recoverable tax on purchases',
      outputAccount: '2200 Reverse charge tax owed',
    });
    expect(await get('Ines', '/distributions')).toEqual({ distributions: [] });
    expect(await get('Ines', '/dimensions')).toEqual({ dimensions: [] });
    expect(await get('Halina', '/dimension-values?field=dimension1')).toEqual({ values: [], next: null });
    expect(await get('Halina', '/combinations')).toEqual({ combinations: [] });
    expect(await get('Ines', '/coding-rules')).toEqual({ rules: [] });
    // One order of two lines: 3 × 4.00 and 10 × 0.25 make 14.50.
    const wanted = (quantity: string, unitPrice: string) => ({ itemId: null, code: null, description: 'Pots', quantity, unit: null, unitPrice, coding: {} }); // prettier-ignore
    const order = await newOrder.perform(world.services, await world.as('Ines Okafor'), {}, { number: 'PO-1', supplierId: id['supplier'], orderDate: '2026-11-02', currency: 'GBP', note: null, active: true, lines: [wanted('3', '4.00'), wanted('10', '0.25')] }); // prettier-ignore
    expect((await get('Ines', '/orders')).orders).toMatchObject([{ number: 'PO-1', net: '14.50', lines: 2 }]);
    const one = await get('Ines', `/orders/${order.id}`, '/orders/:id');
    expect(one.lines.map((l: { net: string }) => l.net)).toEqual(['12.00', '2.50']);
    // Nothing of it has come, and no bill is of it.
    expect(one.lines.map((l: { received: string; billed: string }) => [l.received, l.billed])).toEqual([['0', '0'], ['0', '0']]); // prettier-ignore
    const beside = await get('Ines', `/bills/${id['F-8']}/orders`, '/bills/:id/orders');
    expect([beside.lines, beside.rows, beside.debit]).toEqual([[], [], null]);
    // Two of the first line came: 8.00. A row of a bill is shared over nothing so far.
    await newReceipt.perform(world.services, await world.as('Ines Okafor'), {}, { orderId: order.id, number: 'GR-1', receivedOn: '2026-11-21', note: null, lines: [{ orderLineId: one.lines[0].id, quantity: '2' }] }); // prettier-ignore
    expect((await get('Ines', '/goods?q=GR-1')).goods).toMatchObject([{ order: 'PO-1', quantity: '2', value: '8.00', shown: [] }]);
    const [row] = await world.rows(`select id from bill_line where bill_id = $1 order by position limit 1`, id['F-8']);
    const shares = await get('Ines', `/bills/${id['F-8']}/rows/${row['id']}/shares`, '/bills/:id/rows/:row/shares');
    expect(shares).toEqual({ basis: null, baseCurrency: 'GBP', goods: [], suggested: [] });
    expect(await get('Ines', '/accruals?on=2026-11-30')).toMatchObject({ backOn: '2026-12-01', account: null, posted: [], total: '8.00', lines: [{ order: 'PO-1', place: 1, amount: '8.00' }] }); // prettier-ignore
    expect(await get('Ines', '/received-not-billed?on=2026-11-20')).toMatchObject({ total: '0.00', lines: [] });
    expect(await get('Halina', '/matching')).toMatchObject({ pricePercent: '0', which: 'stricter', passes: false });
    expect(await get('Ines', '/terms')).toEqual({ terms: [] });
    expect(await get('Halina', '/items')).toEqual({ items: [], next: null });
    expect(await get('Halina', '/usual-coding')).toMatchObject({ shown: [] });
    // On 6000 in 2026: F-1 100.00, F-2 50.00, F-3 10.00 back, F-4 170.00 in base; F-5, F-6 and F-8 of 100.00 wait, F-7 has no account.
    await world.rows(`insert into budget (id, company_id, account_id, year, month, amount) values (gen_random_uuid(), $1, $2, 2026, 1, 1000.00)`, world.master.company('MBG').id, world.master.company('MBG').account('6000')); // prettier-ignore
    const [of] = (await get('Halina', '/budgets?year=2026')).budgets;
    expect([of.year, of.posted, of.waiting]).toEqual(['1000.00', '310.00', '300.00']);
    const guide = await get('Halina', '/guide');
    expect([guide.over, guide.steps.map((s: { state: string }) => s.state)]).toEqual([true, ['done', 'done', 'open', 'done', 'open', 'done', 'done']]); // prettier-ignore
    // Of the rows of the eight bills one in hand has no account; none of those posted is against it.
    const rule = 'whenField=accountId&whenCodes=6*&onlyField=taxCodeId&onlyCodes=S20';
    expect(await get('Halina', `/combinations/effect?${rule}`)).toMatchObject({ stopped: 0, bills: 0, against: 0, examples: [] });
    expect((await get('Halina', '/rates')).rates).toEqual([
      { currency: 'EUR', day: '2025-01-01', rate: '0.85' },
      { currency: 'JPY', day: '2025-01-01', rate: '0.005' },
      { currency: 'USD', day: '2025-01-01', rate: '0.8' },
    ]);
    const file = { name: 'chart.csv', bytes: new TextEncoder().encode('Code,Name,Kind\n6000,Growing media,expense\n9000,,asset') };
    const importId = await takeFile(world.services, await world.as('Kit Arden'), 'accounts', file);
    expect(await get('Kit', `/imports/${importId}`, '/imports/:id')).toMatchObject({
      state: 'checked',
      counts: { rows: 2, good: 1, bad: 1, same: 1 },
    });
    expect(await get('Kit', `/imports/${importId}/findings?limit=1`, '/imports/:id/findings')).toEqual({
      findings: [{ n: 0, row: 3, column: 'Name', severity: 'error', sentence: 'Name is empty.', cell: '' }],
      next: '1',
    });
    expect(await get('Ines', '/views')).toEqual({ views: [] });
    asked.add('/you/views');
    expect((await ask('Ines', 'GET', '//you/views')).data).toEqual({});
    expect(await get('Ines', '/repeats')).toEqual({ repeats: [] });
    const { further, candidates } = await get('Ines', `/bills/${id['F-8']}/documents`, '/bills/:id/documents');
    // The one document there is belongs to a bill that is posted.
    expect([further, candidates]).toEqual([[], []]);
    const { people: colleagues } = await get('Halina', '/colleagues');
    expect(colleagues.filter((p: { codes: boolean }) => p.codes).map((p: { name: string }) => p.name)).toEqual([
      'Ines Okafor',
      'Tobias Fenn',
    ]);
    const people = await get('Kit', '/people');
    expect([people.lonely, people.people.find((p: { name: string }) => p.name === 'Ines Okafor').roles]).toEqual([false, ['clerk']]);
    expect(await get('Kit', '/settings')).toMatchObject({ name: 'Marrowby Botanic Gardens', baseCurrency: 'GBP', country: 'GB' });
    // F-7 has no account: one row of it stops it.
    const { causes } = await get('Ines', '/exceptions/causes');
    const missing = causes.find((c: { code: string }) => c.code === 'account-missing');
    expect(missing).toMatchObject({ open: 1, stops: 1, bills: 1 });
    const { exceptions } = await get('Ines', '/exceptions?code=account-missing');
    expect(exceptions).toMatchObject([{ sentence: 'Row 1 needs an account.', severity: 'stops', settles: null }]);
    const { checks } = await get('Kit', '/checks');
    expect(checks.find((c: { code: string }) => c.code === 'account-missing')).toMatchObject({
      open: 1,
      severity: 'stops',
      adjustable: false,
    });
  });
  it('the event log, newest first, whole', async () => {
    const { events } = await get('Halina', '/events?limit=4');
    expect(
      events.map((e: { verb: string; subject: string; person: string; source: string }) => [e.subject, e.verb, e.person, e.source]),
    ).toEqual([
      ['order', 'received', 'Ines Okafor', 'test'],
      ['order', 'made', 'Ines Okafor', 'test'],
      ['entry', 'posted', 'Halina Voss', 'test'],
      ['bill', 'posted', 'Halina Voss', 'test'],
    ]);
    expect((await get('Halina', `/events?subject=bill&id=${id['F-4']}`)).events).toHaveLength(1);
  });
  it('arrivals, their pages and their documents', async () => {
    const { arrivals } = await get('Ines', '/arrivals');
    expect(arrivals.map((a: { documents: { billStage: string }[] }) => a.documents.map((d) => d.billStage))).toEqual([['posted']]);
    expect(await get('Ines', `/arrivals/${id['arrival']}`, '/arrivals/:id')).toMatchObject({ channel: 'upload', hasOriginal: false });
    const share = await get('Ines', `/arrivals/${id['arrival']}/pages`, '/arrivals/:id/pages');
    expect(share.documents).toEqual([expect.objectContaining({ fixed: true, billId: id['F-1'] })]);
    const pages = await get('Ines', `/documents/${id['document']}/pages`, '/documents/:id/pages');
    expect(pages.pages[0].words.map((w: { text: string }) => w.text)).toEqual(['Total', '120.00']);
  });
  it('where one is signed in', async () => {
    asked.add('/sessions');
    const { data } = await ask('Ines', 'GET', '//sessions');
    expect(data).toMatchObject({ secondFactor: false, sessions: [{ here: true }] });
  });
  it('none is left out', () => {
    const questions = world.api.routes.filter((r) => r.method === 'get' && r.answer && r.access !== 'public').map((r) => r.path);
    expect([...asked].sort()).toEqual(questions.sort());
  });
});
