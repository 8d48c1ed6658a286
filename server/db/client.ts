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

/** No statement of the application may take longer; nor may a transaction wait so long for its next one. */
const limits = { statementSeconds: 30, idleSeconds: 120 };

export function connect(url: string, { statementSeconds = limits.statementSeconds, most = 20 } = {}): Database {
  const pool = new pg.Pool({
    connectionString: url,
    max: most,
    keepAlive: true,
    connectionTimeoutMillis: 20_000,
    statement_timeout: statementSeconds * 1000,
    idle_in_transaction_session_timeout: limits.idleSeconds * 1000,
    application_name: 'ledgerline',
  });
  pool.on('error', (error) => void logError('a database connection', error));
  return { db: drizzle(pool, { schema }), pool, url, close: () => pool.end() };
}

/** Reads several things as they stood at one moment. */
export const snapshot = <T>(db: Db, work: (tx: Executor) => Promise<T>): Promise<T> =>
  db.transaction(work, { isolationLevel: 'repeatable read', accessMode: 'read only' });

/** Brings the schema up to date. Throws when the database is newer than this version of Ledgerline. */
export async function migrate({ db, pool }: Database): Promise<void> {
  const folder = fileURLToPath(new URL('./migrations', import.meta.url));
  const known = await knownVersion();
  const there = await versionOf(pool);
  if (there > known)
    throw new Unready(
      `The database was made by a newer version of Ledgerline (schema ${there}, this one knows ${known}). Start that version, or point LEDGERLINE_DATA at another folder.`,
    );
  await runMigrations(db, { migrationsFolder: folder });
}

const knownVersion = async (): Promise<number> =>
  (await import('./migrations/meta/_journal.json', { with: { type: 'json' } })).default.entries.length;

async function versionOf(pool: pg.Pool): Promise<number> {
  const { rows } = await pool.query(`SELECT to_regclass('drizzle.__drizzle_migrations') IS NOT NULL AS there`);
  return rows[0].there ? (await pool.query('SELECT count(*)::int AS n FROM drizzle.__drizzle_migrations')).rows[0].n : 0;
}

/** A reason not to start that whoever runs Ledgerline can act on. */
export class Unready extends Error {}

/** Throws where the structure is not that of this version. */
export async function checkVersion({ pool }: Database): Promise<void> {
  const known = await knownVersion(),
    there = await versionOf(pool);
  if (there !== known)
    throw new Unready(
      `The database has schema ${there}, this version of Ledgerline needs ${known}. Bring it up to date as its owner: DATABASE_OWNER_URL=… npx ledgerline prepare.`,
    );
}

/** The constraint that refused a write, for turning into a sentence. */
export function refusedBy(error: unknown): string | null {
  for (let e: unknown = error; e instanceof Error; e = e.cause)
    if ('constraint' in e && typeof e.constraint === 'string') return e.constraint;
  return null;
}
