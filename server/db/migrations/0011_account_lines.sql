DROP INDEX "journal_line_account";--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "entry_year" integer;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "entry_number" integer;--> statement-breakpoint
-- A line has the number of its entry.
ALTER TABLE journal_line DISABLE TRIGGER USER;--> statement-breakpoint
UPDATE journal_line l SET entry_year = e.year, entry_number = e.number FROM journal_entry e WHERE e.id = l.entry_id;--> statement-breakpoint
ALTER TABLE journal_line ENABLE TRIGGER USER;--> statement-breakpoint
CREATE OR REPLACE FUNCTION journal_line_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  SELECT year, number INTO NEW.entry_year, NEW.entry_number FROM journal_entry WHERE id = NEW.entry_id AND written_in = txid_current();
  IF NOT FOUND THEN
    RAISE EXCEPTION 'Lines cannot be added to an entry that is already posted' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
  END IF;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE INDEX "journal_line_account" ON "journal_line" USING btree ("company_id","account_id","entry_year","entry_number","entry_id");
