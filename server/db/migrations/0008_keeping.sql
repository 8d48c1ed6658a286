CREATE TABLE "notice" (
	"key" text PRIMARY KEY NOT NULL,
	"sentence" text NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "ready" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "arrival" ADD COLUMN "state" text DEFAULT 'open' NOT NULL;--> statement-breakpoint
ALTER TABLE "arrival" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "arrival" ADD COLUMN "door_key" text;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_door_key_unique" UNIQUE("door_key");--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_state_known" CHECK ("state" IN ('opening', 'open', 'failed'));--> statement-breakpoint
-- What waits to be taken apart or read, however much there is beside it.
CREATE INDEX "arrival_waits" ON "arrival" ("id") WHERE "state" = 'opening';--> statement-breakpoint
CREATE INDEX "document_waits" ON "document" ("company_id", "id") WHERE "state" IN ('waiting', 'reading', 'unreadable');
