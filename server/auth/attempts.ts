import { createHash } from 'node:crypto';
import { inArray, sql } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { attempt } from '../db/schema/index.ts';

/** Something that is counted: what, of whom, and how often it may be tried in a stretch of time. */
export interface Counted {
  key: string;
  most: number;
}
export const stretchMinutes = 10;

const keyOf = (kind: string, ...of: string[]): string => `${kind}:${createHash('sha256').update(of.join('\n')).digest('hex').slice(0, 40)}`;

/**
 * What a sign-in is counted under, before anything is looked up, so that it tells nothing about whether a person exists. A browser in
 * which this person has signed in before counts by itself; all others count for the person and the address together, for the address,
 * and for the person, so that many addresses guess no faster. A stranger can use up the last one: whoever has signed in here before
 * is not touched by it.
 */
export const countsOf = (email: string, address: string, deviceHash: string | null): Counted[] =>
  deviceHash
    ? [{ key: keyOf('device', deviceHash, email), most: 10 }]
    : [
        { key: keyOf('pair', email, address), most: 10 },
        { key: keyOf('address', address), most: 40 },
        { key: keyOf('person', email), most: 40 },
      ];

export const refusals = (personId: string): Counted[] => [{ key: keyOf('refused', personId), most: 30 }];

/** Counts a try under each key at once, in one statement, and gives by how many the tightest limit is passed: 0 or less may go on. */
export async function countTry(db: Executor, counted: Counted[], now: Date): Promise<number> {
  const oldest = new Date(now.getTime() - stretchMinutes * 60_000);
  const fresh = sql`${attempt.since} < ${oldest.toISOString()}::timestamptz`;
  const rows = await db
    .insert(attempt)
    // In a fixed order: two tries at once never wait for each other crosswise.
    .values([...counted].sort((a, b) => a.key.localeCompare(b.key)).map(({ key }) => ({ key, since: now, n: 1 })))
    .onConflictDoUpdate({
      target: attempt.key,
      set: {
        n: sql`case when ${fresh} then 1 else ${attempt.n} + 1 end`,
        since: sql`case when ${fresh} then excluded.since else ${attempt.since} end`,
      },
    })
    .returning({ key: attempt.key, n: attempt.n });
  return Math.max(...rows.map(({ key, n }) => n - counted.find((c) => c.key === key)!.most));
}

/** A try that succeeded: the person's own counts begin anew, an address gets back the one. */
export async function forgiveTry(db: Executor, counted: Counted[]): Promise<void> {
  const own = counted.filter((c) => !c.key.startsWith('address:')).map((c) => c.key);
  const address = counted.filter((c) => c.key.startsWith('address:')).map((c) => c.key);
  await db.delete(attempt).where(inArray(attempt.key, own));
  if (address.length)
    await db
      .update(attempt)
      .set({ n: sql`greatest(0, ${attempt.n} - 1)` })
      .where(inArray(attempt.key, address));
}

/** Counts that are over go. */
export async function sweepTries(db: Executor, now: Date): Promise<void> {
  await db.delete(attempt).where(sql`${attempt.since} < ${new Date(now.getTime() - 86_400_000).toISOString()}::timestamptz`);
}
