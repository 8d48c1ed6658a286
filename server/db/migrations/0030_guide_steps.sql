CREATE TABLE "guide_step" (
	"company_id" uuid NOT NULL,
	"step" text NOT NULL,
	"state" text NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "guide_step_company_id_step_pk" PRIMARY KEY("company_id","step")
);
--> statement-breakpoint
ALTER TABLE "guide_step" ADD CONSTRAINT "guide_step_company_id_company_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."company"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "guide_step" ADD CONSTRAINT "guide_step_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "guide_step" ADD CONSTRAINT "guide_step_known" CHECK ("step" IN ('company', 'chart', 'tax', 'people', 'mailbox', 'suppliers', 'document') AND "state" IN ('fine', 'skipped'));
