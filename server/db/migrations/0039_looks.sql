CREATE TABLE "document_look" (
	"document_id" uuid PRIMARY KEY NOT NULL,
	"keys" integer[] NOT NULL,
	"places" integer[] NOT NULL
);
--> statement-breakpoint
ALTER TABLE "bill_exception" ADD COLUMN "asked" text;--> statement-breakpoint
ALTER TABLE "document_look" ADD CONSTRAINT "document_look_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "document_look_keys" ON "document_look" USING gin ("keys");--> statement-breakpoint
-- What holds a payment is verified by a second person, who says whom they asked and how: nobody who worked on the bill, or changed its supplier since it came.
ALTER TABLE bill_exception ADD CONSTRAINT bill_exception_verified_how CHECK (how IS DISTINCT FROM 'verify' OR (person_id IS NOT NULL AND asked IS NOT NULL AND reason IS NOT NULL));
--> statement-breakpoint
CREATE FUNCTION bill_exception_second_person() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM event e WHERE e.subject_type = 'bill' AND e.subject_id = NEW.bill_id AND e.person_id = NEW.person_id
      AND e.verb IN ('made', 'moved', 'joined', 'changed', 'coded', 'settled', 'overruled'))
    OR EXISTS (SELECT 1 FROM bill b WHERE b.id = NEW.bill_id AND b.sent_by = NEW.person_id)
    OR EXISTS (SELECT 1 FROM bill b JOIN event e ON e.subject_type = 'supplier' AND e.subject_id = b.supplier_id
      WHERE b.id = NEW.bill_id AND e.person_id = NEW.person_id AND e.at >= b.created_at AND e.verb NOT IN ('bank account verified', 'bank account retired')) THEN
    RAISE EXCEPTION 'Whoever worked on the bill or changed its supplier does not verify it' USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_exception_second_person';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER bill_exception_second_person BEFORE INSERT OR UPDATE ON bill_exception FOR EACH ROW WHEN (NEW.how = 'verify') EXECUTE FUNCTION bill_exception_second_person();
