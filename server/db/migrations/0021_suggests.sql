ALTER TABLE "company" ADD COLUMN "suggests" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "suggests" boolean DEFAULT true NOT NULL;