import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';
import { settings } from './settings.mjs';
import { Stop } from './system.mjs';

/** Does something with the owner's address of the database: the one that is set, the one that runs, or the private one, started for it. */
export async function withDatabase(work, { running }) {
  const set = settings();
  if (set.ownerUrl) return work(set.ownerUrl, set.databaseUrl ?? null);
  if (set.databaseUrl)
    throw new Stop('DATABASE_OWNER_URL is missing: the address of the database as its owner. docs/operators.md says how.');
  const held = join(set.data, 'running'),
    known = join(set.data, 'database-url');
  const runs = existsSync(held) && existsSync(known) && existsSync(`/proc/${readFileSync(held, 'utf8').trim()}`);
  if (runs && !running) throw new Stop(`Ledgerline is running on ${set.data}. End it first.`);
  if (runs) return work(readFileSync(known, 'utf8').trim(), null);
  const database = await startDatabase(join(set.data, 'database'));
  try {
    return await work(database.ownerUrl, database.url);
  } finally {
    await database.stop();
  }
}
