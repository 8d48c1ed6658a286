import pg from 'pg';
import { prepareJobs } from '../jobs/jobs.ts';
import { connect, migrate } from './client.ts';
import { grantTo } from './grants.ts';

/**
 * Brings the structure up to date and gives the application's role its rights: by the owner, one at a time, however many servers start at
 * once. Throws when the database is newer than this version of Ledgerline.
 */
export async function prepareDatabase(ownerUrl: string, role: string): Promise<void> {
  const lock = new pg.Client({ connectionString: ownerUrl });
  await lock.connect();
  try {
    await lock.query(`select pg_advisory_lock(hashtextextended('prepare', 7))`);
    const owner = connect(ownerUrl, { statementSeconds: 0 });
    try {
      await migrate(owner);
      await prepareJobs(ownerUrl);
      await grantTo(owner.pool, role);
    } finally {
      await owner.close();
    }
  } finally {
    await lock.end();
  }
}

/** The role that an address signs in as. */
export const roleOf = (url: string): string => decodeURIComponent(new URL(url).username);
