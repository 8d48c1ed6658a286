CREATE TABLE "supplier_bills" (
	"supplier_id" uuid PRIMARY KEY NOT NULL,
	"bills" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "company_owed" (
	"company_id" uuid NOT NULL,
	"back" boolean NOT NULL,
	"due_date" date NOT NULL,
	"amount" numeric NOT NULL,
	"items" integer NOT NULL,
	CONSTRAINT "company_owed_company_id_back_due_date_pk" PRIMARY KEY("company_id","back","due_date")
);
--> statement-breakpoint
CREATE TABLE "supplier_owed" (
	"supplier_id" uuid NOT NULL,
	"currency" char(3) NOT NULL,
	"amount" numeric NOT NULL,
	"items" integer NOT NULL,
	CONSTRAINT "supplier_owed_supplier_id_currency_pk" PRIMARY KEY("supplier_id","currency")
);
--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "words" text GENERATED ALWAYS AS (' ' || lower(coalesce(invoice_number, '') || ' ' || coalesce(purchase_order, '') || ' ' || CASE WHEN supplier_id IS NULL THEN coalesce(supplier_name, '') ELSE '' END)) STORED;--> statement-breakpoint
ALTER TABLE "open_item" ADD COLUMN "is_open" boolean GENERATED ALWAYS AS (amount <> settled) STORED NOT NULL;--> statement-breakpoint
ALTER TABLE "open_item" ADD COLUMN "entry_date" date;--> statement-breakpoint
ALTER TABLE "supplier_bills" ADD CONSTRAINT "supplier_bills_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "company_owed" ADD CONSTRAINT "company_owed_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_owed" ADD CONSTRAINT "supplier_owed_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bill_currency" ON "bill" USING btree ("company_id","currency","created_at","id");--> statement-breakpoint
CREATE INDEX "bill_posted_at" ON "bill" USING btree ("company_id","posted_at");--> statement-breakpoint
CREATE INDEX "open_item_account" ON "open_item" USING btree ("supplier_id","is_open","entry_date","id");--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS btree_gin;--> statement-breakpoint
-- Words of a company's bills and entries, found anywhere in them.
DROP INDEX bill_number_words;--> statement-breakpoint
CREATE INDEX bill_words ON bill USING gin (company_id, words gin_trgm_ops);--> statement-breakpoint
CREATE INDEX journal_entry_words ON journal_entry USING gin (company_id, description gin_trgm_ops);--> statement-breakpoint
CREATE INDEX bill_kind ON bill (company_id, kind, created_at, id) WHERE kind <> 'invoice';--> statement-breakpoint
-- What the database computes itself is not there yet when a row is judged.
CREATE OR REPLACE FUNCTION bill_sent_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'sent_by', 'sent_at', 'approved_by', 'approved_at', 'posted_at', 'note', 'row_version', 'words'];
BEGIN
  IF to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A bill that was sent on cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION bill_posted_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'row_version', 'words'];
BEGIN
  IF TG_OP = 'UPDATE' AND (OLD.stage, NEW.stage) IN (('posted', 'paid'), ('paid', 'posted'), ('posted', 'reversed'))
    AND to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A posted bill cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION open_item_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['settled', 'bill_id', 'is_open'];
BEGIN
  IF TG_OP = 'UPDATE' AND to_jsonb(OLD) - moves = to_jsonb(NEW) - moves AND NEW.settled = item_settled(NEW.id) THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'An open item cannot be changed or removed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;--> statement-breakpoint
-- An item has the date of its entry.
ALTER TABLE open_item DISABLE TRIGGER USER;--> statement-breakpoint
UPDATE open_item SET entry_date = e.entry_date FROM journal_entry e WHERE e.id = open_item.entry_id;--> statement-breakpoint
ALTER TABLE open_item ENABLE TRIGGER USER;--> statement-breakpoint
CREATE FUNCTION open_item_dated() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  NEW.entry_date := (SELECT entry_date FROM journal_entry WHERE id = NEW.entry_id);
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER open_item_dated BEFORE INSERT ON open_item FOR EACH ROW EXECUTE FUNCTION open_item_dated();--> statement-breakpoint
-- What is open of an item in base currency.
CREATE FUNCTION open_base(base numeric, amount numeric, settled numeric) RETURNS numeric LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE WHEN amount = settled THEN 0 ELSE base * (amount - settled) / amount END
$$;--> statement-breakpoint
-- Sums that lists show, kept with each statement that changes what they are of; rows are taken in one order, so that two never wait crosswise in a statement.
CREATE FUNCTION owed_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO supplier_owed AS o (supplier_id, currency, amount, items)
    SELECT supplier_id, currency, sum(amount - settled), count(*) FILTER (WHERE amount <> settled) FROM fresh GROUP BY 1, 2 ORDER BY 1, 2
    ON CONFLICT (supplier_id, currency) DO UPDATE SET amount = o.amount + excluded.amount, items = o.items + excluded.items;
  INSERT INTO company_owed AS o (company_id, back, due_date, amount, items)
    SELECT company_id, amount < 0, coalesce(due_date, '9999-12-31'), sum(open_base(base_amount, amount, settled)), count(*) FILTER (WHERE amount <> settled)
    FROM fresh GROUP BY 1, 2, 3 ORDER BY 1, 2, 3
    ON CONFLICT (company_id, back, due_date) DO UPDATE SET amount = o.amount + excluded.amount, items = o.items + excluded.items;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER owed_arrives AFTER INSERT ON open_item REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION owed_arrives();--> statement-breakpoint
CREATE FUNCTION owed_changes() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE supplier_owed o SET amount = o.amount + d.amount, items = o.items + d.items FROM (
    SELECT supplier_id, currency, sum(amount) AS amount, sum(items)::integer AS items FROM (
      SELECT supplier_id, currency, amount - settled AS amount, (amount <> settled)::integer AS items FROM fresh
      UNION ALL SELECT supplier_id, currency, settled - amount, -(amount <> settled)::integer FROM stale) c GROUP BY 1, 2 ORDER BY 1, 2) d
    WHERE o.supplier_id = d.supplier_id AND o.currency = d.currency;
  UPDATE company_owed o SET amount = o.amount + d.amount, items = o.items + d.items FROM (
    SELECT company_id, back, due_date, sum(amount) AS amount, sum(items)::integer AS items FROM (
      SELECT company_id, amount < 0 AS back, coalesce(due_date, '9999-12-31'::date) AS due_date, open_base(base_amount, amount, settled) AS amount, (amount <> settled)::integer AS items FROM fresh
      UNION ALL SELECT company_id, amount < 0, coalesce(due_date, '9999-12-31'::date), -open_base(base_amount, amount, settled), -(amount <> settled)::integer FROM stale) c GROUP BY 1, 2, 3 ORDER BY 1, 2, 3) d
    WHERE (o.company_id, o.back, o.due_date) = (d.company_id, d.back, d.due_date);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER owed_changes AFTER UPDATE ON open_item REFERENCING NEW TABLE AS fresh OLD TABLE AS stale FOR EACH STATEMENT EXECUTE FUNCTION owed_changes();--> statement-breakpoint
CREATE FUNCTION supplier_bills_arrive() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO supplier_bills AS s (supplier_id, bills)
    SELECT supplier_id, count(*) FROM fresh WHERE supplier_id IS NOT NULL AND stage <> 'discarded' GROUP BY 1 ORDER BY 1
    ON CONFLICT (supplier_id) DO UPDATE SET bills = s.bills + excluded.bills;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER supplier_bills_arrive AFTER INSERT ON bill REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION supplier_bills_arrive();--> statement-breakpoint
CREATE FUNCTION supplier_bills_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO supplier_bills AS s (supplier_id, bills)
    SELECT supplier_id, sum(n) FROM (
      SELECT supplier_id, 1 AS n FROM fresh WHERE supplier_id IS NOT NULL AND stage <> 'discarded'
      UNION ALL SELECT supplier_id, -1 FROM stale WHERE supplier_id IS NOT NULL AND stage <> 'discarded') c
    GROUP BY 1 HAVING sum(n) <> 0 ORDER BY 1
    ON CONFLICT (supplier_id) DO UPDATE SET bills = s.bills + excluded.bills;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER supplier_bills_change AFTER UPDATE ON bill REFERENCING NEW TABLE AS fresh OLD TABLE AS stale FOR EACH STATEMENT EXECUTE FUNCTION supplier_bills_change();--> statement-breakpoint
-- The sums of what there is already.
INSERT INTO supplier_owed SELECT supplier_id, currency, sum(amount - settled), count(*) FILTER (WHERE amount <> settled) FROM open_item GROUP BY 1, 2;--> statement-breakpoint
INSERT INTO company_owed SELECT company_id, amount < 0, coalesce(due_date, '9999-12-31'), sum(open_base(base_amount, amount, settled)), count(*) FILTER (WHERE amount <> settled) FROM open_item GROUP BY 1, 2, 3;--> statement-breakpoint
INSERT INTO supplier_bills SELECT supplier_id, count(*) FROM bill WHERE supplier_id IS NOT NULL AND stage <> 'discarded' GROUP BY 1;--> statement-breakpoint
-- Which kept sums differ from what they are of; none, at every moment between transactions.
CREATE FUNCTION sums_off() RETURNS TABLE (what text, id uuid, kept numeric, should numeric) LANGUAGE sql STABLE AS $$
  SELECT 'supplier_owed ' || coalesce(k.currency, s.currency), coalesce(k.supplier_id, s.supplier_id), k.amount, s.amount
    FROM supplier_owed k FULL JOIN (SELECT supplier_id, currency, sum(amount - settled) AS amount, count(*) FILTER (WHERE amount <> settled) AS items FROM open_item GROUP BY 1, 2) s USING (supplier_id, currency)
    WHERE (coalesce(k.amount, 0), coalesce(k.items, 0)) <> (coalesce(s.amount, 0), coalesce(s.items, 0))
  UNION ALL
  SELECT 'company_owed ' || coalesce(k.due_date, s.due_date), coalesce(k.company_id, s.company_id), k.amount, s.amount
    FROM company_owed k FULL JOIN (SELECT company_id, amount < 0 AS back, coalesce(due_date, '9999-12-31') AS due_date, sum(open_base(base_amount, amount, settled)) AS amount, count(*) FILTER (WHERE amount <> settled) AS items FROM open_item GROUP BY 1, 2, 3) s USING (company_id, back, due_date)
    WHERE round(coalesce(k.amount, 0) - coalesce(s.amount, 0), 6) <> 0 OR coalesce(k.items, 0) <> coalesce(s.items, 0)
  UNION ALL
  SELECT 'supplier_bills', coalesce(k.supplier_id, s.supplier_id), k.bills, s.bills
    FROM supplier_bills k FULL JOIN (SELECT supplier_id, count(*) AS bills FROM bill WHERE supplier_id IS NOT NULL AND stage <> 'discarded' GROUP BY 1) s USING (supplier_id)
    WHERE coalesce(k.bills, 0) <> coalesce(s.bills, 0)
$$;
