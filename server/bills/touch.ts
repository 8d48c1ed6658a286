import { eq, sql } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { bill } from '../db/schema/index.ts';

/** Raises a bill's version, so that whoever has it before them sees that something about it is new. */
export const touch = (tx: Executor, id: string) =>
  tx
    .update(bill)
    .set({ rowVersion: sql`${bill.rowVersion}` })
    .where(eq(bill.id, id));
