CREATE TABLE "person_range" (
	"person_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"accounts" text,
	"cost_centres" text,
	"most" numeric,
	CONSTRAINT "person_range_person_id_company_id_pk" PRIMARY KEY("person_id","company_id")
);
--> statement-breakpoint
CREATE TABLE "supplier_contact" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"about" text,
	"email" text,
	"phone" text
);
--> statement-breakpoint
CREATE TABLE "usual_coding" (
	"company_id" uuid PRIMARY KEY NOT NULL,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"tax_code_id" uuid,
	"dimension_1" uuid,
	"dimension_2" uuid,
	"dimension_3" uuid,
	"dimension_4" uuid,
	"dimension_5" uuid,
	"dimension_6" uuid
);
--> statement-breakpoint
CREATE TABLE "item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"also_called" text,
	"unit" text,
	"price" numeric,
	"currency" char(3),
	"account_id" uuid,
	"tax_code_id" uuid,
	"active" boolean DEFAULT true NOT NULL,
	CONSTRAINT "item_code" UNIQUE("company_id","code"),
	CONSTRAINT "item_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "budget" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"account_id" uuid NOT NULL,
	"cost_centre_id" uuid,
	"year" integer NOT NULL,
	"month" integer NOT NULL,
	"amount" numeric NOT NULL,
	CONSTRAINT "budget_once" UNIQUE NULLS NOT DISTINCT("company_id","account_id","cost_centre_id","year","month")
);
--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "bill_to_names" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "rate_by" text DEFAULT 'day' NOT NULL;--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "due_on" text DEFAULT 'stays' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dimension_1" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dimension_2" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dimension_3" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dimension_4" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dimension_5" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dimension_6" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "payments_held" text;--> statement-breakpoint
ALTER TABLE "dimension" ADD COLUMN "assets" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "dimension_value" ADD COLUMN "account_id" uuid;--> statement-breakpoint
ALTER TABLE "dimension_value" ADD COLUMN "in_use_from" date;--> statement-breakpoint
ALTER TABLE "dimension_value" ADD COLUMN "serial" text;--> statement-breakpoint
ALTER TABLE "dimension_value" ADD COLUMN "location" text;--> statement-breakpoint
ALTER TABLE "person_range" ADD CONSTRAINT "person_range_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_range" ADD CONSTRAINT "person_range_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_contact" ADD CONSTRAINT "supplier_contact_of_company" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget" ADD CONSTRAINT "budget_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget" ADD CONSTRAINT "budget_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget" ADD CONSTRAINT "budget_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "supplier_contact_supplier" ON "supplier_contact" USING btree ("supplier_id");--> statement-breakpoint
CREATE INDEX "budget_year" ON "budget" USING btree ("company_id","year");--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dimension_value" ADD CONSTRAINT "dimension_value_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER supplier_dimensions_fit BEFORE INSERT OR UPDATE OF dimension_1, dimension_2, dimension_3, dimension_4, dimension_5, dimension_6 ON supplier
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();--> statement-breakpoint
CREATE TRIGGER usual_coding_dimensions_fit BEFORE INSERT OR UPDATE OF dimension_1, dimension_2, dimension_3, dimension_4, dimension_5, dimension_6 ON usual_coding
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();--> statement-breakpoint
ALTER TABLE "budget" ADD CONSTRAINT "budget_month" CHECK ("month" BETWEEN 1 AND 12 AND "year" BETWEEN 2000 AND 2099);--> statement-breakpoint
ALTER TABLE "person_range" ADD CONSTRAINT "person_range_most" CHECK ("most" >= 0);--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_price" CHECK ("price" >= 0 AND ("price" IS NULL) = ("currency" IS NULL));--> statement-breakpoint
ALTER TABLE "company" ADD CONSTRAINT "company_rate_by" CHECK ("rate_by" IN ('day', 'month'));--> statement-breakpoint
ALTER TABLE "company" ADD CONSTRAINT "company_due_on" CHECK ("due_on" IN ('stays', 'next', 'before'));--> statement-breakpoint
CREATE UNIQUE INDEX "dimension_of_assets" ON "dimension" USING btree ("company_id") WHERE "assets";
