CREATE TABLE "order_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"order_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"item_id" uuid,
	"code" text,
	"description" text NOT NULL,
	"quantity" numeric NOT NULL,
	"unit" text,
	"unit_price" numeric NOT NULL,
	"account_id" uuid,
	"cost_centre_id" uuid,
	"tax_code_id" uuid,
	"dimension_1" uuid,
	"dimension_2" uuid,
	"dimension_3" uuid,
	"dimension_4" uuid,
	"dimension_5" uuid,
	"dimension_6" uuid,
	CONSTRAINT "order_line_position" UNIQUE("order_id","position"),
	CONSTRAINT "order_line_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "purchase_order" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"number" text NOT NULL,
	"plain_number" text NOT NULL,
	"supplier_id" uuid NOT NULL,
	"order_date" date NOT NULL,
	"currency" char(3) NOT NULL,
	"note" text,
	"active" boolean DEFAULT true NOT NULL,
	CONSTRAINT "purchase_order_number" UNIQUE("company_id","number"),
	CONSTRAINT "purchase_order_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_order" FOREIGN KEY ("order_id","company_id") REFERENCES "public"."purchase_order"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_item" FOREIGN KEY ("item_id","company_id") REFERENCES "public"."item"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_account" FOREIGN KEY ("account_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_cost_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_dimension1" FOREIGN KEY ("dimension_1","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_dimension2" FOREIGN KEY ("dimension_2","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_dimension3" FOREIGN KEY ("dimension_3","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_dimension4" FOREIGN KEY ("dimension_4","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_dimension5" FOREIGN KEY ("dimension_5","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_dimension6" FOREIGN KEY ("dimension_6","company_id") REFERENCES "public"."dimension_value"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_supplier" FOREIGN KEY ("supplier_id","company_id") REFERENCES "public"."supplier"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "purchase_order_supplier" ON "purchase_order" USING btree ("supplier_id","active");--> statement-breakpoint
CREATE INDEX "purchase_order_plain" ON "purchase_order" USING btree ("company_id","plain_number");--> statement-breakpoint
CREATE TRIGGER order_line_dimensions_fit BEFORE INSERT OR UPDATE OF dimension_1, dimension_2, dimension_3, dimension_4, dimension_5, dimension_6 ON order_line
  FOR EACH ROW WHEN (num_nonnulls(NEW.dimension_1, NEW.dimension_2, NEW.dimension_3, NEW.dimension_4, NEW.dimension_5, NEW.dimension_6) > 0) EXECUTE FUNCTION dimensions_fit();--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_figures" CHECK ("quantity" > 0 AND "unit_price" >= 0);
