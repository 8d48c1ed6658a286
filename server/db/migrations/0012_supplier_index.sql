-- A supplier's bills by date, with what lists ask and sort by, so that searching by suppliers reads this index alone.
DROP INDEX "bill_supplier";--> statement-breakpoint
CREATE INDEX bill_supplier ON bill (company_id, supplier_id, issue_date) INCLUDE (id, created_at, stage, kind, currency, gross, due_date);
