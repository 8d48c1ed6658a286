import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { ImportValues, ListSpec, Named } from '@ledgerline/core/imports';
import type { ListedTerms } from '@ledgerline/core/terms';
import type { Executor } from '../../db/client.ts';

/** A row of a list as an import sees it: every field of the list's spec by its key. */
export interface Current {
  id: string;
  values: ImportValues;
  /** Of a supplier: every account that counts or waits. */ ibans?: readonly string[];
}
/** Ids of what cells may name, by code or mail address in lower case. */
export type Ids = Partial<Record<Named | 'order-line' | 'receipt-day', ReadonlyMap<string, string>>>;
/** A row to be written: made anew, or in place of the one with this id. */
export interface Written extends Current {
  /** What it had before; null for a new one. */ before: ImportValues | null;
}

export interface Writer {
  spec: ListSpec;
  /** Where its rows are kept. */ table: PgTable & { companyId: PgColumn };
  /** What the event log calls such a row, and what it says of one that has no id. */
  subject: string;
  noted?(values: ImportValues): string;
  /** What a new row has where the file says nothing. */
  fresh(values: ImportValues): ImportValues;
  /** Values as they are kept: without spaces, in lower case; nothing new where it is there already. */
  tidy?(values: ImportValues, own: Current | null, ids: Ids): ImportValues;
  /** What else than the change itself stands in the event log. */
  acts?(row: Written): { verb: string; note: string | null; after: Record<string, unknown> }[];
  /** All rows of the company by `keyOf`. */
  current(tx: Executor, companyId: string): Promise<Map<string, Current>>;
  ids(tx: Executor, companyId: string): Promise<Ids>;
  /** Payment terms that cells may name. */
  terms?(tx: Executor, companyId: string): Promise<ListedTerms[]>;
  /** What else speaks against a row, or asks for a look at it. */
  doubts?(
    values: ImportValues,
    others: ReadonlyMap<string, Current>,
    own: Current | null,
    ids: Ids,
  ): { severity: 'error' | 'warning'; sentence: string }[];
  /** Writes rows: at most a few hundred at once. */
  put(tx: Executor, companyId: string, rows: readonly Written[], ids: Ids, by: { personId: string; at: Date; file: string }): Promise<void>;
  /** Orders whose bills new or changed rows concern; those that waited for goods come back. */
  orders?(tx: Executor, companyId: string, rows: readonly Written[]): Promise<string[]>;
  /** Once all rows are there: what one says of another of the same list. */
  join?(tx: Executor, companyId: string, rows: readonly Written[], ids: Ids): Promise<void>;
}

export const text = (value: unknown): string | null => (typeof value === 'string' ? value : null);
export const flag = (value: unknown): boolean => value === true;
export const idOf = (ids: Ids, of: keyof Ids, value: unknown): string | null =>
  typeof value === 'string' ? (ids[of]?.get(value.toLowerCase()) ?? null) : null;
