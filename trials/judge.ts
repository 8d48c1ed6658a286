import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import type { HandedIn } from './actors.ts';
import type { Machines } from './machines.ts';

/** Waits until nothing is left to be taken in, taken apart or read; throws where it takes too long. */
export async function settled({ database, scanFolder }: Machines, minutes = 5): Promise<void> {
  const until = Date.now() + minutes * 60_000;
  let left = '';
  while (Date.now() < until) {
    left = await leftOver(database.ownerUrl, scanFolder).catch((error: Error) => error.message);
    if (left === '') return;
    await wait(500);
  }
  throw new Error(`Something is left lying after ${minutes} minutes: ${left}`);
}
async function leftOver(url: string, scanFolder: string): Promise<string> {
  const scans = (await readdir(join(scanFolder, 'mbg')).catch(() => [])).filter((n) => n !== 'done');
  const rows = await asked(
    url,
    `select 'documents ' || state as what, count(*)::int as n from document where state in ('waiting', 'reading') group by 1
     union all select 'messages', count(*)::int from arrival where state = 'opening' having count(*) > 0`,
  );
  return [...rows.map((r) => `${r.n} ${r.what}`), ...(scans.length ? [`${scans.length} scans`] : [])].join(', ');
}
async function asked(url: string, text: string, ...values: unknown[]): Promise<pg.QueryResult['rows']> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return (await client.query(text, values)).rows;
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** What is wrong, in a line each, and what was counted. */
export async function judge({ database }: Machines, handed: HandedIn): Promise<{ wrong: string[]; counts: Record<string, number> }> {
  const rows = (text: string, ...values: unknown[]) => asked(database.ownerUrl, text, ...values);
  const wrong: string[] = [];
  const none = async (what: string, text: string, ...values: unknown[]) => {
    for (const row of (await rows(text, ...values)).slice(0, 5)) wrong.push(`${what}: ${JSON.stringify(row)}`);
  };
  const kept = new Set((await rows('select sha256 from file')).map((r) => r.sha256 as string));
  for (const [address, what] of handed.originals) if (!kept.has(address)) wrong.push(`an original is not there: ${what}`);
  await none('an original is not what it was', `select sha256 from file where encode(sha256(bytes), 'hex') <> sha256`);
  await none('a message without its original', `select id from arrival where channel = 'email' and file_sha256 is null`);
  await none(
    'an invoice is no bill, or two',
    `select n.number, count(b.id) from unnest($1::text[]) n (number) left join bill b on b.invoice_number = n.number and b.stage <> 'discarded' group by 1 having count(b.id) <> 1`,
    handed.invoices,
  );
  await none(
    'a document with two bills',
    `select document_id, count(*) from bill where document_id is not null group by 1 having count(*) > 1`,
  );
  await none(
    'a document was read more than once',
    `select subject_id, count(*) from event where subject_type = 'bill' and verb = 'read' group by 1 having count(*) > 1`,
  );
  await none(
    'a document that says nothing of what became of it',
    `select id, state from document where state in ('waiting', 'reading') or (state = 'unreadable' and note is null)`,
  );
  await none('a document could not be read', `select name, note from document where state = 'unreadable'`);
  await none(
    'an entry that does not balance',
    `select entry_id, sum(debit - credit) from journal_line group by 1 having sum(debit - credit) <> 0 or count(*) < 2`,
  );
  await none(
    'a posted bill without its entry',
    `select b.id from bill b where b.stage in ('posted', 'paid') and (select count(*) from journal_entry e where e.source_id = b.id) <> 1`,
  );
  await none(
    'an entry without its posted bill',
    `select e.id from journal_entry e left join bill b on b.id = e.source_id where b.stage is distinct from 'posted'`,
  );
  await none(
    'an entry without its item',
    `select e.id from journal_entry e where not exists (select 1 from open_item o where o.entry_id = e.id)`,
  );
  await none(
    'a gap in the numbers',
    `select company_id, year, max(number), count(*) from journal_entry group by 1, 2 having max(number) <> count(*) or min(number) <> 1`,
  );
  await none('a sum that is off', 'select * from sums_off()');
  for (const { id } of [...(await rows('select id from company')), { id: null }])
    await none(
      'a chain of events that is broken',
      'select event_chain_break($1::uuid) as at where event_chain_break($1::uuid) is not null',
      id,
    );
  for (const [key, answers] of handed.postings)
    if (answers.size > 1) wrong.push(`a posting request was answered twice and differently: ${key}`);
  const [counts] = await rows(
    `select (select count(*)::int from file) as originals, (select count(*)::int from document) as documents, (select count(*)::int from bill) as bills,
       (select count(*)::int from journal_entry) as entries, (select count(*)::int from event) as events, (select count(*)::int from document where state = 'duplicate') as "came twice"`,
  );
  return { wrong, counts };
}
