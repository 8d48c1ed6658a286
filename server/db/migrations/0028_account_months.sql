CREATE TABLE "account_month" (
	"company_id" uuid NOT NULL,
	"account_id" uuid NOT NULL,
	"cost_centre_id" uuid,
	"year" integer NOT NULL,
	"month" integer NOT NULL,
	"amount" numeric NOT NULL,
	CONSTRAINT "account_month_once" UNIQUE NULLS NOT DISTINCT("company_id","account_id","cost_centre_id","year","month")
);
--> statement-breakpoint
ALTER TABLE "account_month" ADD CONSTRAINT "account_month_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE FUNCTION account_month_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO account_month AS a (company_id, account_id, cost_centre_id, year, month, amount)
    SELECT l.company_id, l.account_id, l.cost_centre_id, e.year, e.month, sum(l.debit - l.credit)
      FROM fresh l JOIN journal_entry e ON e.id = l.entry_id GROUP BY 1, 2, 3, 4, 5 ORDER BY 1, 2, 3, 4, 5
    ON CONFLICT (company_id, account_id, cost_centre_id, year, month) DO UPDATE SET amount = a.amount + excluded.amount;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER account_month_arrives AFTER INSERT ON journal_line REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION account_month_arrives();--> statement-breakpoint
INSERT INTO account_month SELECT l.company_id, l.account_id, l.cost_centre_id, e.year, e.month, sum(l.debit - l.credit)
  FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id GROUP BY 1, 2, 3, 4, 5;--> statement-breakpoint
ALTER FUNCTION sums_off() RENAME TO owed_and_period_sums_off;--> statement-breakpoint
-- Which kept sums differ from what they are of; none, at every moment between transactions.
CREATE FUNCTION sums_off() RETURNS TABLE (what text, id uuid, kept numeric, should numeric) LANGUAGE sql STABLE AS $$
  SELECT * FROM owed_and_period_sums_off()
  UNION ALL
  SELECT 'account_month ' || coalesce(k.year, s.year) || '-' || coalesce(k.month, s.month), coalesce(k.account_id, s.account_id), k.amount, s.amount
    FROM (SELECT company_id, account_id, coalesce(cost_centre_id, '00000000-0000-0000-0000-000000000000') AS centre, year, month, amount FROM account_month) k
    FULL JOIN (SELECT l.company_id, l.account_id, coalesce(l.cost_centre_id, '00000000-0000-0000-0000-000000000000') AS centre, e.year, e.month, sum(l.debit - l.credit) AS amount
      FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id GROUP BY 1, 2, 3, 4, 5) s USING (company_id, account_id, centre, year, month)
    WHERE coalesce(k.amount, 0) <> coalesce(s.amount, 0)
$$;
