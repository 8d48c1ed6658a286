import type pg from 'pg';

/** Tables to which the application only adds: nobody who gets in through it changes or removes what stands there. */
const onlyAdded = [
  'accrual',
  'accrual_line',
  'bill_note',
  'event',
  'file',
  'goods_receipt',
  'item_receipt',
  'journal_entry',
  'journal_line',
  'journal_tax',
  'posting_request',
  'receipt_line',
];

const name = (identifier: string): string => `"${identifier.replace(/"/g, '""')}"`;

/**
 * What the application's role may do: read and write rows, never change the structure, and only add where things are only added. Called by
 * the owner after every change of the structure.
 */
export async function grantTo(owner: pg.Pool | pg.Client, role: string): Promise<void> {
  const to = name(role);
  await owner.query(`
    GRANT USAGE ON SCHEMA public, drizzle, pgboss TO ${to};
    GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public, pgboss TO ${to};
    GRANT SELECT ON ALL TABLES IN SCHEMA drizzle TO ${to};
    GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public, pgboss TO ${to};
    REVOKE UPDATE, DELETE, TRUNCATE ON ${onlyAdded.join(', ')} FROM ${to};
    REVOKE CREATE ON SCHEMA public FROM PUBLIC;
  `);
}

/** Why a role must not be the application's: it could change the structure, or the rules of it. Null where it may be. */
export async function tooMighty(pool: pg.Pool): Promise<string | null> {
  const { rows } = await pool.query<{ super: boolean; owner: boolean }>(
    `select r.rolsuper as super, exists (select 1 from pg_class c where c.relname = 'event' and c.relowner = r.oid) as owner
     from pg_roles r where r.rolname = current_user`,
  );
  if (rows[0]?.super) return 'DATABASE_URL names a superuser. Give the application a role of its own; docs/operators.md says how.';
  if (rows[0]?.owner)
    return 'DATABASE_URL names the owner of the tables. Give the application a role of its own; docs/operators.md says how.';
  return null;
}
