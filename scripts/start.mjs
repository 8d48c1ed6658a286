// npm start: installs what is missing, starts the database, migrates, loads the demo on first run, serves and works.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { preparePackages, prepareWeb } from './prepare.mjs';
import { running, server } from './running.mjs';
import { settings } from './settings.mjs';
import { Stop } from './system.mjs';

const empty = process.argv.includes('--empty');

/** One Ledgerline a data folder: a second one would take the first one's database for a left-over. */
function holdFolder(data, begun) {
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

await running(async (begun) => {
  const set = settings();
  const { data, port = 4310, smtpPort = 4325, publicUrl, hosts, host } = set;
  preparePackages();
  prepareWeb();
  let { databaseUrl, ownerUrl } = set;
  if (!databaseUrl) {
    holdFolder(data, begun);
    const database = await startDatabase(join(data, 'database'), { say: (sentence) => console.error(sentence) });
    begun.push(database.stop);
    ({ url: databaseUrl, ownerUrl } = database);
    // For `npx ledgerline backup` while this runs.
    writeFileSync(join(data, 'database-url'), ownerUrl, { mode: 0o600 });
    begun.push(async () => rmSync(join(data, 'database-url'), { force: true }));
  }
  const { start } = await server();
  const scanFolder = set.scanFolder ?? join(data, 'scans');
  const parts = { web: { port, host }, mail: { port: smtpPort, host }, work: true, scanFolder };
  const now = await start({ databaseUrl, ownerUrl, publicUrl, hosts, ...parts });
  begun.push(() => now.close());
  const { loadDemo, isEmpty, demoUnfinished } = await import('../demo/load.ts');
  const first = await isEmpty(now.services);
  if ((!empty && first) || (await demoUnfinished(now.services))) {
    console.log(first ? 'Loading the demo (once) …' : 'Loading the rest of the demo …');
    await loadDemo(now.services, { port, smtpPort, scanFolder });
  }
  const people = empty && first ? 'Open it to set up your organisation.' : (await import('../demo/people.ts')).signInLine;
  console.log(`Ledgerline is ready at ${publicUrl ?? `http://127.0.0.1:${port}`}`);
  console.log(`${people}\nMail: smtp://127.0.0.1:${smtpPort}   Scans: ${scanFolder}`);
});
