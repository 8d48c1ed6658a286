CREATE TABLE "goods_receipt" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"order_id" uuid NOT NULL,
	"number" text NOT NULL,
	"received_on" date NOT NULL,
	"note" text,
	"person_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "goods_receipt_of_company" UNIQUE("id","company_id"),
	CONSTRAINT "goods_receipt_number" UNIQUE("order_id","number")
);
--> statement-breakpoint
CREATE TABLE "line_match" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"bill_id" uuid NOT NULL,
	"bill_line_id" uuid NOT NULL,
	"order_line_id" uuid,
	"quantity" numeric NOT NULL,
	"why" text NOT NULL,
	"how" text NOT NULL,
	CONSTRAINT "line_match_once" UNIQUE NULLS NOT DISTINCT("bill_line_id","order_line_id")
);
--> statement-breakpoint
CREATE TABLE "receipt_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"receipt_id" uuid NOT NULL,
	"order_line_id" uuid NOT NULL,
	"quantity" numeric NOT NULL,
	CONSTRAINT "receipt_line_once" UNIQUE("receipt_id","order_line_id")
);
--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "matching" jsonb DEFAULT '{"pricePercent":"0","priceAmount":"0","quantityPercent":"0","quantityAmount":"0","which":"stricter","passes":false}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "without_order" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "awaits_receipt" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "bill" ADD COLUMN "passed_alone" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "needs_receipt" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "goods_receipt" ADD CONSTRAINT "goods_receipt_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "goods_receipt" ADD CONSTRAINT "goods_receipt_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "goods_receipt" ADD CONSTRAINT "goods_receipt_order" FOREIGN KEY ("order_id","company_id") REFERENCES "public"."purchase_order"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "line_match" ADD CONSTRAINT "line_match_bill_of_company" FOREIGN KEY ("bill_id","company_id") REFERENCES "public"."bill"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "line_match" ADD CONSTRAINT "line_match_bill_line" FOREIGN KEY ("bill_line_id","company_id") REFERENCES "public"."bill_line"("id","company_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "line_match" ADD CONSTRAINT "line_match_order_line" FOREIGN KEY ("order_line_id","company_id") REFERENCES "public"."order_line"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipt_line" ADD CONSTRAINT "receipt_line_receipt" FOREIGN KEY ("receipt_id","company_id") REFERENCES "public"."goods_receipt"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipt_line" ADD CONSTRAINT "receipt_line_order_line" FOREIGN KEY ("order_line_id","company_id") REFERENCES "public"."order_line"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "goods_receipt_list" ON "goods_receipt" USING btree ("company_id","received_on","id");--> statement-breakpoint
CREATE INDEX "line_match_bill" ON "line_match" USING btree ("bill_id");--> statement-breakpoint
CREATE INDEX "line_match_order" ON "line_match" USING btree ("order_line_id");--> statement-breakpoint
CREATE INDEX "receipt_line_order" ON "receipt_line" USING btree ("order_line_id");--> statement-breakpoint
ALTER TABLE "receipt_line" ADD CONSTRAINT "receipt_line_quantity" CHECK ("quantity" <> 0);--> statement-breakpoint
ALTER TABLE "line_match" ADD CONSTRAINT "line_match_said" CHECK ("how" IN ('found', 'hand') AND "quantity" >= 0);--> statement-breakpoint
CREATE FUNCTION match_fits() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_TABLE_NAME = 'receipt_line' THEN
    IF (SELECT order_id FROM order_line WHERE id = NEW.order_line_id) <> (SELECT order_id FROM goods_receipt WHERE id = NEW.receipt_id) THEN
      RAISE EXCEPTION 'a receipt takes lines of its own order' USING ERRCODE = 'check_violation', CONSTRAINT = 'receipt_line_of_order';
    END IF;
  ELSIF (SELECT bill_id FROM bill_line WHERE id = NEW.bill_line_id) <> NEW.bill_id THEN
    RAISE EXCEPTION 'a match is of a row of its own bill' USING ERRCODE = 'check_violation', CONSTRAINT = 'line_match_of_bill';
  END IF;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER receipt_line_fits BEFORE INSERT OR UPDATE ON receipt_line FOR EACH ROW EXECUTE FUNCTION match_fits();--> statement-breakpoint
CREATE TRIGGER line_match_fits BEFORE INSERT OR UPDATE ON line_match FOR EACH ROW EXECUTE FUNCTION match_fits();
--> statement-breakpoint
CREATE OR REPLACE FUNCTION bill_sent_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'sent_by', 'sent_at', 'approved_by', 'approved_at', 'posted_at', 'note', 'row_version', 'assignee_id', 'aside_until', 'passed_alone', 'words'];
BEGIN
  IF to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A bill that was sent on cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
END $$;--> statement-breakpoint
-- A bill that went on by itself has nobody who sent it; somebody approved it all the same.
ALTER TABLE bill DROP CONSTRAINT bill_approved_needs_person;--> statement-breakpoint
ALTER TABLE bill ADD CONSTRAINT bill_approved_needs_person CHECK (stage NOT IN ('approved', 'posted', 'paid', 'reversed') OR (approved_by IS NOT NULL AND (sent_by IS NOT NULL OR passed_alone)));--> statement-breakpoint
ALTER TABLE bill ADD CONSTRAINT bill_awaits_only_aside CHECK (NOT awaits_receipt OR stage = 'set-aside');
