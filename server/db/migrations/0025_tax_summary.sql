CREATE TABLE "journal_tax" (
	"entry_id" uuid NOT NULL,
	"tax_code_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"entry_date" date NOT NULL,
	"net" numeric NOT NULL,
	"tax" numeric NOT NULL,
	"reclaimed" numeric NOT NULL,
	"owed" numeric NOT NULL,
	"withheld" numeric NOT NULL,
	CONSTRAINT "journal_tax_entry_id_tax_code_id_pk" PRIMARY KEY("entry_id","tax_code_id")
);
--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "tax_tolerance" numeric;--> statement-breakpoint
ALTER TABLE "tax_code" ADD COLUMN "withheld" numeric DEFAULT '0' NOT NULL;--> statement-breakpoint
ALTER TABLE "tax_code" ADD COLUMN "withheld_account_id" uuid;--> statement-breakpoint
ALTER TABLE "tax_code" ADD COLUMN "later_rates" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "journal_tax" ADD CONSTRAINT "journal_tax_entry" FOREIGN KEY ("entry_id","company_id") REFERENCES "public"."journal_entry"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_tax" ADD CONSTRAINT "journal_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "journal_tax_date" ON "journal_tax" USING btree ("company_id","entry_date","tax_code_id","entry_id");--> statement-breakpoint
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_withheld_account" FOREIGN KEY ("withheld_account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_withheld_within" CHECK ("withheld" BETWEEN 0 AND 100);--> statement-breakpoint
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_withheld_owed" CHECK ("withheld" = 0 OR "withheld_account_id" IS NOT NULL);--> statement-breakpoint
ALTER TABLE "company" ADD CONSTRAINT "company_tax_tolerance" CHECK ("tax_tolerance" >= 0);--> statement-breakpoint
CREATE TRIGGER journal_tax_stays BEFORE UPDATE OR DELETE ON journal_tax FOR EACH ROW EXECUTE FUNCTION posted_rows_stay();--> statement-breakpoint
CREATE TRIGGER journal_tax_not_emptied BEFORE TRUNCATE ON journal_tax FOR EACH STATEMENT EXECUTE FUNCTION posted_rows_stay();--> statement-breakpoint
-- What was posted before: what is reclaimed and owed stands in the lines; the net is the costs' without the tax that they bear, which is
-- known from what is owed, or from the rate where a part cannot be reclaimed.
INSERT INTO journal_tax (entry_id, tax_code_id, company_id, entry_date, net, tax, reclaimed, owed, withheld)
SELECT s.entry_id, s.tax_code_id, s.company_id, s.entry_date, s.cost - s.charged + s.reclaimed, s.charged, s.reclaimed, s.owed, 0
FROM (
  SELECT l.*,
    CASE WHEN l.reverse_charge THEN l.owed
         WHEN l.recoverable = 100 THEN l.reclaimed
         ELSE round((l.cost + l.reclaimed) * l.rate / (100 + l.rate), 2) END AS charged
  FROM (
    SELECT e.id AS entry_id, t.id AS tax_code_id, e.company_id, e.entry_date, t.reverse_charge, t.recoverable, t.rate,
      coalesce(sum(j.debit - j.credit) FILTER (WHERE j.bill_line_id IS NOT NULL), 0) AS cost,
      coalesce(sum(j.debit - j.credit) FILTER (WHERE j.bill_line_id IS NULL AND j.account_id = t.account_id), 0) AS reclaimed,
      coalesce(sum(j.credit - j.debit) FILTER (WHERE j.bill_line_id IS NULL AND j.account_id = t.output_account_id AND t.reverse_charge), 0) AS owed
    FROM journal_entry e JOIN journal_line j ON j.entry_id = e.id JOIN tax_code t ON t.id = j.tax_code_id
    GROUP BY e.id, t.id
  ) l
) s;--> statement-breakpoint
CREATE FUNCTION journal_tax_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NOT EXISTS (SELECT 1 FROM journal_entry WHERE id = NEW.entry_id AND written_in = txid_current() AND entry_date = NEW.entry_date) THEN
    RAISE EXCEPTION 'Tax cannot be added to an entry that is already posted' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
  END IF;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER journal_tax_arrives BEFORE INSERT ON journal_tax FOR EACH ROW EXECUTE FUNCTION journal_tax_arrives();
