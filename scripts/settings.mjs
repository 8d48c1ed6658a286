import { join, resolve } from 'node:path';
import { root } from './prepare.mjs';
import { Stop } from './system.mjs';

/** A port from the environment. */
function portOf(name, usual) {
  const said = process.env[name];
  if (said === undefined || said === '') return usual;
  if (!/^\d{1,5}$/.test(said) || Number(said) > 65535) throw new Stop(`${name} is no port: ${said}. Set it to a number up to 65535.`);
  return Number(said);
}

/** What is set in the environment; docs/operators.md names it all. */
export function settings() {
  const data = resolve(process.env.LEDGERLINE_DATA ?? join(root, '.data'));
  const publicUrl = process.env.PUBLIC_URL || undefined;
  if (publicUrl && !(URL.canParse(publicUrl) && /^https?:$/.test(new URL(publicUrl).protocol)))
    throw new Stop(`PUBLIC_URL is no address: ${publicUrl}. It looks like https://bills.example.org.`);
  return {
    data,
    port: portOf('PORT', undefined),
    smtpPort: portOf('SMTP_PORT', undefined),
    host: process.env.HOST || '127.0.0.1',
    scanFolder: process.env.SCAN_FOLDER ? resolve(process.env.SCAN_FOLDER) : undefined,
    databaseUrl: process.env.DATABASE_URL || undefined,
    ownerUrl: process.env.DATABASE_OWNER_URL || undefined,
    publicUrl,
    hosts: (process.env.HOSTS ?? '')
      .split(',')
      .map((h) => h.trim())
      .filter(Boolean),
  };
}

/** Where the application's database is: needed by whatever runs without the private one. */
export function neededDatabase({ databaseUrl }) {
  if (!databaseUrl)
    throw new Stop(
      'DATABASE_URL is missing: the address of the database, as the application’s own role. docs/operators.md says how. To run all on this machine, use npm start.',
    );
  return databaseUrl;
}
