-- Whoever made a bill by hand, moved it here or gave it its document does not approve it, like whoever worked on it.
CREATE OR REPLACE FUNCTION bill_approved_by_another() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.approved_by IS NOT NULL AND EXISTS (SELECT 1 FROM event WHERE subject_type = 'bill' AND subject_id = NEW.id AND person_id = NEW.approved_by
    AND verb IN ('made', 'moved', 'joined', 'changed', 'coded', 'settled', 'overruled')) THEN
    RAISE EXCEPTION 'Somebody who worked on the bill cannot approve it' USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_not_own_approval';
  END IF;
  RETURN NEW;
END $$;
