ALTER TABLE "cost_centre" ADD COLUMN "parent_id" uuid;--> statement-breakpoint
ALTER TABLE "cost_centre" ADD COLUMN "owner_id" uuid;--> statement-breakpoint
ALTER TABLE "cost_centre" ADD COLUMN "valid_from" date;--> statement-breakpoint
ALTER TABLE "cost_centre" ADD COLUMN "valid_to" date;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD COLUMN "parent_id" uuid;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD COLUMN "postable" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD COLUMN "tax_code_id" uuid;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD COLUMN "valid_from" date;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD COLUMN "valid_to" date;--> statement-breakpoint
ALTER TABLE "tax_code" ADD COLUMN "valid_from" date;--> statement-breakpoint
ALTER TABLE "tax_code" ADD COLUMN "valid_to" date;--> statement-breakpoint
ALTER TABLE "cost_centre" ADD CONSTRAINT "cost_centre_owner_id_person_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cost_centre" ADD CONSTRAINT "cost_centre_parent_of_company" FOREIGN KEY ("parent_id","company_id") REFERENCES "public"."cost_centre"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ledger_account" ADD CONSTRAINT "ledger_account_parent_of_company" FOREIGN KEY ("parent_id","company_id") REFERENCES "public"."ledger_account"("id","company_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "cost_centre_parent" ON "cost_centre" USING btree ("parent_id");--> statement-breakpoint
CREATE INDEX "ledger_account_parent" ON "ledger_account" USING btree ("parent_id");--> statement-breakpoint
ALTER TABLE "ledger_account" ADD CONSTRAINT "ledger_account_tax_code" FOREIGN KEY ("tax_code_id","company_id") REFERENCES "public"."tax_code"("id","company_id");--> statement-breakpoint
ALTER TABLE "ledger_account" ADD CONSTRAINT "ledger_account_days" CHECK ("valid_from" <= "valid_to");--> statement-breakpoint
ALTER TABLE "cost_centre" ADD CONSTRAINT "cost_centre_days" CHECK ("valid_from" <= "valid_to");--> statement-breakpoint
ALTER TABLE "tax_code" ADD CONSTRAINT "tax_code_days" CHECK ("valid_from" <= "valid_to");--> statement-breakpoint
-- Nothing is part of itself, over however many steps.
CREATE FUNCTION no_ring() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  at uuid := NEW.parent_id;
  steps int := 0;
BEGIN
  WHILE at IS NOT NULL LOOP
    IF at = NEW.id OR steps > 20 THEN
      RAISE EXCEPTION 'A row of % is part of itself', TG_TABLE_NAME USING ERRCODE = '23514', CONSTRAINT = TG_TABLE_NAME || '_ring';
    END IF;
    EXECUTE format('SELECT parent_id FROM %I WHERE id = $1', TG_TABLE_NAME) INTO at USING at;
    steps := steps + 1;
  END LOOP;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER ledger_account_ring BEFORE INSERT OR UPDATE OF parent_id ON ledger_account
  FOR EACH ROW WHEN (NEW.parent_id IS NOT NULL) EXECUTE FUNCTION no_ring();--> statement-breakpoint
CREATE TRIGGER cost_centre_ring BEFORE INSERT OR UPDATE OF parent_id ON cost_centre
  FOR EACH ROW WHEN (NEW.parent_id IS NOT NULL) EXECUTE FUNCTION no_ring();
