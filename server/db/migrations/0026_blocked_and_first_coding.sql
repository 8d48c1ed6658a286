ALTER TABLE "company" ADD COLUMN "first_coding_usual" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "blocked" text;