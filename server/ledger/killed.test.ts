import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { mailOf, password } from '../testing/master.ts';
import { makeWorld, testDay, type World } from '../testing/world.ts';

let world: World;
const children: ChildProcess[] = [];
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => {
  for (const child of children) child.kill('SIGKILL');
  await world.close();
});
const rows = async (text: string, ...values: unknown[]) => (await world.owner.query(text, values)).rows;

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
    body: JSON.stringify({ email: mailOf('Halina Voss'), password }),
  });
  return { child, base, cookie: signedIn.headers.getSetCookie()[0]!.split(';')[0]! };
}

/** Two hundred bills ready to post, of four lines each. */
const twoHundred = (): Promise<string[]> =>
  world.build.bills(200, (i) => ({ number: `K-${i}`, stage: 'approved', lines: [10, 20, 30, 5].map((n) => ({ amount: `${n}.00` })) }));

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
  // The eighth is held up in the middle of its transaction, at the first open item, and killed there.
  const barrier = await world.owner.connect();
  await barrier.query('begin; lock table open_item in access exclusive mode');
  const cutOff = expect(post(first, batches[7]!)).rejects.toThrow();
  while ((await barrier.query(`select 1 from pg_locks where not granted and relation = 'open_item'::regclass`)).rows.length === 0);
  first.child.kill('SIGKILL');
  await cutOff;
  await barrier.query('rollback');
  barrier.release();

  const whole = `select count(*) filter (where b.stage = 'posted' and e.id is not null and o.id is not null and lines = 6)::int as posted, count(*) filter (where b.stage = 'approved' and e.id is null and o.id is null)::int as waiting, count(*)::int as n
    from bill b left join journal_entry e on e.source_id = b.id left join open_item o on o.source_id = b.id left join lateral (select count(*) as lines from journal_line l where l.entry_id = e.id) l on true`;
  const [between] = await rows(whole);
  expect(between.posted).toBe(70);
  expect(between.posted + between.waiting).toBe(200);

  const second = await server();
  for (const batch of batches) expect((await post(second, batch)).status).toBe(200);
  expect((await rows(whole))[0]).toMatchObject({ posted: 200, n: 200 });
  const numbers = (await rows('select number from journal_entry where company_id = $1 order by number', companyId)).map((r) => r.number);
  expect(numbers).toEqual(Array.from({ length: 200 }, (_, i) => i + 1));
}, 90_000);
