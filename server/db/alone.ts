import type pg from 'pg';

const lock = `hashtextextended($1, 7)`;

/**
 * Does a piece of work that nobody else does at the same time, on any machine: a lock of the database that goes with the connection when
 * its holder dies. Where somebody is at it, it is left to them (null), or waited for with `wait`.
 */
export async function alone<T>(pool: pg.Pool, key: string, work: () => Promise<T>, wait = false): Promise<T | null> {
  const client = await pool.connect();
  // A connection that breaks meanwhile is noticed by whoever asks something of it next.
  const broken = () => undefined;
  client.on('error', broken);
  let whole = true;
  try {
    // Another's work may take longer than any statement should.
    if (wait) await client.query('set statement_timeout = 0');
    const { rows } = await client.query<{ mine: boolean }>(
      wait ? `select pg_advisory_lock(${lock}) is not null as mine` : `select pg_try_advisory_lock(${lock}) as mine`,
      [key],
    );
    if (wait) await client.query('reset statement_timeout');
    if (!rows[0]!.mine) return null;
    try {
      return await work();
    } finally {
      whole = await client.query(`select pg_advisory_unlock(${lock})`, [key]).then(
        () => true,
        () => false,
      );
    }
  } finally {
    client.off('error', broken);
    client.release(!whole);
  }
}

/** Whether somebody is at a piece of work now, as SQL over an expression that is its key. */
export const isHeld = (key: string): string =>
  `exists (select 1 from pg_locks l where l.locktype = 'advisory' and l.objsubid = 1 and l.granted
     and l.database = (select oid from pg_database where datname = current_database())
     and ((l.classid::bigint << 32) | l.objid::bigint) = hashtextextended(${key}, 7))`;
