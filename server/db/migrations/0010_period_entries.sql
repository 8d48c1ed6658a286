CREATE TABLE "period_entries" (
	"company_id" uuid NOT NULL,
	"year" integer NOT NULL,
	"month" integer NOT NULL,
	"entries" integer NOT NULL,
	CONSTRAINT "period_entries_company_id_year_month_pk" PRIMARY KEY("company_id","year","month")
);
--> statement-breakpoint
ALTER TABLE "period_entries" ADD CONSTRAINT "period_entries_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE FUNCTION period_entries_arrive() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO period_entries AS p (company_id, year, month, entries) SELECT company_id, year, month, count(*) FROM fresh GROUP BY 1, 2, 3 ORDER BY 1, 2, 3
    ON CONFLICT (company_id, year, month) DO UPDATE SET entries = p.entries + excluded.entries;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER period_entries_arrive AFTER INSERT ON journal_entry REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION period_entries_arrive();--> statement-breakpoint
INSERT INTO period_entries SELECT company_id, year, month, count(*) FROM journal_entry GROUP BY 1, 2, 3;--> statement-breakpoint
ALTER FUNCTION sums_off() RENAME TO owed_sums_off;--> statement-breakpoint
-- Which kept sums differ from what they are of; none, at every moment between transactions.
CREATE FUNCTION sums_off() RETURNS TABLE (what text, id uuid, kept numeric, should numeric) LANGUAGE sql STABLE AS $$
  SELECT * FROM owed_sums_off()
  UNION ALL
  SELECT 'period_entries ' || year || '-' || month, company_id, k.entries, s.entries
    FROM period_entries k FULL JOIN (SELECT company_id, year, month, count(*) AS entries FROM journal_entry GROUP BY 1, 2, 3) s USING (company_id, year, month)
    WHERE coalesce(k.entries, 0) <> coalesce(s.entries, 0)
$$;
