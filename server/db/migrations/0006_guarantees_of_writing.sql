-- What every write promises, kept by the database itself, whoever writes.

-- The event log: one chain a company. Numbers and hashes are given here, in the order of commits.
CREATE FUNCTION event_hash(e event) RETURNS text LANGUAGE sql IMMUTABLE AS $$
  SELECT encode(sha256(convert_to(jsonb_build_array(e.previous, e.seq, e.id, e.company_id, e.subject_type, e.subject_id, e.verb, e.person_id,
    e.source, e.note, e.before, e.after, (extract(epoch FROM e.at) * 1000000)::bigint)::text, 'UTF8')), 'hex')
$$;
CREATE UNIQUE INDEX event_chain ON event (coalesce(company_id, '00000000-0000-0000-0000-000000000000'::uuid), seq);
CREATE FUNCTION event_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE chain uuid := coalesce(NEW.company_id, '00000000-0000-0000-0000-000000000000'); last record;
BEGIN
  PERFORM pg_advisory_xact_lock(hashtextextended(chain::text, 23));
  SELECT seq, hash INTO last FROM event WHERE coalesce(company_id, '00000000-0000-0000-0000-000000000000'::uuid) = chain ORDER BY seq DESC LIMIT 1;
  NEW.seq := coalesce(last.seq, 0) + 1;
  NEW.previous := coalesce(last.hash, '');
  NEW.hash := event_hash(NEW);
  RETURN NEW;
END $$;
CREATE TRIGGER event_arrives BEFORE INSERT ON event FOR EACH ROW EXECUTE FUNCTION event_arrives();
CREATE FUNCTION event_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'The event log is only added to' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'event_stays';
END $$;
CREATE TRIGGER event_stays BEFORE UPDATE OR DELETE ON event FOR EACH ROW EXECUTE FUNCTION event_stays();
CREATE TRIGGER event_not_emptied BEFORE TRUNCATE ON event FOR EACH STATEMENT EXECUTE FUNCTION event_stays();
-- The number of the first event of a company's chain that was changed, or after which one is missing; null for a whole chain.
CREATE FUNCTION event_chain_break(of_company uuid) RETURNS bigint LANGUAGE sql STABLE AS $$
  SELECT min(c.seq) FROM (
    SELECT e.seq, e.previous, e.hash, event_hash(e) AS should, lag(e.hash, 1, '') OVER w AS before, lag(e.seq, 1, 0::bigint) OVER w AS number
    FROM event e WHERE coalesce(e.company_id, '00000000-0000-0000-0000-000000000000'::uuid) = coalesce(of_company, '00000000-0000-0000-0000-000000000000'::uuid)
    WINDOW w AS (ORDER BY e.seq)) c
  WHERE c.previous <> c.before OR c.hash <> c.should OR c.seq <> c.number + 1
$$;

-- Whoever watches is told of every event when its transaction commits; of arrivals and documents also while they are read.
CREATE FUNCTION event_tells() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.company_id IS NOT NULL THEN
    PERFORM pg_notify('ledgerline', json_build_object('type', NEW.subject_type, 'company', NEW.company_id, 'id', NEW.subject_id)::text);
  END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER event_tells AFTER INSERT ON event FOR EACH ROW EXECUTE FUNCTION event_tells();
CREATE OR REPLACE FUNCTION tell() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('ledgerline', json_build_object('type', TG_ARGV[0], 'company', NEW.company_id, 'id', NEW.id)::text);
  RETURN NULL;
END $$;
DROP TRIGGER arrival_tells ON arrival;
DROP TRIGGER document_tells ON document;
CREATE TRIGGER arrival_tells AFTER INSERT OR UPDATE ON arrival FOR EACH ROW EXECUTE FUNCTION tell('arrival');
CREATE TRIGGER document_tells AFTER INSERT OR UPDATE ON document FOR EACH ROW EXECUTE FUNCTION tell('document');

-- The history that there was goes into the log.
INSERT INTO event (id, company_id, subject_type, subject_id, verb, person_id, source, note, at)
  SELECT id, company_id, 'bill', bill_id, what, person_id, CASE WHEN person_id IS NULL THEN 'reader' ELSE 'web' END, note, at FROM bill_event ORDER BY at, id;
DROP TABLE bill_event;

-- Every change raises the version that a save is compared with.
CREATE FUNCTION version_rises() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  NEW.row_version := OLD.row_version + 1;
  RETURN NEW;
END $$;
CREATE TRIGGER bill_version_rises BEFORE UPDATE ON bill FOR EACH ROW EXECUTE FUNCTION version_rises();
CREATE TRIGGER supplier_version_rises BEFORE UPDATE ON supplier FOR EACH ROW EXECUTE FUNCTION version_rises();

-- A bill's way: it comes in to be reviewed and goes from stage to stage, nowhere else.
ALTER TABLE bill DROP CONSTRAINT bill_stage_known;
ALTER TABLE bill ADD CONSTRAINT bill_stage_known CHECK (stage IN ('read', 'coded', 'approved', 'posted', 'paid', 'reversed', 'set-aside', 'returned', 'discarded'));
ALTER TABLE bill DROP CONSTRAINT bill_approved_needs_person;
ALTER TABLE bill ADD CONSTRAINT bill_approved_needs_person CHECK (stage NOT IN ('approved', 'posted', 'paid', 'reversed') OR (approved_by IS NOT NULL AND sent_by IS NOT NULL));
ALTER TABLE bill DROP CONSTRAINT bill_sent_is_whole;
ALTER TABLE bill ADD CONSTRAINT bill_sent_is_whole CHECK (stage NOT IN ('coded', 'approved', 'posted', 'paid', 'reversed')
  OR (supplier_id IS NOT NULL AND invoice_number IS NOT NULL AND issue_date IS NOT NULL AND gross IS NOT NULL AND gross >= 0));
CREATE FUNCTION bill_goes_its_way() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    IF NEW.stage = 'read' THEN RETURN NEW; END IF;
  ELSIF OLD.stage IN ('posted', 'paid', 'reversed') THEN RETURN NEW; -- bill_posted_stays judges
  ELSIF OLD.stage = NEW.stage OR (OLD.stage, NEW.stage) IN (
    ('read', 'coded'), ('read', 'set-aside'), ('read', 'discarded'), ('returned', 'coded'), ('returned', 'set-aside'), ('returned', 'discarded'),
    ('set-aside', 'read'), ('set-aside', 'discarded'), ('discarded', 'read'), ('coded', 'approved'), ('coded', 'returned'), ('coded', 'read'),
    ('approved', 'posted'), ('approved', 'returned')) THEN RETURN NEW;
  END IF;
  RAISE EXCEPTION 'A bill cannot become % here', NEW.stage USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_goes_its_way';
END $$;
CREATE TRIGGER bill_goes_its_way BEFORE INSERT OR UPDATE OF stage ON bill FOR EACH ROW EXECUTE FUNCTION bill_goes_its_way();

-- What was sent on stays as it was sent, head and lines, until it comes back.
CREATE FUNCTION bill_sent_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE moves text[] := ARRAY['stage', 'sent_by', 'sent_at', 'approved_by', 'approved_at', 'posted_at', 'note', 'row_version'];
BEGIN
  IF to_jsonb(OLD) - moves = to_jsonb(NEW) - moves THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A bill that was sent on cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
END $$;
CREATE TRIGGER bill_sent_stays BEFORE UPDATE ON bill FOR EACH ROW WHEN (OLD.stage IN ('coded', 'approved')) EXECUTE FUNCTION bill_sent_stays();
CREATE FUNCTION bill_line_sent_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE of_bill uuid; at_stage text;
BEGIN
  FOREACH of_bill IN ARRAY CASE TG_OP WHEN 'INSERT' THEN ARRAY[NEW.bill_id] WHEN 'DELETE' THEN ARRAY[OLD.bill_id] ELSE ARRAY[OLD.bill_id, NEW.bill_id] END LOOP
    SELECT stage INTO at_stage FROM bill WHERE id = of_bill FOR SHARE;
    IF at_stage NOT IN ('read', 'returned', 'set-aside', 'discarded') THEN
      RAISE EXCEPTION 'The lines of a bill that was sent on cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bill_sent_stays';
    END IF;
  END LOOP;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER bill_line_sent_stays BEFORE INSERT OR UPDATE OR DELETE ON bill_line FOR EACH ROW EXECUTE FUNCTION bill_line_sent_stays();

-- Whoever worked on a bill does not approve it.
CREATE FUNCTION bill_approved_by_another() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.approved_by IS NOT NULL AND EXISTS (SELECT 1 FROM event WHERE subject_type = 'bill' AND subject_id = NEW.id AND person_id = NEW.approved_by
    AND verb IN ('changed', 'coded', 'settled', 'overruled')) THEN
    RAISE EXCEPTION 'Somebody who worked on the bill cannot approve it' USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_not_own_approval';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER bill_approved_by_another BEFORE UPDATE OF approved_by ON bill FOR EACH ROW WHEN (OLD.approved_by IS DISTINCT FROM NEW.approved_by) EXECUTE FUNCTION bill_approved_by_another();

-- Exceptions.
ALTER TABLE bill_exception ADD CONSTRAINT bill_exception_state_known CHECK (state IN ('open', 'settled', 'overruled'));
ALTER TABLE bill_exception ADD CONSTRAINT bill_exception_severity_known CHECK (severity IN ('stops', 'asks'));
ALTER TABLE bill_exception ADD CONSTRAINT bill_exception_settled_somehow CHECK ((state = 'open') = (settled_at IS NULL) AND (state = 'open') = (how IS NULL));
ALTER TABLE bill_exception ADD CONSTRAINT bill_exception_overruled_by_whom CHECK (state <> 'overruled' OR (person_id IS NOT NULL AND reason IS NOT NULL));
ALTER TABLE check_setting ADD CONSTRAINT check_setting_known CHECK (severity IN ('stops', 'asks', 'off'));

-- Bank details count once a second person has verified them; they themselves never change.
ALTER TABLE bank_account ADD CONSTRAINT bank_account_checked_somehow CHECK ((verified_at IS NULL) = (how IS NULL));
ALTER TABLE bank_account ADD CONSTRAINT bank_account_second_person CHECK (proposed_by IS NULL OR verified_at IS NULL OR (verified_by IS NOT NULL AND verified_by <> proposed_by));
CREATE UNIQUE INDEX bank_account_once ON bank_account (supplier_id, iban) WHERE retired_at IS NULL;
CREATE FUNCTION bank_account_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND to_jsonb(OLD) - ARRAY['verified_by', 'verified_at', 'how', 'retired_at'] = to_jsonb(NEW) - ARRAY['verified_by', 'verified_at', 'how', 'retired_at']
    AND (OLD.verified_at IS NULL OR (OLD.verified_at, OLD.verified_by, OLD.how) IS NOT DISTINCT FROM (NEW.verified_at, NEW.verified_by, NEW.how))
    AND (OLD.retired_at IS NULL OR OLD.retired_at = NEW.retired_at) THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'Bank details cannot be changed; add new ones' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'bank_account_stays';
END $$;
CREATE TRIGGER bank_account_stays BEFORE UPDATE OR DELETE ON bank_account FOR EACH ROW EXECUTE FUNCTION bank_account_stays();

-- Reverse charge is never posted without an account for the tax that is owed.
UPDATE tax_code t SET output_account_id = (SELECT a.id FROM ledger_account a WHERE a.company_id = t.company_id AND a.kind = 'liability' ORDER BY a.code LIMIT 1)
  WHERE reverse_charge AND output_account_id IS NULL;
ALTER TABLE tax_code ADD CONSTRAINT tax_code_reverse_charge_owed CHECK (NOT reverse_charge OR output_account_id IS NOT NULL);
ALTER TABLE tax_code ADD CONSTRAINT tax_code_rates_within CHECK (rate BETWEEN 0 AND 100 AND recoverable BETWEEN 0 AND 100);
ALTER TABLE ledger_account ADD CONSTRAINT ledger_account_kind_known CHECK (kind IN ('expense', 'asset', 'income', 'tax', 'payable', 'bank', 'equity', 'liability'));

-- The books. An entry's number as people write it; from a source one entry, and one that reverses it.
CREATE FUNCTION entry_number(of_year integer, n integer) RETURNS text LANGUAGE sql IMMUTABLE AS $$
  SELECT of_year::text || '-' || lpad(n::text, greatest(5, length(n::text)), '0')
$$;
ALTER TABLE journal_entry ADD CONSTRAINT journal_entry_source_known CHECK (source_type IN ('bill', 'payment'));
ALTER TABLE open_item ADD CONSTRAINT open_item_source_known CHECK (source_type IN ('bill', 'payment'));
CREATE UNIQUE INDEX journal_entry_once ON journal_entry (source_type, source_id) WHERE reverses IS NULL;
CREATE TRIGGER journal_entry_stays BEFORE UPDATE OR DELETE ON journal_entry FOR EACH ROW EXECUTE FUNCTION posted_rows_stay();
CREATE TRIGGER posting_request_stays BEFORE UPDATE OR DELETE ON posting_request FOR EACH ROW EXECUTE FUNCTION posted_rows_stay();

-- A reversal takes back exactly what it reverses, judged when the transaction ends.
CREATE FUNCTION journal_entry_mirrors() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM journal_entry o WHERE o.id = NEW.reverses AND (o.reverses IS NOT NULL OR (o.source_type, o.source_id, o.currency) <> (NEW.source_type, NEW.source_id, NEW.currency)))
    OR EXISTS (SELECT 1 FROM journal_line WHERE entry_id IN (NEW.id, NEW.reverses)
      GROUP BY account_id, cost_centre_id, tax_code_id, supplier_id HAVING sum(debit - credit) <> 0 OR sum(currency_amount) <> 0) THEN
    RAISE EXCEPTION 'A reversal takes back exactly what it reverses' USING ERRCODE = 'check_violation', CONSTRAINT = 'journal_entry_mirrors';
  END IF;
  RETURN NULL;
END $$;
CREATE CONSTRAINT TRIGGER journal_entry_mirrors AFTER INSERT ON journal_entry DEFERRABLE INITIALLY DEFERRED FOR EACH ROW WHEN (NEW.reverses IS NOT NULL) EXECUTE FUNCTION journal_entry_mirrors();

-- A posted bill has its entry and its item, a reversed one the entry that takes it back too; both stay as they are.
CREATE OR REPLACE FUNCTION bill_posted_is_whole() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.stage IN ('posted', 'paid', 'reversed') AND NOT (EXISTS (SELECT 1 FROM journal_entry WHERE source_type = 'bill' AND source_id = NEW.id AND reverses IS NULL)
    AND EXISTS (SELECT 1 FROM open_item WHERE source_type = 'bill' AND source_id = NEW.id)) THEN
    RAISE EXCEPTION 'A posted bill needs its journal entry and its open item' USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_posted_is_whole';
  END IF;
  IF (NEW.stage = 'reversed') <> EXISTS (SELECT 1 FROM journal_entry WHERE source_type = 'bill' AND source_id = NEW.id AND reverses IS NOT NULL) THEN
    RAISE EXCEPTION 'A reversed bill needs the entry that reverses it' USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_reversed_is_whole';
  END IF;
  RETURN NULL;
END $$;
CREATE CONSTRAINT TRIGGER bill_posted_is_whole AFTER INSERT OR UPDATE OF stage ON bill DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION bill_posted_is_whole();
CREATE OR REPLACE FUNCTION bill_posted_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND (OLD.stage, NEW.stage) IN (('posted', 'paid'), ('paid', 'posted'), ('posted', 'reversed'))
    AND to_jsonb(OLD) - 'stage' - 'row_version' = to_jsonb(NEW) - 'stage' - 'row_version' THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A posted bill cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
CREATE TRIGGER bill_posted_stays BEFORE UPDATE OR DELETE ON bill FOR EACH ROW WHEN (OLD.stage IN ('posted', 'paid', 'reversed')) EXECUTE FUNCTION bill_posted_stays();

-- Settlements: an owed item with one owed back, of the same supplier and currency; their sums stand in the items.
ALTER TABLE settlement ADD CONSTRAINT settlement_positive CHECK (amount > 0);
CREATE FUNCTION item_settled(item uuid) RETURNS numeric LANGUAGE sql STABLE AS $$
  SELECT coalesce((SELECT sum(amount) FROM settlement WHERE owed_item_id = item AND undone_at IS NULL), 0)
       - coalesce((SELECT sum(amount) FROM settlement WHERE back_item_id = item AND undone_at IS NULL), 0)
$$;
CREATE FUNCTION settlement_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE owed open_item; back open_item;
BEGIN
  PERFORM 1 FROM open_item WHERE id IN (NEW.owed_item_id, NEW.back_item_id) ORDER BY id FOR UPDATE;
  SELECT * INTO owed FROM open_item WHERE id = NEW.owed_item_id;
  SELECT * INTO back FROM open_item WHERE id = NEW.back_item_id;
  IF owed.amount <= 0 OR back.amount >= 0 OR (owed.supplier_id, owed.currency) <> (back.supplier_id, back.currency) THEN
    RAISE EXCEPTION 'Only an owed item and one owed back, of one supplier and currency, settle each other' USING ERRCODE = 'check_violation', CONSTRAINT = 'settlement_of_two_sides';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER settlement_arrives BEFORE INSERT ON settlement FOR EACH ROW EXECUTE FUNCTION settlement_arrives();
CREATE FUNCTION settlement_sums() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE open_item SET settled = item_settled(id) WHERE id IN (NEW.owed_item_id, NEW.back_item_id);
  RETURN NULL;
END $$;
CREATE TRIGGER settlement_sums AFTER INSERT OR UPDATE ON settlement FOR EACH ROW EXECUTE FUNCTION settlement_sums();
CREATE FUNCTION settlement_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND OLD.undone_at IS NULL AND NEW.undone_at IS NOT NULL AND to_jsonb(OLD) - 'undone_at' = to_jsonb(NEW) - 'undone_at' THEN
    PERFORM 1 FROM open_item WHERE id IN (NEW.owed_item_id, NEW.back_item_id) ORDER BY id FOR UPDATE;
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'A settlement is undone, never changed or removed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
CREATE TRIGGER settlement_stays BEFORE UPDATE OR DELETE ON settlement FOR EACH ROW EXECUTE FUNCTION settlement_stays();
CREATE OR REPLACE FUNCTION open_item_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- bill_id follows from the source and is not computed yet here.
  IF TG_OP = 'UPDATE' AND to_jsonb(OLD) - ARRAY['settled', 'bill_id'] = to_jsonb(NEW) - ARRAY['settled', 'bill_id'] AND NEW.settled = item_settled(NEW.id) THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'An open item cannot be changed or removed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
CREATE TRIGGER open_item_stays BEFORE UPDATE OR DELETE ON open_item FOR EACH ROW EXECUTE FUNCTION open_item_stays();
