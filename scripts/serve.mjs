// npm run serve: web, API and mailbox on a database that is there. Any number of them, on any machine that reaches it.
import { preparePackages, prepareWeb } from './prepare.mjs';
import { running, server } from './running.mjs';
import { neededDatabase, settings } from './settings.mjs';

await running(async (begun) => {
  const set = settings();
  const databaseUrl = neededDatabase(set);
  preparePackages();
  prepareWeb();
  const { start } = await server();
  const { port = 4310, smtpPort, host, ownerUrl, publicUrl, hosts, scanFolder } = set;
  const parts = { web: { port, host }, mail: smtpPort === undefined ? undefined : { port: smtpPort, host }, scanFolder };
  const now = await start({ databaseUrl, ownerUrl, publicUrl, hosts, ...parts });
  begun.push(() => now.close());
  console.log(
    `Ledgerline serves at ${publicUrl ?? `http://${host}:${port}`}${smtpPort === undefined ? '' : `, mail at smtp://${host}:${smtpPort}`}`,
  );
});
