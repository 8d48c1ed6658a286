import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';

/** A database as it was before the event log, with a little of everything, brought up to date. */
const file = (name: string) => readFileSync(fileURLToPath(new URL(`./migrations/${name}.sql`, import.meta.url)), 'utf8');
const before = ['0000_tables', '0001_guarantees', '0002_documents_in_parts', '0003_pages_read_as_pictures', '0004_scan_separator'];
let client: pg.Client;
const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const rows = async (text: string, ...values: unknown[]) => (await client.query(text, values)).rows;

beforeAll(async () => {
  const url = new URL(inject('templateUrl'));
  url.pathname = '/postgres';
  const admin = new pg.Client({ connectionString: url.href });
  await admin.connect();
  await admin.query('drop database if exists t_before');
  await admin.query('create database t_before');
  await admin.end();
  url.pathname = '/t_before';
  client = new pg.Client({ connectionString: url.href });
  await client.connect();
  for (const name of before) await client.query(file(name));
  await client.query(`
    insert into company (id, code, name, country, base_currency, mail_address) values ('${id(1)}', 'A', 'Marrowby Botanic Gardens', 'GB', 'GBP', 'a@marrowby.example'), ('${id(2)}', 'B', 'Marrowby Nursery Trading Ltd', 'GB', 'GBP', 'b@marrowby.example');
    insert into person (id, name, email, password_hash) values ('${id(11)}', 'Ines Okafor', 'ines@marrowby.example', 'x'), ('${id(12)}', 'Marguerite Sable', 'marguerite@marrowby.example', 'x');
    insert into ledger_account (id, company_id, code, name, group_name, kind) values ('${id(21)}', '${id(1)}', '6000', 'Growing media', 'Costs', 'expense'), ('${id(22)}', '${id(1)}', '2100', 'Suppliers', 'Owed', 'payable'), ('${id(23)}', '${id(1)}', '1200', 'Bank', 'Bank', 'bank'), ('${id(24)}', '${id(1)}', '2200', 'Tax owed', 'Owed', 'liability');
    insert into tax_code (id, company_id, code, name, rate, reverse_charge, account_id) values ('${id(31)}', '${id(1)}', 'RC', 'Reverse charge', 20, true, '${id(24)}');
    insert into supplier (id, company_id, code, name, currency, iban) values ('${id(41)}', '${id(1)}', 'S1', 'Quillhaven', 'GBP', 'GB12XQZB00123456987654');
    insert into period (company_id, year, month) values ('${id(1)}', 2026, 11);
    insert into bill (id, company_id, stage, kind, supplier_id, invoice_number, issue_date, currency, gross, sent_by, approved_by) values ('${id(51)}', '${id(1)}', 'approved', 'invoice', '${id(41)}', 'OLD-1', '2026-11-01', 'GBP', 100, '${id(11)}', '${id(12)}');
    insert into bill_line (id, company_id, bill_id, position, description, amount) values ('${id(61)}', '${id(1)}', '${id(51)}', 0, 'Compost', 100);
    insert into bill_event (id, company_id, bill_id, what, person_id, note, at) values ('${id(71)}', '${id(1)}', '${id(51)}', 'coded', '${id(11)}', 'a note', '2026-11-02'), ('${id(72)}', '${id(1)}', '${id(51)}', 'arrived', null, null, '2026-11-01');
    insert into bill (id, company_id, stage, kind, invoice_number, currency, unsure, note) values ('${id(52)}', '${id(1)}', 'read', 'invoice', 'OLD-2', 'GBP', '["gross", "lines[1].amount", "lines[9].amount", "lines"]', 'The page is addressed to Marrowby Nursery Trading Ltd.');
    insert into bill_line (id, company_id, bill_id, position, description, amount) values ('${id(62)}', '${id(1)}', '${id(52)}', 0, 'One', 1), ('${id(63)}', '${id(1)}', '${id(52)}', 1, 'Two', 2);
    begin;
    insert into journal_entry (id, company_id, year, month, entry_date, kind, description, bill_id, currency, posted_by) values ('${id(81)}', '${id(1)}', 2026, 11, '2026-11-03', 'bill', 'OLD-1', '${id(51)}', 'GBP', '${id(12)}'), ('${id(82)}', '${id(1)}', 2026, 11, '2026-11-09', 'payment', 'Payment OLD-1', '${id(51)}', 'GBP', '${id(12)}');
    insert into journal_line (id, company_id, entry_id, position, account_id, description, debit, credit, currency_amount) select gen_random_uuid(), '${id(1)}', e, p, case when p = 0 then a else '${id(22)}' end, 'x', case when p = d then 100 else 0 end, case when p = d then 0 else 100 end, 100 from (values ('${id(81)}'::uuid, '${id(21)}'::uuid, 0), ('${id(82)}', '${id(23)}', 1)) v (e, a, d), generate_series(0, 1) p;
    insert into open_item (id, company_id, supplier_id, bill_id, entry_id, currency, amount, base_amount, settled) values ('${id(91)}', '${id(1)}', '${id(41)}', '${id(51)}', '${id(81)}', 'GBP', 100, 100, 60);
    insert into posting_request (company_id, key, bills, result) values ('${id(1)}', 'request-1', '${id(51)}', '[{"billId": "${id(51)}", "entryId": "${id(81)}", "number": 1, "year": 2026}]');
    update bill set stage = 'posted' where id = '${id(51)}';
    commit;
  `);
  await client.query('begin');
  await client.query(file('0005_one_way_to_write'));
  await client.query(file('0006_guarantees_of_writing'));
  await client.query('commit');
});
afterAll(() => client.end());

it('history becomes the event log, in order, its chain whole', async () => {
  expect(await rows('select seq::int, verb, person_id, note from event order by seq')).toEqual([
    { seq: 1, verb: 'arrived', person_id: null, note: null },
    { seq: 2, verb: 'coded', person_id: id(11), note: 'a note' },
  ]);
  expect((await rows('select event_chain_break($1) as at', id(1)))[0].at).toBe(null);
});
it('doubts are named by line, what is not there any more goes, and a note about the addressee becomes a fact', async () => {
  expect(await rows('select unsure, note, addressed_to from bill where id = $1', id(52))).toEqual([
    { unsure: expect.arrayContaining(['gross', `${id(63)}.amount`, 'lines']), note: null, addressed_to: id(2) },
  ]);
  expect((await rows('select jsonb_array_length(unsure) as n from bill where id = $1', id(52)))[0].n).toBe(3);
});
it('entries have their sources, a payment its item, and what was settled its settlement', async () => {
  expect(await rows('select source_type, source_id, bill_id from journal_entry order by number')).toEqual([
    { source_type: 'bill', source_id: id(51), bill_id: id(51) },
    { source_type: 'payment', source_id: id(82), bill_id: null },
  ]);
  expect(await rows('select source_type, amount, settled, item_settled(id) as sum from open_item order by amount')).toEqual([
    { source_type: 'payment', amount: '-60', settled: '-60', sum: '-60' },
    { source_type: 'bill', amount: '100', settled: '60', sum: '60' },
  ]);
  expect((await rows('select entry_date::text as day from posting_request'))[0].day).toBe('2026-11-03');
});
it('bank details that were there count, reverse charge has its account, and what is posted stays', async () => {
  expect(await rows('select iban, verified_at is not null as verified from bank_account')).toEqual([
    { iban: 'GB12XQZB00123456987654', verified: true },
  ]);
  expect((await rows('select output_account_id from tax_code'))[0].output_account_id).toBe(id(24));
  await expect(client.query(`update bill set gross = 1 where id = '${id(51)}'`)).rejects.toMatchObject({ constraint: 'posted_rows_stay' });
  await expect(client.query(`delete from event`)).rejects.toMatchObject({ constraint: 'event_stays' });
});
