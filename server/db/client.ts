import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate as runMigrations } from 'drizzle-orm/node-postgres/migrator';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { logError } from '../log.ts';
import * as schema from './schema/index.ts';

export type Db = NodePgDatabase<typeof schema>;
/** A database or a transaction on it: queries take either. */
export type Executor = Db | Parameters<Parameters<Db['transaction']>[0]>[0];
export interface Database {
  db: Db;
  pool: pg.Pool;
  url: string;
  close(): Promise<void>;
}

export function connect(url: string): Database {
  const pool = new pg.Pool({ connectionString: url, max: 12 });
  pool.on('error', (error) => void logError('a database connection', error));
  return { db: drizzle(pool, { schema }), pool, url, close: () => pool.end() };
}

/** Reads several things as they stood at one moment. */
export const snapshot = <T>(db: Db, work: (tx: Executor) => Promise<T>): Promise<T> =>
  db.transaction(work, { isolationLevel: 'repeatable read', accessMode: 'read only' });

/** Brings the schema up to date. Throws when the database is newer than this version of Ledgerline. */
export async function migrate({ db, pool }: Database): Promise<void> {
  const folder = fileURLToPath(new URL('./migrations', import.meta.url));
  const known = (await import('./migrations/meta/_journal.json', { with: { type: 'json' } })).default.entries.length;
  const there = await pool.query(`SELECT to_regclass('drizzle.__drizzle_migrations') IS NOT NULL AS there`);
  if (there.rows[0].there) {
    const { rows } = await pool.query('SELECT count(*)::int AS n FROM drizzle.__drizzle_migrations');
    if (rows[0].n > known)
      throw new Error(
        `The database was made by a newer version of Ledgerline (schema ${rows[0].n}, this one knows ${known}). Start that version, or point LEDGERLINE_DATA at another folder.`,
      );
  }
  await runMigrations(db, { migrationsFolder: folder });
}

/** The constraint that refused a write, for turning into a sentence. */
export function refusedBy(error: unknown): string | null {
  for (let e: unknown = error; e instanceof Error; e = e.cause)
    if ('constraint' in e && typeof e.constraint === 'string') return e.constraint;
  return null;
}
