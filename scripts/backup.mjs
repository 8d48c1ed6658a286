// npx ledgerline backup FILE, restore FILE: everything, originals included, as one file.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { programs } from './database.mjs';
import { withDatabase } from './owner.mjs';
import { Stop } from './system.mjs';

/** What belongs to Ledgerline in its database. */
const schemas = ['public', 'drizzle', 'pgboss'];

/** The address without its password, and the environment that has it: programs show their arguments to everybody on the machine. */
function signIn(address) {
  const url = new URL(address);
  const password = decodeURIComponent(url.password);
  url.password = '';
  return { address: url.href, env: { ...process.env, PGPASSWORD: password } };
}

function run(program, args, env, failure) {
  const done = spawnSync(join(programs(), program), args, { env, encoding: 'utf8', maxBuffer: 1 << 28 });
  if (done.status !== 0) throw new Stop(`${failure} ${(done.stderr ?? '').trim().split('\n').slice(-3).join(' ')}`);
  return done.stdout;
}

/** Writes everything into a file that is there whole or not at all; Ledgerline may go on working meanwhile. */
export async function backup(file) {
  const path = resolve(file),
    part = `${path}.part`;
  if (existsSync(path)) throw new Stop(`${path} is there already. Choose another name, or move it away.`);
  await withDatabase(
    async (ownerUrl) => {
      const { address, env } = signIn(ownerUrl);
      try {
        run(
          'pg_dump',
          ['--format=custom', '--no-owner', '--no-privileges', `--file=${part}`, `--dbname=${address}`],
          env,
          'The backup could not be written:',
        );
        renameSync(part, path);
      } finally {
        rmSync(part, { force: true });
      }
    },
    { running: true },
  );
  console.log(`Everything is in ${path} (${(statSync(path).size / 1e6).toFixed(1)} MB).`);
}

/**
 * Puts back what a backup holds, into an empty or a filled database: in one transaction, so that whatever goes wrong leaves what was there.
 * The structure is brought up to date after that.
 */
export async function restore(file) {
  const path = resolve(file);
  if (!existsSync(path)) throw new Stop(`${path} is not there.`);
  run('pg_restore', ['--list', path], process.env, `${path} is no backup of Ledgerline, or is damaged:`);
  await withDatabase(
    async (ownerUrl, databaseUrl) => {
      const { address, env } = signIn(ownerUrl);
      const others = run(
        'psql',
        [
          '-tAc',
          `select count(*) from pg_stat_activity where datname = current_database() and application_name like 'ledgerline%'`,
          address,
        ],
        env,
        'The database does not answer:',
      );
      if (Number(others) > 0)
        throw new Stop('Ledgerline is running on this database. End all of its servers and workers first; then restore.');
      await replace(path, address, env);
      const { prepareDatabase, roleOf } = await import('../server/db/prepare.ts');
      await prepareDatabase(ownerUrl, databaseUrl ? roleOf(databaseUrl) : 'ledgerline_app');
    },
    { running: false },
  );
  console.log(`What was in ${path} is back. Start Ledgerline again.`);
}

/** Everything of ours goes and what the file holds comes, in one transaction. */
function replace(path, address, env) {
  const out = spawn(join(programs(), 'pg_restore'), ['--no-owner', '--no-privileges', '--file=-', path], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const into = spawn(join(programs(), 'psql'), ['-q', '-X', '--single-transaction', '-v', 'ON_ERROR_STOP=1', '-d', address], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  let said = '';
  for (const program of [out, into]) program.stderr.on('data', (d) => (said += String(d)));
  into.stdin.on('error', () => undefined);
  into.stdin.write(
    `SET client_min_messages = warning;\n${schemas.map((s) => `DROP SCHEMA IF EXISTS ${s} CASCADE;`).join('\n')}\nCREATE SCHEMA public;\n`,
  );
  let read = false;
  out.once('exit', (code) => {
    read = code === 0;
  });
  out.stdout.on('data', (part) => {
    if (!into.stdin.write(part)) {
      out.stdout.pause();
      into.stdin.once('drain', () => out.stdout.resume());
    }
  });
  out.once('close', () => {
    // A file that ends too early must not be kept half: then what was begun is broken off.
    into.stdin.end(read ? '' : `\\set ON_ERROR_STOP on\nSELECT 1/0;\n`);
  });
  return new Promise((done, fail) =>
    into.once('close', (code) => {
      // Whoever still reads has nobody to give it to.
      out.kill();
      if (code === 0 && read) done();
      else fail(new Stop(`Nothing was changed: the backup could not be put back. ${said.trim().split('\n').slice(-3).join(' ')}`));
    }),
  );
}
