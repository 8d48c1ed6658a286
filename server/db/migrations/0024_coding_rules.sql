CREATE TABLE "coding_forgotten" (
	"company_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"words" text NOT NULL,
	"until" date NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "coding_forgotten_company_id_supplier_id_words_pk" PRIMARY KEY("company_id","supplier_id","words")
);
--> statement-breakpoint
CREATE TABLE "coding_rule" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"supplier_id" uuid,
	"words" text,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"tax_code_id" uuid,
	"dimension_1" uuid,
	"dimension_2" uuid,
	"dimension_3" uuid,
	"dimension_4" uuid,
	"dimension_5" uuid,
	"dimension_6" uuid,
	"active" boolean DEFAULT true NOT NULL,
	"made_by" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "coding_forgotten" ADD CONSTRAINT "coding_forgotten_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_forgotten" ADD CONSTRAINT "coding_forgotten_supplier" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_supplier" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "coding_rule_company" ON "coding_rule" USING btree ("company_id","supplier_id");--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_is_about_something" CHECK ("supplier_id" IS NOT NULL OR "words" IS NOT NULL);--> statement-breakpoint
ALTER TABLE "coding_rule" ADD CONSTRAINT "coding_rule_says_something" CHECK (
  num_nonnulls("account_id", "cost_centre_id", "tax_code_id", "dimension_1", "dimension_2", "dimension_3", "dimension_4", "dimension_5", "dimension_6") > 0
);--> statement-breakpoint
CREATE TRIGGER coding_rule_dimensions_fit BEFORE INSERT OR UPDATE OF dimension_1, dimension_2, dimension_3, dimension_4, dimension_5, dimension_6 ON coding_rule
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();
