-- New tables.
CREATE TABLE "bank_account" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"iban" text NOT NULL,
	"note" text,
	"proposed_by" uuid,
	"proposed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"verified_by" uuid,
	"verified_at" timestamp with time zone,
	"how" text,
	"retired_at" timestamp with time zone
);
CREATE TABLE "bill_exception" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"code" text NOT NULL,
	"path" text NOT NULL,
	"key" text DEFAULT '' NOT NULL,
	"sentence" text NOT NULL,
	"severity" text NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"how" text,
	"person_id" uuid,
	"reason" text,
	"opened_at" timestamp with time zone DEFAULT now() NOT NULL,
	"settled_at" timestamp with time zone,
	CONSTRAINT "bill_exception_once" UNIQUE("bill_id","code","path","key")
);
CREATE TABLE "check_setting" (
	"company_id" uuid NOT NULL,
	"code" text NOT NULL,
	"severity" text NOT NULL,
	CONSTRAINT "check_setting_company_id_code_pk" PRIMARY KEY("company_id","code")
);
CREATE TABLE "settlement" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"owed_item_id" uuid NOT NULL,
	"back_item_id" uuid NOT NULL,
	"amount" numeric NOT NULL,
	"person_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone
);
CREATE TABLE "event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid,
	"seq" bigint DEFAULT 0 NOT NULL,
	"subject_type" text NOT NULL,
	"subject_id" uuid,
	"verb" text NOT NULL,
	"person_id" uuid,
	"source" text NOT NULL,
	"note" text,
	"before" jsonb,
	"after" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"previous" text DEFAULT '' NOT NULL,
	"hash" text DEFAULT '' NOT NULL
);

-- The rules about rows that stay are lifted while their columns change.
DROP TRIGGER bill_tells ON bill;
DROP TRIGGER journal_entry_tells ON journal_entry;
DROP TRIGGER supplier_tells ON supplier;
DROP TRIGGER journal_entry_stays ON journal_entry;
DROP TRIGGER open_item_stays ON open_item;
DROP TRIGGER posting_request_stays ON posting_request;
DROP TRIGGER bill_posted_stays ON bill;
DROP TRIGGER bill_posted_is_whole ON bill;
DROP TRIGGER bill_line_posted_stays ON bill_line;
DROP FUNCTION bill_line_posted_stays;

-- Master data.
ALTER TABLE "cost_centre" ADD COLUMN "active" boolean DEFAULT true NOT NULL;
ALTER TABLE "ledger_account" ADD COLUMN "needs_cost_centre" boolean DEFAULT false NOT NULL;
ALTER TABLE "ledger_account" ADD COLUMN "active" boolean DEFAULT true NOT NULL;
ALTER TABLE "tax_code" ADD COLUMN "active" boolean DEFAULT true NOT NULL;
ALTER TABLE "supplier" ADD COLUMN "row_version" integer DEFAULT 1 NOT NULL;
UPDATE ledger_account SET needs_cost_centre = true WHERE kind = 'expense';
INSERT INTO bank_account (id, company_id, supplier_id, iban, note, proposed_at, verified_at, how)
  SELECT gen_random_uuid(), company_id, id, iban, 'Taken over with the supplier list', created_at, created_at, 'Taken over with the supplier list' FROM supplier WHERE iban IS NOT NULL;
ALTER TABLE "supplier" DROP COLUMN "iban";

-- Bills: what the page says of the supplier; lines are named by their id.
ALTER TABLE "bill" ADD COLUMN "supplier_tax_id" text;
ALTER TABLE "bill" ADD COLUMN "supplier_iban" text;
ALTER TABLE "bill" ADD COLUMN "addressed_to" uuid;
UPDATE bill b SET supplier_tax_id = d.reading #>> '{header,supplierTaxId,value}', supplier_iban = d.reading #>> '{header,supplierIban,value}'
  FROM document d WHERE d.id = b.document_id AND d.reading IS NOT NULL;
UPDATE bill b SET addressed_to = c.id FROM company c WHERE b.stage = 'read' AND b.note = 'The page is addressed to ' || c.name || '.';
UPDATE bill SET note = NULL WHERE addressed_to IS NOT NULL AND stage = 'read';
UPDATE bill b SET unsure = (
  SELECT coalesce(jsonb_agg(coalesce(l.id::text || '.' || (regexp_match(u, '^lines\[\d+\]\.(\w+)$'))[1], u)), '[]') FROM jsonb_array_elements_text(b.unsure) u
    LEFT JOIN bill_line l ON l.bill_id = b.id AND l.position = (regexp_match(u, '^lines\[(\d+)\]\.'))[1]::int
    WHERE u !~ '^lines\[' OR l.id IS NOT NULL)
  WHERE unsure::text LIKE '%lines[%';

-- Books: a source of any kind.
ALTER TABLE "journal_entry" DROP CONSTRAINT "journal_entry_once";
ALTER TABLE "open_item" DROP CONSTRAINT "open_item_once";
ALTER TABLE "journal_entry" DROP CONSTRAINT "journal_entry_bill";
ALTER TABLE "open_item" DROP CONSTRAINT "open_item_bill";
ALTER TABLE "journal_entry" RENAME COLUMN "kind" TO "source_type";
ALTER TABLE "journal_entry" ADD COLUMN "source_id" uuid;
UPDATE journal_entry SET source_id = CASE WHEN source_type = 'bill' THEN bill_id ELSE id END;
ALTER TABLE "journal_entry" ALTER COLUMN "source_id" SET NOT NULL;
ALTER TABLE "journal_entry" ADD COLUMN "reverses" uuid;
ALTER TABLE "open_item" ADD COLUMN "source_type" text NOT NULL DEFAULT 'bill';
ALTER TABLE "open_item" ALTER COLUMN "source_type" DROP DEFAULT;
ALTER TABLE "open_item" RENAME COLUMN "bill_id" TO "source_id";
ALTER TABLE "open_item" ADD COLUMN "bill_id" uuid GENERATED ALWAYS AS (CASE WHEN source_type = 'bill' THEN source_id END) STORED;
-- Each payment becomes an item of its own, which settles the bill's.
CREATE TEMP TABLE paid ON COMMIT DROP AS SELECT gen_random_uuid() AS item, e.id AS entry, i.id AS owed, i.company_id, i.supplier_id, e.entry_date, i.currency, i.settled, i.base_amount * i.settled / i.amount AS base
  FROM journal_entry e JOIN open_item i ON i.bill_id = e.bill_id WHERE e.source_type = 'payment' AND i.settled > 0;
INSERT INTO open_item (id, company_id, supplier_id, source_type, source_id, entry_id, due_date, currency, amount, base_amount, settled)
  SELECT item, company_id, supplier_id, 'payment', entry, entry, entry_date, currency, -settled, -base, -settled FROM paid;
INSERT INTO settlement (id, company_id, owed_item_id, back_item_id, amount, at) SELECT gen_random_uuid(), company_id, owed, item, settled, entry_date FROM paid;
ALTER TABLE "journal_entry" DROP COLUMN "bill_id";
ALTER TABLE "journal_entry" ADD COLUMN "bill_id" uuid GENERATED ALWAYS AS (CASE WHEN source_type = 'bill' THEN source_id END) STORED;
ALTER TABLE "journal_entry" ADD CONSTRAINT "journal_entry_reversed_once" UNIQUE("reverses");
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_of_company" UNIQUE("id","company_id");
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_once" UNIQUE("entry_id");
ALTER TABLE "posting_request" ADD COLUMN "entry_date" date;
UPDATE posting_request r SET entry_date = coalesce((SELECT e.entry_date FROM journal_entry e WHERE e.id = (r.result -> 0 ->> 'entryId')::uuid), r.at::date);
ALTER TABLE "posting_request" ALTER COLUMN "entry_date" SET NOT NULL;

-- Keys between tables.
ALTER TABLE "bank_account" ADD CONSTRAINT "bank_account_proposed_by_person_id_fk" FOREIGN KEY ("proposed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "bank_account" ADD CONSTRAINT "bank_account_verified_by_person_id_fk" FOREIGN KEY ("verified_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "bank_account" ADD CONSTRAINT "bank_account_supplier_of_company" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "bill_exception" ADD CONSTRAINT "bill_exception_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "bill_exception" ADD CONSTRAINT "bill_exception_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "check_setting" ADD CONSTRAINT "check_setting_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "settlement" ADD CONSTRAINT "settlement_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "settlement" ADD CONSTRAINT "settlement_owed_item" FOREIGN KEY ("owed_item_id","company_id") REFERENCES "public"."open_item"("id","company_id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "settlement" ADD CONSTRAINT "settlement_back_item" FOREIGN KEY ("back_item_id","company_id") REFERENCES "public"."open_item"("id","company_id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "event" ADD CONSTRAINT "event_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "event" ADD CONSTRAINT "event_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_output_account" FOREIGN KEY ("output_account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "bill" ADD CONSTRAINT "bill_addressed_to_company_id_fk" FOREIGN KEY ("addressed_to") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "journal_entry" ADD CONSTRAINT "journal_entry_reverses" FOREIGN KEY ("reverses","company_id") REFERENCES "public"."journal_entry"("id","company_id") ON DELETE no action ON UPDATE no action;
ALTER TABLE "journal_entry" ADD CONSTRAINT "journal_entry_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id");
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id");
CREATE INDEX "bank_account_supplier" ON "bank_account" USING btree ("supplier_id");
CREATE INDEX "bank_account_iban" ON "bank_account" USING btree ("company_id","iban");
CREATE INDEX "bill_exception_open" ON "bill_exception" USING btree ("company_id","state","code");
CREATE INDEX "settlement_owed" ON "settlement" USING btree ("owed_item_id");
CREATE INDEX "settlement_back" ON "settlement" USING btree ("back_item_id");
CREATE INDEX "event_subject" ON "event" USING btree ("subject_type","subject_id","seq");
CREATE INDEX "event_company" ON "event" USING btree ("company_id","seq");
CREATE INDEX "journal_entry_source" ON "journal_entry" USING btree ("source_type","source_id");
CREATE INDEX "open_item_source" ON "open_item" USING btree ("source_type","source_id");
