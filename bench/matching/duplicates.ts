import { join } from 'node:path';
import { v7 } from 'uuid';
import pg from 'pg';
// @ts-expect-error plain JavaScript
import { startDatabase } from '../../scripts/database.mjs';
import { writeMaster } from '../../demo/load.ts';
import { alikeTo } from '../../server/bills/alike.ts';
import { lookFacts } from '../../server/bills/looks.ts';
import { twinOf, type BillRecord } from '../../server/bills/store.ts';
import { connect } from '../../server/db/client.ts';
import { prepareDatabase, roleOf } from '../../server/db/prepare.ts';
import { bill } from '../../server/db/schema/index.ts';
import { transaction } from '../../server/events/record.ts';
import { generate, isMade } from '../scale/generate.ts';
import { sql } from 'drizzle-orm';

interface Cluster {
  url: string;
  ownerUrl: string;
  stop(): Promise<void>;
}
/** Keys of a page; one of ten is that of other pages of its supplier. */
const keysEach = 20;

/** A company of so many bills, each with the look of its page; made once and kept in the folder. */
async function made(cluster: Cluster, bills: number, say: (line: string) => void): Promise<void> {
  await prepareDatabase(cluster.ownerUrl, roleOf(cluster.url));
  const wish = { bills, suppliers: Math.max(50, Math.round(bills / 100)), linesEach: 1, bare: true };
  if (await isMade(cluster.ownerUrl, wish)) return;
  const owner = connect(cluster.ownerUrl, { statementSeconds: 0 });
  await transaction(owner.db, async (tx) => void (await writeMaster(tx, new Date().toISOString().slice(0, 10))));
  await owner.close();
  await generate(cluster.ownerUrl, wish, say);
  const client = new pg.Client({ connectionString: cluster.ownerUrl });
  await client.connect();
  await client.query(`set session_replication_role = replica; set maintenance_work_mem = '1GB'; drop index document_look_keys;
    insert into document_look select b.id,
      array(select case when random() < 0.1 then hashtext(b.supplier_id::text || k) else (random() * 4294967295 - 2147483648)::int end from generate_series(1, ${keysEach}) k), array[1]
      from bill b;
    create index document_look_keys on document_look using gin (keys)`);
  await client.query('vacuum (analyze)');
  await client.end();
}

/**
 * How long it takes among so many bills to see whether one is there already: by its number, by one alike, under another supplier or company,
 * by its paper. Half of what is asked is there with a zero more in its number. Milliseconds a bill, 95 in a hundred and the longest.
 */
export async function duplicatesAmong(
  bills: number,
  folder: string,
  say: (line: string) => void,
): Promise<{ p95: number; most: number; found: number; planted: number; asked: number }> {
  const cluster = (await startDatabase(join(folder, 'database'))) as Cluster;
  try {
    await made(cluster, bills, say);
    const { db, close } = connect(cluster.url);
    try {
      const some = await db
        .select()
        .from(bill)
        .where(sql`stage in ('posted', 'paid') and random() < ${400 / bills}`)
        .limit(200);
      const largest = await db
        .select()
        .from(bill)
        .where(sql`supplier_id = (select supplier_id from supplier_bills order by bills desc limit 1) and stage = 'paid'`)
        .limit(50);
      const took: number[] = [];
      let found = 0,
        planted = 0;
      const ask = async (one: BillRecord, again: boolean) => {
        const began = performance.now();
        const facts = { twin: await twinOf(db, one), ...(await alikeTo(db, one)), ...(await lookFacts(db, one)) };
        took.push(performance.now() - began);
        if (again) planted++;
        if (again && facts.alike) found++;
      };
      for (const [i, own] of [...some, ...largest].entries()) {
        const again = i % 2 === 0;
        // A number that is like none: nothing is found, and everything is looked at.
        const number = again ? `${own.invoiceNumber}0` : `ZQ-${7_000_000 + i}`;
        await ask({ ...own, id: v7(), invoiceNumber: number }, again);
      }
      took.sort((a, b) => a - b);
      return { p95: took[Math.floor(took.length * 0.95)]!, most: took.at(-1)!, found, planted, asked: took.length };
    } finally {
      await close();
    }
  } finally {
    await cluster.stop();
  }
}
