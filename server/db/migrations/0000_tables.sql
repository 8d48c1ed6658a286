CREATE TABLE "company" (
	"id" uuid PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"tax_id" text,
	"country" text NOT NULL,
	"base_currency" text NOT NULL,
	"mail_address" text NOT NULL,
	CONSTRAINT "company_code_unique" UNIQUE("code"),
	CONSTRAINT "company_name_unique" UNIQUE("name"),
	CONSTRAINT "company_mail_address_unique" UNIQUE("mail_address")
);
--> statement-breakpoint
CREATE TABLE "membership" (
	"person_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"role" text NOT NULL,
	CONSTRAINT "membership_person_id_company_id_role_pk" PRIMARY KEY("person_id","company_id","role")
);
--> statement-breakpoint
CREATE TABLE "organisation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"demo" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"password_hash" text NOT NULL,
	"demo" boolean DEFAULT false NOT NULL,
	"title" text,
	CONSTRAINT "person_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "cost_centre" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "cost_centre_code" UNIQUE("company_id","code"),
	CONSTRAINT "cost_centre_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "exchange_rate" (
	"company_id" uuid NOT NULL,
	"currency" char(3) NOT NULL,
	"day" date NOT NULL,
	"rate" numeric NOT NULL,
	CONSTRAINT "exchange_rate_company_id_currency_day_pk" PRIMARY KEY("company_id","currency","day")
);
--> statement-breakpoint
CREATE TABLE "ledger_account" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"group_name" text NOT NULL,
	"kind" text NOT NULL,
	CONSTRAINT "ledger_account_code" UNIQUE("company_id","code"),
	CONSTRAINT "ledger_account_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "period" (
	"company_id" uuid NOT NULL,
	"year" integer NOT NULL,
	"month" integer NOT NULL,
	"open" boolean DEFAULT true NOT NULL,
	CONSTRAINT "period_company_id_year_month_pk" PRIMARY KEY("company_id","year","month")
);
--> statement-breakpoint
CREATE TABLE "tax_code" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"rate" numeric NOT NULL,
	"recoverable" numeric DEFAULT '100' NOT NULL,
	"reverse_charge" boolean DEFAULT false NOT NULL,
	"account_id" uuid NOT NULL,
	"output_account_id" uuid,
	CONSTRAINT "tax_code_code" UNIQUE("company_id","code"),
	CONSTRAINT "tax_code_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "supplier" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"tax_id" text,
	"iban" text,
	"email" text,
	"phone" text,
	"address" text,
	"country" text,
	"currency" text NOT NULL,
	"terms" text,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"tax_code_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "supplier_code" UNIQUE("company_id","code"),
	CONSTRAINT "supplier_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "arrival" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"channel" text NOT NULL,
	"sender" text,
	"subject" text,
	"body" text,
	"headers" jsonb,
	"file_sha256" char(64),
	"note" text,
	"person_id" uuid,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "arrival_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "document" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"arrival_id" uuid NOT NULL,
	"position" integer DEFAULT 0 NOT NULL,
	"name" text NOT NULL,
	"media_type" text NOT NULL,
	"file_sha256" char(64) NOT NULL,
	"size" integer NOT NULL,
	"state" text NOT NULL,
	"note" text,
	"duplicate_of" uuid,
	"page_count" integer,
	"reading" jsonb,
	"read_at" timestamp with time zone,
	CONSTRAINT "document_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "document_page" (
	"document_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"width" real NOT NULL,
	"height" real NOT NULL,
	"words" jsonb NOT NULL,
	CONSTRAINT "document_page_document_id_number_pk" PRIMARY KEY("document_id","number")
);
--> statement-breakpoint
CREATE TABLE "file" (
	"sha256" char(64) PRIMARY KEY NOT NULL,
	"bytes" "bytea" NOT NULL,
	"size" integer NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bill" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"document_id" uuid,
	"stage" text NOT NULL,
	"kind" text NOT NULL,
	"supplier_id" uuid,
	"supplier_name" text,
	"supplier_reason" text,
	"invoice_number" text,
	"issue_date" date,
	"due_date" date,
	"terms" text,
	"currency" char(3) NOT NULL,
	"purchase_order" text,
	"net" numeric,
	"tax" numeric,
	"gross" numeric,
	"prices_include_tax" boolean DEFAULT false NOT NULL,
	"marks" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"unsure" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"note" text,
	"row_version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"sent_by" uuid,
	"sent_at" timestamp with time zone,
	"approved_by" uuid,
	"approved_at" timestamp with time zone,
	"posted_at" timestamp with time zone,
	CONSTRAINT "bill_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "bill_event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"what" text NOT NULL,
	"person_id" uuid,
	"note" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bill_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"kind" text DEFAULT 'line' NOT NULL,
	"code" text,
	"description" text DEFAULT '' NOT NULL,
	"quantity" numeric,
	"unit" text,
	"unit_price" numeric,
	"price_quantity" numeric DEFAULT '1' NOT NULL,
	"discount_percent" numeric,
	"tax_rate" numeric,
	"amount" numeric,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"tax_code_id" uuid,
	"marks" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "bill_line_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "journal_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"number" integer DEFAULT 0 NOT NULL,
	"year" integer NOT NULL,
	"month" integer NOT NULL,
	"entry_date" date NOT NULL,
	"kind" text NOT NULL,
	"description" text NOT NULL,
	"bill_id" uuid,
	"currency" char(3) NOT NULL,
	"rate" numeric DEFAULT '1' NOT NULL,
	"posted_by" uuid NOT NULL,
	"posted_at" timestamp with time zone DEFAULT now() NOT NULL,
	"written_in" bigint,
	CONSTRAINT "journal_entry_number" UNIQUE("company_id","year","number"),
	CONSTRAINT "journal_entry_of_company" UNIQUE("id","company_id"),
	CONSTRAINT "journal_entry_once" UNIQUE("bill_id","kind")
);
--> statement-breakpoint
CREATE TABLE "journal_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"entry_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"account_id" uuid NOT NULL,
	"cost_centre_id" uuid,
	"tax_code_id" uuid,
	"supplier_id" uuid,
	"bill_line_id" uuid,
	"description" text NOT NULL,
	"debit" numeric DEFAULT '0' NOT NULL,
	"credit" numeric DEFAULT '0' NOT NULL,
	"currency_amount" numeric NOT NULL
);
--> statement-breakpoint
CREATE TABLE "open_item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"entry_id" uuid NOT NULL,
	"due_date" date,
	"currency" char(3) NOT NULL,
	"amount" numeric NOT NULL,
	"base_amount" numeric NOT NULL,
	"settled" numeric DEFAULT '0' NOT NULL,
	CONSTRAINT "open_item_once" UNIQUE("bill_id")
);
--> statement-breakpoint
CREATE TABLE "posting_request" (
	"company_id" uuid NOT NULL,
	"key" text NOT NULL,
	"bills" text NOT NULL,
	"result" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "posting_request_company_id_key_pk" PRIMARY KEY("company_id","key")
);
--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cost_centre" ADD CONSTRAINT "cost_centre_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exchange_rate" ADD CONSTRAINT "exchange_rate_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD CONSTRAINT "ledger_account_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "period" ADD CONSTRAINT "period_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_file_sha256_file_sha256_fk" FOREIGN KEY ("file_sha256") REFERENCES "public"."file"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival" ADD CONSTRAINT "arrival_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_arrival_id_arrival_id_fk" FOREIGN KEY ("arrival_id") REFERENCES "public"."arrival"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_file_sha256_file_sha256_fk" FOREIGN KEY ("file_sha256") REFERENCES "public"."file"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document_page" ADD CONSTRAINT "document_page_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_sent_by_person_id_fk" FOREIGN KEY ("sent_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_approved_by_person_id_fk" FOREIGN KEY ("approved_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_supplier_of_company" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill" ADD CONSTRAINT "bill_document_of_company" FOREIGN KEY ("document_id","company_id") REFERENCES "public"."document"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_event" ADD CONSTRAINT "bill_event_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_event" ADD CONSTRAINT "bill_event_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_entry" ADD CONSTRAINT "journal_entry_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_entry" ADD CONSTRAINT "journal_entry_posted_by_person_id_fk" FOREIGN KEY ("posted_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_entry" ADD CONSTRAINT "journal_entry_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_entry" FOREIGN KEY ("entry_id","company_id") REFERENCES "public"."journal_entry"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_bill_line" FOREIGN KEY ("bill_line_id","company_id") REFERENCES "public"."bill_line"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_supplier" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_bill" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_entry" FOREIGN KEY ("entry_id","company_id") REFERENCES "public"."journal_entry"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_supplier" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "exchange_rate_day" ON "exchange_rate" USING btree ("company_id","currency","day");--> statement-breakpoint
CREATE INDEX "supplier_name" ON "supplier" USING btree ("company_id","name");--> statement-breakpoint
CREATE INDEX "arrival_received" ON "arrival" USING btree ("company_id","received_at","id");--> statement-breakpoint
CREATE INDEX "document_arrival" ON "document" USING btree ("arrival_id");--> statement-breakpoint
CREATE INDEX "document_file" ON "document" USING btree ("company_id","file_sha256");--> statement-breakpoint
CREATE INDEX "bill_list" ON "bill" USING btree ("company_id","created_at","id");--> statement-breakpoint
CREATE INDEX "bill_stage" ON "bill" USING btree ("company_id","stage","created_at","id");--> statement-breakpoint
CREATE INDEX "bill_supplier" ON "bill" USING btree ("company_id","supplier_id","issue_date");--> statement-breakpoint
CREATE INDEX "bill_document" ON "bill" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "bill_event_bill" ON "bill_event" USING btree ("bill_id","at");--> statement-breakpoint
CREATE INDEX "bill_line_bill" ON "bill_line" USING btree ("bill_id","position");--> statement-breakpoint
CREATE INDEX "journal_entry_date" ON "journal_entry" USING btree ("company_id","entry_date","id");--> statement-breakpoint
CREATE INDEX "journal_line_entry" ON "journal_line" USING btree ("entry_id","position");--> statement-breakpoint
CREATE INDEX "journal_line_account" ON "journal_line" USING btree ("company_id","account_id","entry_id");--> statement-breakpoint
CREATE INDEX "open_item_supplier" ON "open_item" USING btree ("company_id","supplier_id","due_date");--> statement-breakpoint
CREATE INDEX "open_item_due" ON "open_item" USING btree ("company_id","due_date");