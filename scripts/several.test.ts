import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import nodemailer from 'nodemailer';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { mailOf, password } from '../server/testing/master.ts';
import { invoiceOf, makeWorld, type World } from '../server/testing/world.ts';
// @ts-expect-error plain JavaScript
import { freePort } from './system.mjs';

/** Two servers and two workers on one database, each a process of its own. */
let world: World;
const scans = mkdtempSync(join(tmpdir(), 'scans-'));
const children: ChildProcess[] = [];
const ports = { web: [0, 0], mail: [0, 0], health: 0 };
function begin(script: string, env: Record<string, string>): Promise<void> {
  const child = spawn(process.execPath, [`scripts/${script}.mjs`], {
    env: { ...process.env, DATABASE_URL: world.url, DATABASE_OWNER_URL: '', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  children.push(child);
  return new Promise((ready, fail) => {
    let said = '';
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (d: Buffer) => {
        said += String(d);
        if (/serves at|reads/.test(said)) ready();
      });
    child.once('exit', () => fail(new Error(said)));
  });
}
beforeAll(async () => {
  world = await makeWorld();
  for (const i of [0, 1]) {
    ports.web[i] = await freePort();
    ports.mail[i] = await freePort();
  }
  ports.health = await freePort();
  await Promise.all([0, 1].map((i) => begin('serve', { PORT: String(ports.web[i]), SMTP_PORT: String(ports.mail[i]) })));
  await Promise.all([
    begin('worker', { SCAN_FOLDER: scans, PORT: String(ports.health) }),
    begin('worker', { SCAN_FOLDER: scans, PORT: '' }),
  ]);
}, 90_000);
afterAll(async () => {
  for (const child of children) child.kill('SIGKILL');
  await world.close();
  rmSync(scans, { recursive: true, force: true });
});

const at = (server: number, path: string) => `http://127.0.0.1:${ports.web[server]}${path}`;
async function cookieFrom(server: number, name: string): Promise<string> {
  const answer = await fetch(at(server, '/api/session'), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: mailOf(name), password }),
  });
  return answer.headers.getSetCookie()[0]!.split(';')[0]!;
}

it('each document is read once, live updates reach both servers, and no session sticks to one', async () => {
  const cookie = await cookieFrom(0, 'Ines Okafor');
  const streams = await Promise.all(
    [0, 1].map(async (server) => {
      const reader = (await fetch(at(server, '/api/live'), { headers: { cookie } })).body!.pipeThrough(new TextDecoderStream()).getReader();
      return { reader, heard: '' };
    }),
  );
  const invoices = Array.from({ length: 16 }, (_, i) => invoiceOf(i % 4, { number: `SEV-${i}`, lines: 2 }));
  await Promise.all(
    invoices.slice(0, 8).map(async (invoice, i) => {
      const transport = nodemailer.createTransport({ host: '127.0.0.1', port: ports.mail[i % 2]!, ignoreTLS: true });
      const attachments = [{ filename: `${invoice.number}.pdf`, content: Buffer.from(await makePdf(invoice)) }];
      await transport.sendMail({ from: 'a@b.example', to: 'invoices@gardens.marrowby.example', subject: invoice.number, attachments });
      transport.close();
    }),
  );
  for (const invoice of invoices.slice(8)) writeFileSync(join(scans, `${invoice.number}.pdf`), await makePdf(invoice));
  const bills = () => world.rows(`select invoice_number, document_id from bill where invoice_number like 'SEV-%'`);
  await expect.poll(async () => (await bills()).length, { timeout: 60_000, interval: 200 }).toBe(16);
  expect(new Set((await bills()).map((b) => b.invoice_number)).size).toBe(16);
  expect(await world.rows(`select state, count(*)::int as n from document group by 1`)).toEqual([{ state: 'read', n: 16 }]);
  expect((await world.rows(`select count(*)::int as n from arrival`))[0].n).toBe(16);
  const ids = (await world.rows(`select id from bill where invoice_number = 'SEV-15'`)).map((b) => b.id as string);
  for (const stream of streams) {
    while (!stream.heard.includes(ids[0]!)) stream.heard += (await stream.reader.read()).value;
    await stream.reader.cancel();
  }
  for (const server of [0, 1]) expect((await fetch(at(server, '/api/sessions'), { headers: { cookie } })).status).toBe(200);
}, 120_000);

it('each says whether it is well, and ends within five seconds', async () => {
  for (const port of [...ports.web, ports.health])
    for (const what of ['live', 'ready'])
      expect((await fetch(`http://127.0.0.1:${port}/health/${what}`)).status, `${port} ${what}`).toBe(200);
  for (const child of children) {
    const began = Date.now();
    child.kill('SIGTERM');
    const [code] = (await once(child, 'exit')) as [number];
    expect([code, Date.now() - began < 5000]).toEqual([0, true]);
  }
}, 60_000);

it.each([
  ['serve', { DATABASE_URL: '' }, /DATABASE_URL is missing/],
  ['worker', { DATABASE_URL: '' }, /DATABASE_URL is missing/],
  ['serve', { PORT: 'x' }, /PORT is no port/],
  ['serve', { PUBLIC_URL: 'bills' }, /PUBLIC_URL is no address/],
])('%s says what is wrong with %o', async (script, env, said) => {
  await expect(begin(script, env)).rejects.toThrow(said);
});
it('is not started as the owner of the tables or as a superuser', async () => {
  await expect(begin('serve', { DATABASE_URL: world.ownerUrl, PORT: '0' })).rejects.toThrow(/superuser/);
});
