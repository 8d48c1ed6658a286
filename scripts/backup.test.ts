import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { postBills } from '../server/ledger/posting.ts';
import { arrive, invoiceOf, makeWorld, type World } from '../server/testing/world.ts';

/** A company's work, written out and put back: every table is compared. */
let from: World, into: World;
const folder = mkdtempSync(join(tmpdir(), 'ledgerline-backup-'));
const file = join(folder, 'all.backup');
beforeAll(async () => {
  [from, into] = [await makeWorld(), await makeWorld()];
  await arrive(from, invoiceOf(0, { number: 'KEEP-1', lines: 3 }));
  await from.build.bill({ stage: 'posted', number: 'KEEP-2' });
  await from.build.bill({ stage: 'approved', number: 'KEEP-3' });
  await into.build.bill({ stage: 'posted', number: 'GOES-1' });
  await makePdf(invoiceOf(1, { number: 'x' }));
});
afterAll(async () => {
  await from.close();
  await into.close();
  rmSync(folder, { recursive: true, force: true });
});

const ledgerline = (ownerUrl: string, url: string, ...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['bin/ledgerline.mjs', ...args], {
    encoding: 'utf8',
    env: { ...process.env, DATABASE_OWNER_URL: ownerUrl, DATABASE_URL: url },
  });
  return { status, said: stdout + stderr };
};

/** Each table of the database with the number of its rows and what stands in them. */
async function contentsOf(ownerUrl: string): Promise<Record<string, string>> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  const { rows: tables } = await client.query(
    `select format('%I.%I', schemaname, tablename) as name from pg_tables where schemaname in ('public', 'drizzle') order by 1`,
  );
  const contents: Record<string, string> = {};
  for (const { name } of tables) {
    const { rows } = await client.query(
      `select count(*) || ' ' || coalesce(md5(string_agg(t::text, '|' order by t::text)), '') as all from ${name} t`,
    );
    contents[name] = rows[0].all;
  }
  await client.end();
  return contents;
}
/** A world lets go of its database: nobody restores under a running server. */
const letGo = async (world: World) => {
  await world.database.close();
  world.database.close = async () => undefined;
};
const emptyDatabase = async (): Promise<{ ownerUrl: string; url: string }> => {
  const url = new URL(from.ownerUrl),
    own = new URL(from.url);
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  await client.query('create database restored_empty');
  await client.end();
  url.pathname = own.pathname = '/restored_empty';
  return { ownerUrl: url.href, url: own.href };
};

it('brings everything back, into an empty database and in place of another one', async () => {
  const before = await contentsOf(from.ownerUrl);
  expect(Object.keys(before).length).toBeGreaterThan(25);
  expect(before['public.event']).not.toMatch(/^0 /);
  expect(ledgerline(from.ownerUrl, from.url, 'backup', file)).toMatchObject({
    status: 0,
    said: expect.stringContaining('Everything is in'),
  });
  expect(ledgerline(from.ownerUrl, from.url, 'backup', file).said).toContain('is there already');

  const empty = await emptyDatabase();
  expect(ledgerline(empty.ownerUrl, empty.url, 'restore', file)).toMatchObject({ status: 0 });
  expect(await contentsOf(empty.ownerUrl)).toEqual(before);

  const url = into.url;
  // A server that runs always listens; this one holds a connection instead.
  const held = await into.database.pool.connect();
  const running = ledgerline(into.ownerUrl, url, 'restore', file);
  held.release();
  expect([running.status, running.said]).toEqual([1, expect.stringContaining('Ledgerline is running on this database')]);
  await letGo(into);
  expect(ledgerline(into.ownerUrl, url, 'restore', file)).toMatchObject({ status: 0 });
  expect(await contentsOf(into.ownerUrl)).toEqual(before);
}, 120_000);

it('leaves what is there where the file is none, or broken off', async () => {
  const before = await contentsOf(into.ownerUrl);
  writeFileSync(join(folder, 'none.backup'), 'not a backup');
  expect(ledgerline(into.ownerUrl, into.url, 'restore', join(folder, 'none.backup')).said).toContain('is no backup of Ledgerline');
  expect(ledgerline(into.ownerUrl, into.url, 'restore', join(folder, 'missing')).said).toContain('is not there');
  truncateSync(file, Math.round(statSync(file).size * 0.8));
  expect(ledgerline(into.ownerUrl, into.url, 'restore', file)).toMatchObject({ status: 1 });
  expect(await contentsOf(into.ownerUrl)).toEqual(before);
}, 60_000);

it('is refused, whole, to a role that may not, and does not hang', async () => {
  const before = await contentsOf(into.ownerUrl);
  expect(ledgerline(from.ownerUrl, from.url, 'backup', join(folder, 'again.backup')).status).toBe(0);
  const { status, said } = ledgerline(into.url, into.url, 'restore', join(folder, 'again.backup'));
  expect([status, said]).toEqual([1, expect.stringContaining('Nothing was changed')]);
  expect(await contentsOf(into.ownerUrl)).toEqual(before);
  for (const args of [['restore'], ['backup', 'a', 'b'], ['nonsense']])
    expect(ledgerline(into.ownerUrl, into.url, ...args)).toMatchObject({
      status: 2,
      said: expect.stringContaining('ledgerline backup FILE'),
    });
}, 60_000);

it('what was brought back goes on: rights, numbers and the chain are as they were', async () => {
  const client = new pg.Client({ connectionString: into.url });
  await client.connect();
  await expect(client.query(`delete from event`)).rejects.toMatchObject({ code: '42501' });
  await expect(client.query(`create table x ()`)).rejects.toMatchObject({ code: '42501' });
  const { rows } = await client.query(`select event_chain_break(id) as at from company`);
  expect(rows.every((r) => r.at === null)).toBe(true);
  await client.end();
  const posted = await postBills.perform(
    from.services,
    await from.as('Halina Voss'),
    {},
    {
      key: 'after-the-backup',
      billIds: [(await from.rows(`select id from bill where invoice_number = 'KEEP-3'`))[0].id],
      entryDate: '2026-11-23',
    },
  );
  expect(posted.posted[0]!.number).toBe(2);
});

it('the books that it holds are looked through by the command', () => {
  const found = ledgerline(from.ownerUrl, from.url, 'verify');
  expect(found).toMatchObject({ status: 0, said: expect.stringContaining('All is as it was written.') });
  expect(found.said).toMatch(/Marrowby Botanic Gardens\n {2}right {2}\d+ acts in the event log, each chained to the one before\n/);
});

it('somebody who lost their password is let in again by the command', async () => {
  const found = ledgerline(from.ownerUrl, from.url, 'readmit', 'ines@marrowby.example');
  expect(found).toMatchObject({ status: 0, said: expect.stringMatching(/^Ines Okafor signs in with \S{16} and should change it at once/) });
  expect(ledgerline(from.ownerUrl, from.url, 'readmit', 'nobody@marrowby.example')).toMatchObject({
    status: 1,
    said: 'Nobody here has the address nobody@marrowby.example.\n',
  });
});
