import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterEach, expect, it } from 'vitest';
// @ts-expect-error plain JavaScript
import { startDatabase } from './database.mjs';

interface Database {
  url: string;
  ownerUrl: string;
  home: string;
  pid(): number;
  stop(): Promise<void>;
}
const begun: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const end of begun.splice(0).reverse()) await end();
});
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'ledgerline-database-'));
  begun.push(async () => rmSync(made, { recursive: true, force: true }));
  return made;
};
/** `quick` forgets what it was told last when it is killed. */
const startIn = async (data: string, say: (sentence: string) => void = () => undefined, quick = true): Promise<Database> => {
  const database = (await startDatabase(join(data, 'database'), { quick, say })) as Database;
  begun.push(async () => {
    await database.stop();
    if (!database.home.startsWith(data)) rmSync(database.home, { recursive: true, force: true });
  });
  return database;
};
async function asked(url: string, text: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return (await client.query(text)).rows;
  } finally {
    await client.end().catch(() => undefined);
  }
}

it('is started again at the same address when it dies, as often as it does', async () => {
  const said: string[] = [];
  const database = await startIn(folder(), (sentence) => said.push(sentence), false);
  for (let i = 1; i <= 2; i++) {
    const before = database.pid();
    process.kill(before, 'SIGKILL');
    await expect.poll(() => asked(database.url, 'select 1 as one').catch(() => null), { timeout: 20_000 }).toEqual([{ one: 1 }]);
    await expect.poll(() => said.filter((s) => s.includes('is back')).length, { timeout: 20_000 }).toBe(i);
    expect(database.pid()).not.toBe(before);
  }
}, 60_000);

it('gives the application a role that owns nothing and is no superuser', async () => {
  const { url } = await startIn(folder());
  expect(await asked(url, 'select rolsuper, rolcreatedb, rolcreaterole from pg_roles where rolname = current_user')).toEqual([
    { rolsuper: false, rolcreatedb: false, rolcreaterole: false },
  ]);
  await expect(asked(url, 'create table x ()')).rejects.toMatchObject({ code: '42501' });
}, 60_000);

it('a first start that is killed at any moment is repaired by the next', async () => {
  const data = folder();
  for (const after of [5, 60, 150, 300, 500, 800, 1200]) {
    const child = spawn(
      process.execPath,
      ['-e', `import('./scripts/database.mjs').then((d) => d.startDatabase(${JSON.stringify(join(data, 'database'))}, { quick: true }))`],
      { stdio: 'ignore' },
    );
    await new Promise((done) => setTimeout(done, after));
    child.kill('SIGKILL');
  }
  const { url, home, stop } = await startIn(data);
  expect(await asked(url, 'select 1 as one')).toEqual([{ one: 1 }]);
  expect(readFileSync(join(home, 'cluster', 'PG_VERSION'), 'utf8').trim()).toBe('15');
  // What was broken off goes, with the next start at the latest.
  await stop();
  await startIn(data);
  expect(readdirSync(home).filter((n) => n.startsWith('cluster.new'))).toEqual([]);
}, 120_000);
