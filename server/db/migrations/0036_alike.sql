ALTER TABLE "bill" ADD COLUMN "number_key" text GENERATED ALWAYS AS (replace(translate(regexp_replace(regexp_replace(upper(coalesce(invoice_number, '')), '[^A-Z0-9]', '', 'g'), '^[A-Z]+(?=.*[0-9])', ''), 'OIL', '011'), '0', '')) STORED;--> statement-breakpoint
CREATE INDEX "bill_number_key" ON "bill" USING btree ("company_id","supplier_id","number_key");--> statement-breakpoint
CREATE INDEX "bill_amount_day" ON "bill" USING btree ("gross","issue_date");--> statement-breakpoint
-- What the database works out itself is not yet there when a change is looked at.
CREATE OR REPLACE FUNCTION bill_sent_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'sent_by', 'sent_at', 'approved_by', 'approved_at', 'posted_at', 'note', 'row_version', 'assignee_id', 'aside_until', 'passed_alone', 'words', 'number_key'];
BEGIN
  IF to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A bill that was sent on cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION bill_posted_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'row_version', 'words', 'number_key'];
BEGIN
  IF TG_OP = 'UPDATE' AND (OLD.stage, NEW.stage) IN (('posted', 'paid'), ('paid', 'posted'), ('posted', 'reversed'))
    AND to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A posted bill cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
