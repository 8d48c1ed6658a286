import { eq, inArray } from 'drizzle-orm';
import { v7 } from 'uuid';
import { meOf } from '../../server/auth/people.ts';
import { connect } from '../../server/db/client.ts';
import { bill, billLine, event, journalEntry, journalLine, openItem, person } from '../../server/db/schema/index.ts';
import { doorOf } from '../../server/http/door.ts';
import { postBills } from '../../server/ledger/posting.ts';
import { Live } from '../../server/live/live.ts';
import type { Services } from '../../server/services.ts';

const atOnce = 500;
const seconds = async (work: () => Promise<void>): Promise<number> => {
  const began = performance.now();
  await work();
  return (performance.now() - began) / 1000;
};
const inParts = <T>(rows: T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(rows.length / size) }, (_, i) => rows.slice(i * size, (i + 1) * size));

/**
 * Posts approved bills through the real use case, five hundred at a time, and inserts the same rows into copies of the tables with the
 * same columns, indexes and checks but without what makes them books (triggers, keys to other tables, numbers, hashes).
 */
export async function postingRatio(
  { url, ownerUrl }: { url: string; ownerUrl: string },
  count: number,
  tell: (line: string) => void,
): Promise<{ ratio: number; posted: number; plain: number }> {
  const owner = connect(ownerUrl, { statementSeconds: 0 }),
    database = connect(url, { statementSeconds: 0 });
  const now = new Date();
  const services = { database, live: new Live(), door: doorOf(), now: () => now } as unknown as Services;
  const me = (await meOf(database.db, eq(person.name, 'Halina Voss')))!;
  const company = me.companies.find((c) => c.code === 'MBG')!;
  const { rows: made } = await owner.pool.query(
    `select p.id as supplier_id, p.account_id, p.cost_centre_id, p.tax_code_id, c.id as clerk, a.id as approver from supplier p, person c, person a
     where p.company_id = $1 and p.code like 'X%' and c.name = 'Ines Okafor' and a.name = 'Marguerite Sable' limit 200`,
    [company.id],
  );
  const bills = Array.from({ length: count }, (_, i) => {
    const s = made[i % made.length];
    return {
      id: v7(),
      companyId: company.id,
      stage: 'approved',
      kind: 'invoice',
      supplierId: s.supplier_id,
      invoiceNumber: `B${now.getTime()}-${i}`,
      issueDate: now.toISOString().slice(0, 10),
      dueDate: now.toISOString().slice(0, 10),
      currency: company.baseCurrency,
      net: '500.00',
      tax: '100.00',
      gross: '600.00',
      sentBy: s.clerk,
      approvedBy: s.approver,
      coding: { accountId: s.account_id, costCentreId: s.cost_centre_id, taxCodeId: s.tax_code_id },
    };
  });
  // Made as they would stand there, past the triggers: only posting is measured.
  await owner.db.transaction(async (tx) => {
    await tx.execute('set local session_replication_role = replica');
    for (const part of inParts(bills, 1000)) {
      await tx.insert(bill).values(part.map(({ coding: _, ...row }) => row));
      await tx.insert(billLine).values(
        part.flatMap((b) =>
          Array.from({ length: 5 }, (_, position) => ({
            companyId: b.companyId,
            billId: b.id,
            position,
            description: `Line ${position}`,
            amount: '100.00',
            ...b.coding,
          })),
        ),
      );
    }
  });
  await owner.pool.query('analyze bill, bill_line');
  const caller = { me, company, source: 'bench' };
  const posted = await seconds(async () => {
    for (const [i, part] of inParts(bills, atOnce).entries())
      await postBills.perform(services, caller, {}, { key: `bench-${now.getTime()}-${i}`, billIds: part.map((b) => b.id) });
  });
  tell(`posted ${count} bills`);
  const all: Rows = {
    entries: await owner.db.select().from(journalEntry).where(eq(journalEntry.postedAt, now)),
    lines: [],
    items: [],
    events: await owner.db.select().from(event).where(eq(event.at, now)),
  };
  for (const part of inParts(all.entries, 1000)) {
    const ids = part.map((e) => e.id);
    all.lines.push(...(await owner.db.select().from(journalLine).where(inArray(journalLine.entryId, ids))));
    all.items.push(...(await owner.db.select().from(openItem).where(inArray(openItem.entryId, ids))));
  }
  const plain = await plainly(ownerUrl, all);
  await owner.close();
  await database.close();
  return { ratio: posted / plain, posted, plain };
}

interface Rows {
  entries: (typeof journalEntry.$inferSelect)[];
  lines: (typeof journalLine.$inferSelect)[];
  items: (typeof openItem.$inferSelect)[];
  events: (typeof event.$inferSelect)[];
}

/** The same rows into bare tables, as many a transaction as posting took. */
async function plainly(ownerUrl: string, { entries, lines, items, events }: Rows): Promise<number> {
  const owner = connect(`${ownerUrl}?options=-csearch_path%3Dbare`, { statementSeconds: 0 });
  await owner.pool.query('drop schema if exists bare cascade; create schema bare');
  for (const table of ['journal_entry', 'journal_line', 'open_item', 'event'])
    await owner.pool.query(`create table bare.${table} (like public.${table} including all)`);
  const linesOf = new Map<string, typeof lines>(entries.map((e) => [e.id, []]));
  for (const line of lines) linesOf.get(line.entryId)!.push(line);
  const itemOf = new Map(items.map((i) => [i.entryId, i]));
  const took = await seconds(async () => {
    for (const [i, part] of inParts(entries, atOnce).entries())
      await owner.db.transaction(async (tx) => {
        await tx.insert(journalEntry).values(part.map(({ billId: _, ...row }) => row));
        for (const some of inParts(
          part.flatMap((e) => linesOf.get(e.id)!),
          2000,
        ))
          await tx.insert(journalLine).values(some);
        await tx.insert(openItem).values(part.map((e) => itemOf.get(e.id)!).map(({ billId: _, isOpen: __, ...row }) => row));
        await tx.insert(event).values(events.slice(i * atOnce * 2, (i + 1) * atOnce * 2));
      });
  });
  await owner.pool.query('drop schema bare cascade');
  await owner.close();
  return took;
}
