CREATE TABLE "combination" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"when_field" text NOT NULL,
	"when_codes" text NOT NULL,
	"only_field" text NOT NULL,
	"only_codes" text NOT NULL,
	"active" boolean DEFAULT true NOT NULL
);
--> statement-breakpoint
CREATE TABLE "dimension" (
	"company_id" uuid NOT NULL,
	"field" text NOT NULL,
	"name" text NOT NULL,
	"always" boolean DEFAULT false NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	CONSTRAINT "dimension_company_id_field_pk" PRIMARY KEY("company_id","field"),
	CONSTRAINT "dimension_name" UNIQUE("company_id","name")
);
--> statement-breakpoint
CREATE TABLE "dimension_value" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"field" text NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"valid_from" date,
	"valid_to" date,
	CONSTRAINT "dimension_value_code" UNIQUE("company_id","field","code"),
	CONSTRAINT "dimension_value_of_company" UNIQUE("id","company_id"),
	CONSTRAINT "dimension_value_of_field" UNIQUE("id","company_id","field")
);
--> statement-breakpoint
CREATE TABLE "going_with" (
	"company_id" uuid NOT NULL,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"of_value_id" uuid,
	"source_id" uuid GENERATED ALWAYS AS (coalesce(account_id, cost_centre_id, of_value_id)) STORED NOT NULL,
	"field" text NOT NULL,
	"value_id" uuid NOT NULL,
	CONSTRAINT "going_with_source_id_field_pk" PRIMARY KEY("source_id","field")
);
--> statement-breakpoint
ALTER TABLE "ledger_account" ADD COLUMN "needs_dimensions" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "bill_line" ADD COLUMN "dimension_1" uuid;--> statement-breakpoint
ALTER TABLE "bill_line" ADD COLUMN "dimension_2" uuid;--> statement-breakpoint
ALTER TABLE "bill_line" ADD COLUMN "dimension_3" uuid;--> statement-breakpoint
ALTER TABLE "bill_line" ADD COLUMN "dimension_4" uuid;--> statement-breakpoint
ALTER TABLE "bill_line" ADD COLUMN "dimension_5" uuid;--> statement-breakpoint
ALTER TABLE "bill_line" ADD COLUMN "dimension_6" uuid;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "dimension_1" uuid;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "dimension_2" uuid;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "dimension_3" uuid;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "dimension_4" uuid;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "dimension_5" uuid;--> statement-breakpoint
ALTER TABLE "journal_line" ADD COLUMN "dimension_6" uuid;--> statement-breakpoint
ALTER TABLE "combination" ADD CONSTRAINT "combination_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dimension" ADD CONSTRAINT "dimension_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dimension_value" ADD CONSTRAINT "dimension_value_dimension" FOREIGN KEY ("company_id","field") REFERENCES "public"."dimension"("company_id","field") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "going_with" ADD CONSTRAINT "going_with_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "going_with" ADD CONSTRAINT "going_with_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "going_with" ADD CONSTRAINT "going_with_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "going_with" ADD CONSTRAINT "going_with_of" FOREIGN KEY ("of_value_id","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "going_with" ADD CONSTRAINT "going_with_value" FOREIGN KEY ("value_id","company_id","field") REFERENCES "public"."dimension_value"("id","company_id","field") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "combination_company" ON "combination" USING btree ("company_id");--> statement-breakpoint
CREATE INDEX "going_with_company" ON "going_with" USING btree ("company_id");--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bill_line" ADD CONSTRAINT "bill_line_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal_line" ADD CONSTRAINT "journal_line_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dimension" ADD CONSTRAINT "dimension_field_known" CHECK ("field" IN ('dimension1', 'dimension2', 'dimension3', 'dimension4', 'dimension5', 'dimension6'));--> statement-breakpoint
ALTER TABLE "dimension_value" ADD CONSTRAINT "dimension_value_days" CHECK ("valid_from" <= "valid_to");--> statement-breakpoint
ALTER TABLE "ledger_account" ADD CONSTRAINT "ledger_account_needs_known" CHECK ("needs_dimensions" <@ ARRAY['dimension1', 'dimension2', 'dimension3', 'dimension4', 'dimension5', 'dimension6']);--> statement-breakpoint
ALTER TABLE "going_with" ADD CONSTRAINT "going_with_one_source" CHECK (num_nonnulls("account_id", "cost_centre_id", "of_value_id") = 1);--> statement-breakpoint
ALTER TABLE "combination" ADD CONSTRAINT "combination_fields" CHECK ("when_field" <> "only_field");--> statement-breakpoint
-- A value on a line is of the dimension whose column it stands in. Lines name it, so it stays in its dimension.
CREATE FUNCTION dimensions_fit() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF (SELECT count(*) FROM dimension_value v
      JOIN (VALUES (NEW.dimension_1, 'dimension1'), (NEW.dimension_2, 'dimension2'), (NEW.dimension_3, 'dimension3'),
                   (NEW.dimension_4, 'dimension4'), (NEW.dimension_5, 'dimension5'), (NEW.dimension_6, 'dimension6')) AS n(id, field)
        ON n.id = v.id AND n.field = v.field)
     <> num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) THEN
    RAISE EXCEPTION 'A value of another dimension on a row of %', TG_TABLE_NAME USING ERRCODE = '23503', CONSTRAINT = TG_TABLE_NAME || '_dimensions_fit';
  END IF;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER bill_line_dimensions_fit BEFORE INSERT OR UPDATE OF dimension_1, dimension_2, dimension_3, dimension_4, dimension_5, dimension_6 ON bill_line
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();--> statement-breakpoint
CREATE TRIGGER journal_line_dimensions_fit BEFORE INSERT ON journal_line
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();--> statement-breakpoint
CREATE FUNCTION dimension_value_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'A value stays in its dimension' USING ERRCODE = '23514', CONSTRAINT = 'dimension_value_stays';
END $$;--> statement-breakpoint
CREATE TRIGGER dimension_value_stays BEFORE UPDATE OF field ON dimension_value
  FOR EACH ROW WHEN (NEW.field IS DISTINCT FROM OLD.field) EXECUTE FUNCTION dimension_value_stays();
