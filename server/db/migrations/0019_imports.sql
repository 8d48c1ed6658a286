CREATE TABLE "import_finding" (
	"run_id" uuid NOT NULL,
	"n" integer NOT NULL,
	"row" integer NOT NULL,
	"column_head" text,
	"severity" text NOT NULL,
	"sentence" text NOT NULL,
	CONSTRAINT "import_finding_run_id_n_pk" PRIMARY KEY("run_id","n")
);
--> statement-breakpoint
CREATE TABLE "import_mapping" (
	"company_id" uuid NOT NULL,
	"list" text NOT NULL,
	"heads" text NOT NULL,
	"mapping" jsonb NOT NULL,
	CONSTRAINT "import_mapping_company_id_list_heads_pk" PRIMARY KEY("company_id","list","heads")
);
--> statement-breakpoint
CREATE TABLE "import_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"list" text NOT NULL,
	"file_name" text NOT NULL,
	"heads" jsonb NOT NULL,
	"rows" "bytea" NOT NULL,
	"mapping" jsonb NOT NULL,
	"state" text NOT NULL,
	"counts" jsonb NOT NULL,
	"good_only" boolean DEFAULT false NOT NULL,
	"progress" integer DEFAULT 0 NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"note" text,
	"person_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "import_finding" ADD CONSTRAINT "import_finding_run_id_import_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."import_run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_mapping" ADD CONSTRAINT "import_mapping_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_run" ADD CONSTRAINT "import_run_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_run" ADD CONSTRAINT "import_run_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "import_run_company" ON "import_run" USING btree ("company_id","created_at");
--> statement-breakpoint
-- Of the thousands of rows of a file people are told once, by the event of the import itself.
CREATE OR REPLACE FUNCTION event_tells() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.company_id IS NOT NULL AND (NEW.source <> 'import' OR NEW.subject_type = 'import') THEN
    PERFORM pg_notify('ledgerline', json_build_object('type', NEW.subject_type, 'company', NEW.company_id, 'id', NEW.subject_id)::text);
  END IF;
  RETURN NULL;
END $$;
