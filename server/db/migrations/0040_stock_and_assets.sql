CREATE TABLE "item_receipt" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"bill_line_id" uuid NOT NULL,
	"quantity" numeric NOT NULL,
	"received_on" date NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "item_receipt_once" UNIQUE("bill_line_id")
);
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "stocked" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "item_receipt" ADD CONSTRAINT "item_receipt_item" FOREIGN KEY ("item_id","company_id") REFERENCES "public"."item"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_receipt" ADD CONSTRAINT "item_receipt_line" FOREIGN KEY ("bill_line_id","company_id") REFERENCES "public"."bill_line"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_receipt_item" ON "item_receipt" USING btree ("item_id","received_on");
--> statement-breakpoint
ALTER TABLE bill_line DROP CONSTRAINT bill_line_kind_known;--> statement-breakpoint
ALTER TABLE bill_line ADD CONSTRAINT bill_line_kind_known CHECK (kind IN ('line', 'stock', 'asset', 'charge', 'text'));--> statement-breakpoint
ALTER TABLE item_receipt ADD CONSTRAINT item_receipt_quantity CHECK (quantity <> 0);
