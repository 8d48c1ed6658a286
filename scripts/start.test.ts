import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, expect, inject, it, onTestFinished } from 'vitest';

const data = mkdtempSync(join(tmpdir(), 'ledgerline-start-'));
afterAll(() => rmSync(data, { recursive: true, force: true }));

it('a second start on the same data folder says so and leaves the first one alone', async () => {
  const first = spawn(process.execPath, ['-e', 'setInterval(() => 0, 1000); // start.mjs'], { stdio: 'ignore' });
  writeFileSync(join(data, 'running'), String(first.pid));
  const { status, stderr } = spawnSync(process.execPath, ['scripts/start.mjs'], {
    encoding: 'utf8',
    env: { ...process.env, LEDGERLINE_DATA: data, DATABASE_URL: '' },
  });
  expect([status, stderr]).toEqual([1, expect.stringContaining('is running on')]);
  expect(first.exitCode).toBeNull();
  first.kill();
  await once(first, 'exit');
});

it('a busy port gives one sentence with what to do, and nothing is left running', async () => {
  const holder = createServer();
  await new Promise<void>((done) => holder.listen(0, '127.0.0.1', done));
  const { port } = holder.address() as AddressInfo;
  const child = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    env: {
      ...process.env,
      LEDGERLINE_DATA: data,
      PORT: String(port),
      SMTP_PORT: '0',
      DATABASE_URL: inject('applicationUrl'),
    },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (d: Buffer) => {
    said += String(d);
  });
  const [code] = (await once(child, 'exit')) as [number];
  holder.close();
  expect([code, said.trim()]).toEqual([
    1,
    `Port ${port} is taken by another program. Set PORT to a free one, for example PORT=${port + 1} npm start.`,
  ]);
});

it('a first start that is killed while it loads the demo is finished by the next: nothing is missing, nothing there twice', async () => {
  const own = mkdtempSync(join(tmpdir(), 'ledgerline-first-'));
  const begin = (port: number) =>
    spawn(process.execPath, ['scripts/start.mjs'], {
      env: { ...process.env, LEDGERLINE_DATA: own, PORT: String(port), SMTP_PORT: String(port + 1), DATABASE_URL: '' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
  const until = (child: ReturnType<typeof begin>, said: RegExp) =>
    new Promise<void>((done, fail) => {
      let all = '';
      for (const stream of [child.stdout, child.stderr])
        stream.on('data', (d: Buffer) => {
          all += String(d);
          if (said.test(all)) done();
        });
      child.once('exit', () => fail(new Error(all)));
    });
  for (const after of [300, 4000]) {
    const child = begin(4471);
    child.on('error', () => undefined);
    await until(child, /Loading the/).catch(() => undefined);
    await new Promise((done) => setTimeout(done, after));
    const gone = once(child, 'exit');
    child.kill('SIGKILL');
    await gone;
  }
  const child = begin(4471);
  // Whatever fails below, its port is free again.
  onTestFinished(() => void child.kill('SIGKILL'));
  await until(child, /Ledgerline is ready/);
  const client = new pg.Client({ connectionString: readFileSync(join(own, 'database-url'), 'utf8') });
  await client.connect();
  const one = async (text: string) => (await client.query(text)).rows[0].n as number;
  expect(await one('select count(*)::int as n from organisation where ready')).toBe(1);
  const twice = `select count(*)::int as n from (select company_id, invoice_number from bill where stage <> 'discarded' and document_id is not null group by 1, 2 having count(*) > 1) t`;
  // But for the one whose paper the demo brings in beside its file.
  expect(await one(twice.replace('group by', `and invoice_number <> 'PSS-118' group by`))).toBe(0);
  expect(await one(`select count(*)::int as n from arrival where subject = 'Holiday opening hours'`)).toBe(1);
  // The one file that the demo itself brings in twice.
  expect(await one(`select count(*)::int as n from document where note like 'The same file as%'`)).toBe(1);
  expect(await one(`select count(*)::int as n from bill where document_id is not null and stage <> 'discarded'`)).toBe(33);
  expect(await one('select count(*)::int as n from sums_off()')).toBe(0);
  await client.end();
  const gone = once(child, 'exit');
  child.kill('SIGTERM');
  await gone;
  rmSync(own, { recursive: true, force: true });
}, 300_000);
