import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, inject, it } from 'vitest';

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
