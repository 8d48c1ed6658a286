ALTER TABLE "arrival" ADD COLUMN "left_out" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "arrival" ADD COLUMN "came_with" uuid;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "part" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "sources" jsonb;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "arranged" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "findings" jsonb;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "shown" text DEFAULT 'paper' NOT NULL;