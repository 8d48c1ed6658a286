CREATE TABLE "distribution_key" (
	"id" uuid PRIMARY KEY NOT NULL,
	"company_id" uuid NOT NULL,
	"name" text NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	CONSTRAINT "distribution_key_name" UNIQUE("company_id","name"),
	CONSTRAINT "distribution_key_of_company" UNIQUE("id","company_id")
);
--> statement-breakpoint
CREATE TABLE "distribution_part" (
	"key_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"cost_centre_id" uuid NOT NULL,
	"weight" numeric NOT NULL,
	CONSTRAINT "distribution_part_key_id_position_pk" PRIMARY KEY("key_id","position")
);
--> statement-breakpoint
ALTER TABLE "distribution_key" ADD CONSTRAINT "distribution_key_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "distribution_part" ADD CONSTRAINT "distribution_part_key" FOREIGN KEY ("key_id","company_id") REFERENCES "public"."distribution_key"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "distribution_part" ADD CONSTRAINT "distribution_part_centre" FOREIGN KEY ("cost_centre_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "distribution_part" ADD CONSTRAINT "distribution_part_weight" CHECK ("weight" > 0);
