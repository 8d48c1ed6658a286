ALTER TABLE "bill_exception" ADD COLUMN "found" text;--> statement-breakpoint
ALTER TABLE "bill_exception" ADD COLUMN "expected" text;