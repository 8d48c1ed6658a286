CREATE TABLE "attempt" (
	"key" text PRIMARY KEY NOT NULL,
	"since" timestamp with time zone NOT NULL,
	"n" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "device" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
-- Everybody signs in once more: sessions have ids now.
DELETE FROM "session";--> statement-breakpoint
ALTER TABLE "session" DROP CONSTRAINT "session_pkey";--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "totp_secret" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "totp_step" bigint;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "id" uuid PRIMARY KEY NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "started_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "seen_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "agent" text;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "device" ADD CONSTRAINT "device_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "session_person" ON "session" USING btree ("person_id");--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_token_hash_unique" UNIQUE("token_hash");--> statement-breakpoint
-- A session that ends ends its stream of live updates, wherever that is served.
CREATE FUNCTION session_tells() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('ledgerline', json_build_object('type', 'session', 'company', '', 'id', OLD.id)::text);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER session_tells AFTER DELETE ON session FOR EACH ROW EXECUTE FUNCTION session_tells();
