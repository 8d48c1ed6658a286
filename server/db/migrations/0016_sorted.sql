-- Lists of bills are sorted by any of their columns.
CREATE INDEX bill_by_discount ON bill (company_id, coalesce(discount_until, '9999-12-31'), id);
--> statement-breakpoint
CREATE INDEX bill_by_aside ON bill (company_id, coalesce(aside_until, '9999-12-31'), id);
--> statement-breakpoint
CREATE INDEX bill_by_entry ON bill (company_id, coalesce(posted_at, '1990-01-01 00:00:00+00'), id);
--> statement-breakpoint
CREATE INDEX bill_unnamed ON bill (company_id, lower(coalesce(supplier_name, '')), id) WHERE supplier_id IS NULL;
--> statement-breakpoint
CREATE INDEX bill_unassigned ON bill (company_id, id) WHERE assignee_id IS NULL;
--> statement-breakpoint
CREATE INDEX supplier_by_name ON supplier (lower(name), id);
