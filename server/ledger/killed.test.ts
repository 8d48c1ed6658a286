import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { demoPassword } from '@ledgerline/demo/people';
import { invoiceOf, makeWorld, readyToPost, testDay, type World } from '../testing/world.ts';

let world: World;
const children: ChildProcess[] = [];
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => {
  for (const child of children) child.kill('SIGKILL');
  await world.close();
});
const rows = async (text: string, ...values: unknown[]) => (await world.database.pool.query(text, values)).rows;

async function server(): Promise<{ child: ChildProcess; base: string; cookie: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', fileURLToPath(new URL('../testing/serve.ts', import.meta.url))], {
    env: { ...process.env, DATABASE_URL: world.url },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  children.push(child);
  const [line] = (await once(child.stdout!, 'data')) as [Buffer];
  const base = `http://127.0.0.1:${/port (\d+)/.exec(String(line))![1]}/api`;
  const signedIn = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'halina@marrowby.example', password: demoPassword }),
  });
  return { child, base, cookie: signedIn.headers.getSetCookie()[0]!.split(';')[0]! };
}

/** Two hundred bills ready to post, copied from one that went the whole way. */
async function twoHundred(): Promise<string[]> {
  const id = await readyToPost(world, invoiceOf(0, { number: 'K-0', lines: 3, charge: true }));
  await rows(
    `insert into bill (id, company_id, stage, kind, supplier_id, invoice_number, issue_date, due_date, currency, net, tax, gross, sent_by, sent_at, approved_by, approved_at)
    select gen_random_uuid(), company_id, 'approved', kind, supplier_id, 'K-' || n, issue_date, due_date, currency, net, tax, gross, sent_by, sent_at, approved_by, approved_at from bill, generate_series(1, 199) n where id = $1`,
    id,
  );
  await rows(
    `insert into bill_line (id, company_id, bill_id, position, kind, description, quantity, unit_price, amount, account_id, cost_centre_id, tax_code_id)
    select gen_random_uuid(), l.company_id, b.id, l.position, l.kind, l.description, l.quantity, l.unit_price, l.amount, l.account_id, l.cost_centre_id, l.tax_code_id from bill_line l, bill b where l.bill_id = $1 and b.id <> $1 and b.stage = 'approved'`,
    id,
  );
  return (await rows(`select id from bill where stage = 'approved' order by id`)).map((r) => r.id as string);
}

it('a server killed in the middle of posting 200 bills leaves each wholly posted or not at all, and posting again finishes the rest', async () => {
  const ids = await twoHundred();
  expect(ids).toHaveLength(200);
  const companyId = world.master.company('MBG').id;
  const batches = Array.from({ length: 20 }, (_, i) => ({
    key: `batch-number-${i}`,
    entryDate: testDay,
    billIds: ids.slice(i * 10, i * 10 + 10),
  }));
  const post = (s: { base: string; cookie: string }, body: object) =>
    fetch(`${s.base}/companies/${companyId}/postings`, {
      method: 'POST',
      headers: { cookie: s.cookie, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });

  const first = await server();
  for (const batch of batches.slice(0, 7)) await post(first, batch);
  const cutOff = expect(post(first, batches[7]!)).rejects.toThrow();
  // Killed while the eighth holds its lock on the year's numbers: in the middle of its transaction.
  while ((await rows(`select 1 from pg_locks where locktype = 'advisory'`)).length < 2);
  first.child.kill('SIGKILL');
  await cutOff;

  const whole = `select count(*) filter (where b.stage = 'posted' and e.id is not null and o.id is not null and lines = 6)::int as posted, count(*) filter (where b.stage = 'approved' and e.id is null and o.id is null)::int as waiting, count(*)::int as n
    from bill b left join journal_entry e on e.bill_id = b.id left join open_item o on o.bill_id = b.id left join lateral (select count(*) as lines from journal_line l where l.entry_id = e.id) l on true`;
  const [between] = await rows(whole);
  expect([70, 80]).toContain(between.posted);
  expect(between.posted + between.waiting).toBe(200);

  const second = await server();
  for (const batch of batches) expect((await post(second, batch)).status).toBe(200);
  expect((await rows(whole))[0]).toMatchObject({ posted: 200, n: 200 });
  const numbers = (await rows('select number from journal_entry where company_id = $1 order by number', companyId)).map((r) => r.number);
  expect(numbers).toEqual(Array.from({ length: 200 }, (_, i) => i + 1));
}, 90_000);
