ALTER TABLE "supplier" ADD COLUMN "other_tax_ids" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "other_addresses" text[] DEFAULT '{}' NOT NULL;