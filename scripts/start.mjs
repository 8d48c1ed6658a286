// npm start: installs what is missing, starts the database, migrates, loads the demo on first run, serves.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { startDatabase } from './database.mjs';
import { preparePackages, prepareWeb, root } from './prepare.mjs';
import { Stop } from './system.mjs';

const empty = process.argv.includes('--empty');
const data = resolve(process.env.LEDGERLINE_DATA ?? join(root, '.data'));
const port = Number(process.env.PORT ?? 4310);
const smtpPort = Number(process.env.SMTP_PORT ?? 4325);
const begun = [];

async function end(code) {
  for (const stop of begun.splice(0).reverse()) await stop().catch((error) => console.error(error.message));
  process.exit(code);
}

/** One Ledgerline a data folder: a second one would take the first one's database for a left-over. */
function holdFolder() {
  const mine = join(data, 'running');
  const other = existsSync(mine) ? Number(readFileSync(mine, 'utf8')) : 0;
  if (
    other &&
    other !== process.pid &&
    existsSync(`/proc/${other}/cmdline`) &&
    readFileSync(`/proc/${other}/cmdline`, 'utf8').includes('start.mjs')
  )
    throw new Stop(`Ledgerline is running on ${data} already (process ${other}). End it first, or set LEDGERLINE_DATA to another folder.`);
  mkdirSync(data, { recursive: true });
  writeFileSync(mine, String(process.pid));
  begun.push(async () => rmSync(mine, { force: true }));
}

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    if (ending) return;
    ending = true;
    console.log('\nEnding …');
    void end(0);
  });

try {
  preparePackages();
  prepareWeb();
  let databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) {
    holdFolder();
    const database = await startDatabase(join(data, 'database'));
    begun.push(database.stop);
    databaseUrl = database.url;
  }
  const { register } = await import('tsx/esm/api');
  register();
  const { start } = await import('../server/main.ts');
  const scanFolder = join(data, 'scans');
  const running = await start({ databaseUrl, port, smtpPort, scanFolder });
  begun.push(() => running.close());
  const { loadDemo, hasOrganisation } = await import('../demo/load.ts');
  const there = await hasOrganisation(running.services);
  if (!empty && !there) {
    console.log('Loading the demo (once) …');
    await loadDemo(running.services, { port, smtpPort, scanFolder });
  }
  const people = empty && !there ? 'Open it to set up your organisation.' : (await import('../demo/people.ts')).signInLine;
  console.log(`Ledgerline is ready at http://127.0.0.1:${port}`);
  console.log(`${people}\nMail: smtp://127.0.0.1:${smtpPort}   Scans: ${scanFolder}`);
} catch (error) {
  console.error(
    error instanceof Stop || (error instanceof Error && /^(Port|The database was made)/.test(error.message)) ? error.message : error,
  );
  await end(1);
}
