// npm run worker: reading and other jobs on a database that is there. Any number of them, on any machine that reaches it.
import { preparePackages } from './prepare.mjs';
import { running, server } from './running.mjs';
import { neededDatabase, settings } from './settings.mjs';

await running(async (begun) => {
  const set = settings();
  const databaseUrl = neededDatabase(set);
  preparePackages();
  const { start } = await server();
  const { port, host, ownerUrl, scanFolder } = set;
  const now = await start({ databaseUrl, ownerUrl, work: true, scanFolder, health: port === undefined ? undefined : { port, host } });
  begun.push(() => now.close());
  console.log(`A worker of Ledgerline reads${scanFolder ? ` and watches ${scanFolder}` : ''}.`);
});
