CREATE TABLE "scanned_page" (
	"sha256" char(64) NOT NULL,
	"page" integer NOT NULL,
	"turn" integer NOT NULL,
	"auto" boolean NOT NULL,
	"read" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "scanned_page_sha256_page_turn_pk" PRIMARY KEY("sha256","page","turn")
);
--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "progress" jsonb;--> statement-breakpoint
ALTER TABLE "document_page" ADD COLUMN "scan" jsonb;--> statement-breakpoint
ALTER TABLE "scanned_page" ADD CONSTRAINT "scanned_page_sha256_file_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."file"("sha256") ON DELETE no action ON UPDATE no action;