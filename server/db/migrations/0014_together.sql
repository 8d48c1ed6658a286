CREATE TABLE "repeat" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"name" text NOT NULL,
	"every" text NOT NULL,
	"weeks" integer,
	"begins" date NOT NULL,
	"until" date,
	"next_on" date,
	"fixed" boolean NOT NULL,
	"document_within" integer,
	"template" jsonb NOT NULL,
	"created_by" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"row_version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "repeat_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "bill_mention" (
	"note_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"seen_at" timestamp with time zone,
	CONSTRAINT "bill_mention_note_id_person_id_pk" PRIMARY KEY("note_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "bill_note" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"text" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bill_presence" (
	"bill_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "bill_presence_bill_id_person_id_pk" PRIMARY KEY("bill_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "choice_use" (
	"person_id" uuid NOT NULL,
	"choice_id" uuid NOT NULL,
	"used_at" timestamp with time zone NOT NULL,
	CONSTRAINT "choice_use_person_id_choice_id_pk" PRIMARY KEY("person_id","choice_id")
);
--> statement-breakpoint
CREATE TABLE "person_view" (
	"person_id" uuid NOT NULL,
	"place" text NOT NULL,
	"view" jsonb NOT NULL,
	CONSTRAINT "person_view_person_id_place_pk" PRIMARY KEY("person_id","place")
);
--> statement-breakpoint
CREATE TABLE "saved_view" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"shared" boolean NOT NULL,
	"name" text NOT NULL,
	"q" text NOT NULL,
	"sort" text NOT NULL,
	"sort_order" text NOT NULL,
	"columns" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "queue_order" text DEFAULT 'age' NOT NULL;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "for_bill" uuid;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "further" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "assignee_id" uuid;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "aside_until" date;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "discount_until" date;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "made_from" uuid;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "repeat_id" uuid;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "turn" date;--> statement-breakpoint
ALTER TABLE "repeat" ADD CONSTRAINT "repeat_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "repeat" ADD CONSTRAINT "repeat_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "repeat" ADD CONSTRAINT "repeat_supplier" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_mention" ADD CONSTRAINT "bill_mention_note_id_bill_note_id_fk" FOREIGN KEY ("note_id") REFERENCES "public"."bill_note"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_mention" ADD CONSTRAINT "bill_mention_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_note" ADD CONSTRAINT "bill_note_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_note" ADD CONSTRAINT "bill_note_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_presence" ADD CONSTRAINT "bill_presence_bill_id_bill_id_fk" FOREIGN KEY ("bill_id") REFERENCES "public"."bill"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_presence" ADD CONSTRAINT "bill_presence_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "choice_use" ADD CONSTRAINT "choice_use_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_view" ADD CONSTRAINT "person_view_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_view" ADD CONSTRAINT "saved_view_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_view" ADD CONSTRAINT "saved_view_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "repeat_due" ON "repeat" USING btree ("next_on") WHERE "repeat"."next_on" is not null;--> statement-breakpoint
CREATE INDEX "bill_mention_unseen" ON "bill_mention" USING btree ("person_id") WHERE "bill_mention"."seen_at" is null;--> statement-breakpoint
CREATE INDEX "bill_note_bill" ON "bill_note" USING btree ("bill_id","at");--> statement-breakpoint
CREATE INDEX "saved_view_company" ON "saved_view" USING btree ("company_id","person_id");--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_assignee_id_person_id_fk" FOREIGN KEY ("assignee_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_made_from" FOREIGN KEY ("made_from","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_repeat_of_company" FOREIGN KEY ("repeat_id","company_id") REFERENCES "public"."repeat"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "document_for_bill" ON "document" USING btree ("for_bill") WHERE "document"."for_bill" is not null;--> statement-breakpoint
CREATE INDEX "bill_assignee" ON "bill" USING btree ("assignee_id","company_id") WHERE "bill"."assignee_id" is not null;--> statement-breakpoint
CREATE INDEX "bill_aside_until" ON "bill" USING btree ("aside_until") WHERE "bill"."aside_until" is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "bill_turn_once" ON "bill" USING btree ("repeat_id","turn") WHERE "bill"."repeat_id" is not null;
--> statement-breakpoint
-- In whose hands a bill is may change whatever its stage; what was sent on stays otherwise.
CREATE OR REPLACE FUNCTION bill_sent_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'sent_by', 'sent_at', 'approved_by', 'approved_at', 'posted_at', 'note', 'row_version', 'assignee_id', 'aside_until', 'words'];
BEGIN
  IF to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A bill that was sent on cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
END $$;
--> statement-breakpoint
ALTER TABLE bill ADD CONSTRAINT bill_aside_until_only_aside CHECK (aside_until IS NULL OR stage = 'set-aside');
--> statement-breakpoint
ALTER TABLE bill ADD CONSTRAINT bill_turn_of_repeat CHECK ((repeat_id IS NULL) = (turn IS NULL));
--> statement-breakpoint
ALTER TABLE company ADD CONSTRAINT company_queue_order_known CHECK (queue_order IN ('discount', 'due', 'amount', 'age'));
--> statement-breakpoint
ALTER TABLE repeat ADD CONSTRAINT repeat_every_known CHECK (every IN ('month', 'quarter', 'year', 'weeks') AND (every = 'weeks') = (weeks IS NOT NULL) AND (weeks IS NULL OR weeks BETWEEN 1 AND 52));
--> statement-breakpoint
ALTER TABLE repeat ADD CONSTRAINT repeat_document_within_sane CHECK (document_within IS NULL OR document_within BETWEEN 1 AND 90);
--> statement-breakpoint
CREATE TRIGGER repeat_version_rises BEFORE UPDATE ON repeat FOR EACH ROW EXECUTE FUNCTION version_rises();
--> statement-breakpoint
ALTER TABLE document ADD CONSTRAINT document_for_bill_of_company FOREIGN KEY (for_bill, company_id) REFERENCES bill (id, company_id);
--> statement-breakpoint
CREATE INDEX bill_by_number ON bill (company_id, coalesce(invoice_number, ''), id);
--> statement-breakpoint
CREATE INDEX bill_by_stage ON bill (company_id, stage, id);
--> statement-breakpoint
CREATE INDEX ledger_account_words ON ledger_account USING gin (code gin_trgm_ops, name gin_trgm_ops);
