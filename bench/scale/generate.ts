import pg from 'pg';

/** How much is made: bills over five years in three companies, with lines, entries, items, exceptions and history. */
export interface Wish {
  bills: number;
  suppliers: number;
  linesEach: number;
  /** Bills alone, each of a document with its own id: no lines, entries, exceptions or history. */ bare?: boolean;
}

/** Made-up words that suppliers are called by; each stands in some of the names. */
const words =
  'Quillhaven Mossgarth Sluicegate Hollin Rook Cinderwick Loambury Brackwater Otterlea Cornice Ribbon Reed Pondside Tansy Alder Bramble Copse Dale Elder Fennel Gorse Heath Ivy Juniper Kestrel Larch Marl Nettle Oak Poplar Quarry Rowan Sedge Thorn Umber Vale Willow Yarrow Zephyr Ash Birch Clover Drift Ember Flint Grove Harrow Inlet Jay Knoll Linden Meadow Noble Orchard Pebble Quartz Ridge Stone Thistle Upland Vine Wharf Yew'.split(
    ' ',
  );
const trades =
  'Glass,Media,Irrigation,Signs,Heating,Soil,Timber,Electric,Architects,Printers,Sculpture,Seeds,Carriage,Cleaning,Paper,Tools,Water,Paving,Fencing,Lighting'.split(
    ',',
  );
const forms = ['Ltd', 'Limited', 'LLP', '& Sons', '& Daughters', 'Partners', 'Company', 'Works', 'Supplies', 'Trading'];

const list = (of: string[]): string => `ARRAY[${of.map((w) => `'${w}'`).join(',')}]`;

/** So many of the newest bills are not posted yet. */
const waiting = 2600;

/** A time-ordered id (UUID version 7) of a moment, as SQL. */
const idAt = (moment: string): string =>
  `(lpad(to_hex((extract(epoch from ${moment}) * 1000)::bigint), 12, '0') || '7' || substr(md5(random()::text), 1, 3) || '8' || substr(md5(random()::text), 1, 15))::uuid`;

/** Whether so many bills are there already. */
export async function isMade(ownerUrl: string, { bills }: Wish): Promise<boolean> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  const { rows } = await client.query('select count(*)::int as n from bill');
  await client.end();
  return rows[0].n >= bills;
}

/** Fills a database that has the demo's master data. Triggers are left out, and what they keep is computed at the end; `sums_off()` judges that. */
export async function generate(ownerUrl: string, wish: Wish, tell: (what: string) => void): Promise<void> {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    await fill(client, wish, tell);
  } finally {
    await client.end();
  }
}

async function fill(client: pg.Client, wish: Wish, tell: (what: string) => void): Promise<void> {
  const run = async (what: string, text: string) => {
    const began = Date.now();
    await client.query(text);
    tell(`${what}: ${((Date.now() - began) / 1000).toFixed(0)} s`);
  };
  await client.query(
    `set session_replication_role = replica; set maintenance_work_mem = '1GB'; set work_mem = '256MB'; set synchronous_commit = off; select setseed(0.42)`,
  );
  const large = ['bill', 'bill_line', 'journal_entry', 'journal_line', 'open_item', 'event'];
  const { rows: indexes } = await client.query(
    `select i.indexrelid::regclass as name, pg_get_indexdef(i.indexrelid) as def from pg_index i
     where i.indrelid = any($1::regclass[]) and not exists (select 1 from pg_constraint c where c.conindid = i.indexrelid)`,
    [large],
  );
  for (const { name } of indexes) await client.query(`drop index ${name}`);
  await run(
    'suppliers',
    `insert into supplier (id, company_id, code, name, tax_id, currency, account_id, cost_centre_id, tax_code_id)
     select gen_random_uuid(), c.id, 'X' || n, (${list(words)})[1 + (n * 7919) % ${words.length}] || ' ' || (${list(trades)})[1 + (n * 104729) % ${trades.length}] || ' ' || n || ' ' || (${list(forms)})[1 + n % ${forms.length}],
       'GB' || lpad(n::text, 9, '0'), c.base_currency, a.id, k.id, t.id
     from generate_series(1, ${wish.suppliers}) n
     join lateral (select * from company order by code offset case when n % 10 < 6 then 1 when n % 10 < 9 then 2 else 0 end limit 1) c on true
     join lateral (select id from ledger_account where company_id = c.id and kind = 'expense' order by code offset n % 8 limit 1) a on true
     join lateral (select id from cost_centre where company_id = c.id order by code offset n % 3 limit 1) k on true
     join lateral (select id from tax_code where company_id = c.id and rate > 0 and not reverse_charge order by code limit 1) t on true`,
  );
  await run(
    'accounts',
    `insert into ledger_account (id, company_id, code, name, group_name, kind, needs_cost_centre)
     select gen_random_uuid(), c.id, 'C' || n, (${list(trades)})[1 + n % ${trades.length}] || ' ' || (${list(words)})[1 + (n * 7919) % ${words.length}] || ' ' || n, 'Made up', 'expense', false
     from generate_series(1, 50000) n, (select id from company where code = 'MBG') c`,
  );
  await client.query(
    `create temp table sender as select row_number() over (order by md5(id::text)) as at, id as supplier_id, company_id, name, currency as own_currency, account_id, cost_centre_id, tax_code_id
     from supplier where code like 'X%'; create index on sender (at); analyze sender`,
  );
  // Few suppliers send much, many send little; what is not paid yet is the newest.
  await run(
    'a plan',
    `create temp table plan as
     select q.*, ${idAt('q.came')} as bill_id, ${idAt("q.came + interval '3 days'")} as entry_id, (q.came + interval '3 days')::date as entry_date,
       row_number() over (partition by q.company_id, extract(year from q.came + interval '3 days'), q.stage in ('posted', 'paid') order by q.n)::int
         + coalesce((select max(e.number) from journal_entry e where e.company_id = q.company_id and e.year = extract(year from q.came + interval '3 days')), 0) as number
     from (select p.n, p.came, s.*, round((100 + p.r2 * 900)::numeric, 2) * ${wish.linesEach} as net,
       case when p.r3 > 0.97 then 'credit-note' else 'invoice' end as kind,
       case when p.r1 < 0.01 then 'discarded' when p.n > ${wish.bills} - ${waiting} then (array['read', 'read', 'coded', 'approved', 'returned'])[1 + p.n % 5]
            when p.n > ${wish.bills} * 0.94 or p.r3 > 0.97 then 'posted' else 'paid' end as stage,
       case when p.r2 < 0.003 then 'CHF' when p.r2 < 0.06 then 'EUR' else s.own_currency end as currency
     from (select n, now() - interval '1825 days' + interval '1821 days' * n / ${wish.bills} as came, random() as r1, random() as r2, random() as r3, random() as r4 from generate_series(1, ${wish.bills}) n) p
     join sender s on s.at = 1 + floor(${wish.suppliers} * power(p.r4, 2.5))::int) q`,
  );
  await client.query('create index on plan (bill_id); analyze plan');
  await run(
    'bills',
    `insert into bill (id, document_id, company_id, stage, kind, supplier_id, invoice_number, issue_date, due_date, currency, purchase_order, net, tax, gross, created_at, sent_by, sent_at, approved_by, approved_at, posted_at)
     select bill_id, ${wish.bare ? 'bill_id' : 'null'}, company_id, stage, kind, supplier_id, upper(substr(md5(name), 1, 3)) || '-' || (200000 + n), came::date, came::date + 30, currency,
       case when n % 3 = 0 then 'PO-' || (500000 + n) end, net, round(net * 0.2, 2), net + round(net * 0.2, 2), came,
       case when stage not in ('read', 'discarded') then c.id end, case when stage not in ('read', 'discarded') then came end,
       case when stage in ('approved', 'posted', 'paid') then a.id end, case when stage in ('approved', 'posted', 'paid') then came end,
       case when stage in ('posted', 'paid') then came + interval '3 days' end
     from plan, (select id from person where name = 'Ines Okafor') c, (select id from person where name = 'Marguerite Sable') a order by n`,
  );
  if (!wish.bare) await around(run, wish);
  await run('indexes', indexes.map(({ def }) => def as string).join('; '));
  await run(
    'sums',
    `truncate supplier_owed, company_owed, supplier_bills, period_entries;
     insert into period_entries select company_id, year, month, count(*) from journal_entry group by 1, 2, 3;
     insert into supplier_owed select supplier_id, currency, sum(amount - settled), count(*) filter (where amount <> settled) from open_item group by 1, 2;
     insert into company_owed select company_id, amount < 0, coalesce(due_date, '9999-12-31'), sum(open_base(base_amount, amount, settled)), count(*) filter (where amount <> settled) from open_item group by 1, 2, 3;
     insert into supplier_bills select supplier_id, count(*) from bill where supplier_id is not null and stage <> 'discarded' group by 1`,
  );
  await run('statistics', 'vacuum (analyze)');
}

/** All that hangs on bills: their lines, entries, items, exceptions and history. */
async function around(run: (what: string, text: string) => Promise<void>, wish: Wish): Promise<void> {
  await run(
    'lines of bills',
    `insert into bill_line (id, company_id, bill_id, position, description, quantity, unit_price, amount, tax_rate, account_id, cost_centre_id, tax_code_id)
     select gen_random_uuid(), company_id, bill_id, k - 1, 'Item ' || (n * 7 + k) % 5000, 1, net / ${wish.linesEach}, net / ${wish.linesEach}, 20, account_id, cost_centre_id, tax_code_id
     from plan, generate_series(1, ${wish.linesEach}) k order by n, k`,
  );
  await run(
    'entries',
    `insert into journal_entry (id, company_id, number, year, month, entry_date, source_type, source_id, description, currency, rate, posted_by, posted_at, written_in)
     select entry_id, p.company_id, p.number,
       extract(year from entry_date), extract(month from entry_date), entry_date, 'bill', bill_id,
       name || ' ' || case kind when 'credit-note' then 'credit note ' else 'invoice ' end || upper(substr(md5(name), 1, 3)) || '-' || (200000 + n), currency, 1, h.id, came + interval '3 days', 1
     from plan p, (select id from person where name = 'Halina Voss') h where stage in ('posted', 'paid') order by n`,
  );
  const credit = `case kind when 'credit-note' then -1 else 1 end`;
  const line = (position: string, account: string, more: string, amount: string) =>
    `select gen_random_uuid(), company_id, entry_id, ${position}, ${account}, ${more}, greatest(${amount}, 0), greatest(-(${amount}), 0), ${amount}, extract(year from entry_date), number`;
  await run(
    'lines of entries',
    `insert into journal_line (id, company_id, entry_id, position, account_id, cost_centre_id, tax_code_id, supplier_id, description, debit, credit, currency_amount, entry_year, entry_number)
     ${line('k - 1', 'account_id', `cost_centre_id, tax_code_id, null::uuid, 'Item'`, `${credit} * net / ${wish.linesEach}`)} from plan, generate_series(1, ${wish.linesEach}) k where stage in ('posted', 'paid')
     union all ${line(String(wish.linesEach), `(select a.id from ledger_account a where a.company_id = plan.company_id and a.kind = 'tax' limit 1)`, `null::uuid, tax_code_id, null::uuid, 'Tax'`, `${credit} * round(net * 0.2, 2)`)} from plan where stage in ('posted', 'paid')
     union all ${line(String(wish.linesEach + 1), `(select a.id from ledger_account a where a.company_id = plan.company_id and a.kind = 'payable' limit 1)`, `null::uuid, null::uuid, supplier_id, name`, `-${credit} * (net + round(net * 0.2, 2))`)} from plan where stage in ('posted', 'paid')`,
  );
  await run(
    'items',
    `insert into open_item (id, company_id, supplier_id, source_type, source_id, entry_id, due_date, currency, amount, base_amount, settled, entry_date)
     select ${idAt("came + interval '3 days'")}, company_id, supplier_id, 'bill', bill_id, entry_id, came::date + 30, currency, ${credit} * (net + round(net * 0.2, 2)), ${credit} * (net + round(net * 0.2, 2)),
       case stage when 'paid' then ${credit} * (net + round(net * 0.2, 2)) else 0 end, entry_date from plan where stage in ('posted', 'paid')`,
  );
  await run(
    'exceptions',
    `insert into bill_exception (id, company_id, bill_id, code, path, sentence, severity, opened_at)
     select gen_random_uuid(), company_id, bill_id, (array['proof-off', 'account-missing', 'duplicate', 'due-early'])[1 + n % 4], 'gross', 'Made up for measuring.', case when n % 2 = 0 then 'stops' else 'asks' end, came
     from plan where stage in ('read', 'returned')`,
  );
  // Numbers go on from the demo's; hashes are left out, so that the chain of this database is not whole.
  await run(
    'history',
    `insert into event (id, company_id, seq, subject_type, subject_id, verb, person_id, source, at, previous, hash)
     select gen_random_uuid(), p.company_id, 1000000 + row_number() over (partition by p.company_id order by n, k), 'bill', bill_id, (array['read', 'coded', 'posted'])[k], null, 'reader', came + k * interval '1 day', '', 'x'
     from plan p, generate_series(1, 3) k where k = 1 or stage in ('posted', 'paid') order by n, k`,
  );
}
