CREATE TABLE "charge" (
	"bill_line_id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"basis" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "charge_share" (
	"bill_line_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"receipt_line_id" uuid NOT NULL,
	"amount" numeric NOT NULL,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"dimension_1" uuid,
	"dimension_2" uuid,
	"dimension_3" uuid,
	"dimension_4" uuid,
	"dimension_5" uuid,
	"dimension_6" uuid,
	CONSTRAINT "charge_share_bill_line_id_receipt_line_id_pk" PRIMARY KEY("bill_line_id","receipt_line_id")
);
--> statement-breakpoint
CREATE TABLE "accrual" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"on_day" date NOT NULL,
	"entry_id" uuid NOT NULL,
	"back_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "accrual_entry_once" UNIQUE("entry_id"),
	CONSTRAINT "accrual_back_once" UNIQUE("back_id"),
	CONSTRAINT "accrual_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "accrual_line" (
	"accrual_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"order_line_id" uuid NOT NULL,
	"amount" numeric NOT NULL,
	CONSTRAINT "accrual_line_accrual_id_order_line_id_pk" PRIMARY KEY("accrual_id","order_line_id")
);
--> statement-breakpoint
ALTER TABLE "usual_coding" ADD COLUMN "accrual_account_id" uuid;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "weight" numeric;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "volume" numeric;--> statement-breakpoint
ALTER TABLE "receipt_line" ADD CONSTRAINT "receipt_line_of_company" UNIQUE("id","company_id");--> statement-breakpoint
ALTER TABLE "charge" ADD CONSTRAINT "charge_bill_of_company" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge" ADD CONSTRAINT "charge_bill_line" FOREIGN KEY ("bill_line_id","company_id") REFERENCES "public"."bill_line"("id","company_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_bill_line_id_charge_bill_line_id_fk" FOREIGN KEY ("bill_line_id") REFERENCES "public"."charge"("bill_line_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_receipt_line_of_company" FOREIGN KEY ("receipt_line_id","company_id") REFERENCES "public"."receipt_line"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "charge_share" ADD CONSTRAINT "charge_share_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accrual" ADD CONSTRAINT "accrual_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accrual" ADD CONSTRAINT "accrual_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accrual" ADD CONSTRAINT "accrual_entry" FOREIGN KEY ("entry_id","company_id") REFERENCES "public"."journal_entry"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accrual" ADD CONSTRAINT "accrual_back" FOREIGN KEY ("back_id","company_id") REFERENCES "public"."journal_entry"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accrual_line" ADD CONSTRAINT "accrual_line_accrual" FOREIGN KEY ("accrual_id","company_id") REFERENCES "public"."accrual"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "accrual_line" ADD CONSTRAINT "accrual_line_order_line" FOREIGN KEY ("order_line_id","company_id") REFERENCES "public"."order_line"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "charge_bill" ON "charge" USING btree ("bill_id");--> statement-breakpoint
CREATE INDEX "charge_share_receipt_line" ON "charge_share" USING btree ("receipt_line_id");--> statement-breakpoint
CREATE INDEX "accrual_day" ON "accrual" USING btree ("company_id","on_day");--> statement-breakpoint
ALTER TABLE "usual_coding" ADD CONSTRAINT "usual_coding_accrual_account" FOREIGN KEY ("accrual_account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_weighs" CHECK (coalesce(weight, 0) >= 0 AND coalesce(volume, 0) >= 0);--> statement-breakpoint
ALTER TABLE "charge" ADD CONSTRAINT "charge_basis_known" CHECK (basis IN ('value', 'quantity', 'weight', 'volume', 'equally', 'by-hand'));--> statement-breakpoint
ALTER TABLE "accrual" ADD CONSTRAINT "accrual_at_month_end" CHECK (extract(day FROM on_day + 1) = 1);--> statement-breakpoint
ALTER TABLE journal_entry DROP CONSTRAINT journal_entry_source_known;--> statement-breakpoint
ALTER TABLE journal_entry ADD CONSTRAINT journal_entry_source_known CHECK (source_type IN ('bill', 'payment', 'accrual'));--> statement-breakpoint
-- How a charge is shared stays as it was sent, like the row that it is of.
CREATE TRIGGER charge_sent_stays BEFORE INSERT OR UPDATE OR DELETE ON charge FOR EACH ROW EXECUTE FUNCTION bill_line_sent_stays();--> statement-breakpoint
CREATE FUNCTION charge_fits() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE at_stage text;
BEGIN
  IF TG_TABLE_NAME = 'charge' THEN
    IF (SELECT bill_id FROM bill_line WHERE id = NEW.bill_line_id) <> NEW.bill_id THEN
      RAISE EXCEPTION 'a charge is a row of its own bill' USING ERRCODE = 'check_violation', CONSTRAINT = 'charge_of_bill';
    END IF;
    RETURN NEW;
  END IF;
  SELECT b.stage INTO at_stage FROM charge c JOIN bill b ON b.id = c.bill_id
    WHERE c.bill_line_id = CASE TG_OP WHEN 'DELETE' THEN OLD.bill_line_id ELSE NEW.bill_line_id END FOR SHARE OF b;
  IF at_stage NOT IN ('read', 'returned', 'set-aside', 'discarded') THEN
    RAISE EXCEPTION 'How a charge of a bill that was sent on is shared cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
  END IF;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER charge_fits BEFORE INSERT OR UPDATE ON charge FOR EACH ROW EXECUTE FUNCTION charge_fits();--> statement-breakpoint
CREATE TRIGGER charge_share_fits BEFORE INSERT OR UPDATE OR DELETE ON charge_share FOR EACH ROW EXECUTE FUNCTION charge_fits();
--> statement-breakpoint
CREATE TRIGGER charge_share_dimensions_fit BEFORE INSERT OR UPDATE OF dimension_1, dimension_2, dimension_3, dimension_4, dimension_5, dimension_6 ON charge_share
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();
