ALTER TABLE "bill_line" ADD COLUMN "service_date" date;
--> statement-breakpoint
ALTER TABLE "bill_line" DROP CONSTRAINT "bill_line_kind_known";
--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_kind_known" CHECK (kind IN ('line', 'charge', 'text'));
