-- What the books promise, kept by the database itself, whoever writes to it.

-- Simple truths about rows.
ALTER TABLE journal_line ADD CONSTRAINT journal_line_one_side CHECK (debit >= 0 AND credit >= 0 AND (debit > 0) <> (credit > 0));
ALTER TABLE bill ADD CONSTRAINT bill_stage_known CHECK (stage IN ('read', 'coded', 'approved', 'posted', 'paid', 'set-aside', 'returned', 'discarded'));
ALTER TABLE bill ADD CONSTRAINT bill_kind_known CHECK (kind IN ('invoice', 'credit-note'));
ALTER TABLE bill ADD CONSTRAINT bill_not_own_approval CHECK (approved_by IS NULL OR approved_by IS DISTINCT FROM sent_by);
ALTER TABLE bill ADD CONSTRAINT bill_approved_needs_person CHECK (stage NOT IN ('approved', 'posted', 'paid') OR (approved_by IS NOT NULL AND sent_by IS NOT NULL));
ALTER TABLE bill ADD CONSTRAINT bill_sent_is_whole CHECK (stage NOT IN ('coded', 'approved', 'posted', 'paid')
  OR (supplier_id IS NOT NULL AND invoice_number IS NOT NULL AND issue_date IS NOT NULL AND gross IS NOT NULL AND gross >= 0));
ALTER TABLE bill_line ADD CONSTRAINT bill_line_kind_known CHECK (kind IN ('line', 'charge'));
ALTER TABLE open_item ADD CONSTRAINT open_item_settled_within CHECK (abs(settled) <= abs(amount) AND settled * amount >= 0);
ALTER TABLE membership ADD CONSTRAINT membership_role_known CHECK (role IN ('clerk', 'approver', 'controller', 'administrator'));
ALTER TABLE arrival ADD CONSTRAINT arrival_channel_known CHECK (channel IN ('email', 'folder', 'upload'));
ALTER TABLE document ADD CONSTRAINT document_state_known CHECK (state IN ('waiting', 'reading', 'read', 'aside', 'unreadable', 'duplicate'));
ALTER TABLE exchange_rate ADD CONSTRAINT exchange_rate_positive CHECK (rate > 0);
ALTER TABLE organisation ADD COLUMN only_one boolean NOT NULL DEFAULT true UNIQUE CHECK (only_one);

-- A supplier's invoice number stands once among the bills that were sent on.
CREATE UNIQUE INDEX bill_number_once ON bill (company_id, supplier_id, kind, upper(regexp_replace(invoice_number, '\s', '', 'g')))
  WHERE stage IN ('coded', 'approved', 'posted', 'paid');
-- One document makes one bill.
CREATE UNIQUE INDEX bill_document_once ON bill (document_id) WHERE stage <> 'discarded';

-- Numbers of entries: the next one of the company's year, given here; none can be left out since none can go.
CREATE FUNCTION journal_entry_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE is_open boolean;
BEGIN
  IF NEW.year <> extract(year FROM NEW.entry_date) OR NEW.month <> extract(month FROM NEW.entry_date) THEN
    RAISE EXCEPTION 'The entry''s period is not that of its date' USING ERRCODE = 'check_violation', CONSTRAINT = 'journal_entry_period_of_date';
  END IF;
  SELECT open INTO is_open FROM period WHERE company_id = NEW.company_id AND year = NEW.year AND month = NEW.month FOR SHARE;
  IF is_open IS NOT TRUE THEN
    RAISE EXCEPTION 'The period %-% is not open', NEW.year, lpad(NEW.month::text, 2, '0') USING ERRCODE = 'check_violation', CONSTRAINT = 'journal_entry_period_open';
  END IF;
  PERFORM pg_advisory_xact_lock(hashtextextended(NEW.company_id::text || NEW.year::text, 7));
  SELECT coalesce(max(number), 0) + 1 INTO NEW.number FROM journal_entry WHERE company_id = NEW.company_id AND year = NEW.year;
  NEW.written_in := txid_current();
  RETURN NEW;
END $$;
CREATE TRIGGER journal_entry_arrives BEFORE INSERT ON journal_entry FOR EACH ROW EXECUTE FUNCTION journal_entry_arrives();

-- Posted rows never change and never go.
CREATE FUNCTION posted_rows_stay() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'Posted entries cannot be changed or removed; reverse them instead' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
CREATE TRIGGER journal_entry_stays BEFORE UPDATE OR DELETE ON journal_entry FOR EACH ROW EXECUTE FUNCTION posted_rows_stay();
CREATE TRIGGER journal_line_stays BEFORE UPDATE OR DELETE ON journal_line FOR EACH ROW EXECUTE FUNCTION posted_rows_stay();
CREATE TRIGGER journal_entry_not_emptied BEFORE TRUNCATE ON journal_entry FOR EACH STATEMENT EXECUTE FUNCTION posted_rows_stay();
CREATE TRIGGER journal_line_not_emptied BEFORE TRUNCATE ON journal_line FOR EACH STATEMENT EXECUTE FUNCTION posted_rows_stay();
CREATE TRIGGER posting_request_stays BEFORE UPDATE OR DELETE ON posting_request FOR EACH ROW EXECUTE FUNCTION posted_rows_stay();

-- Lines come with their entry, in one transaction, or not at all.
CREATE FUNCTION journal_line_arrives() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NOT EXISTS (SELECT 1 FROM journal_entry WHERE id = NEW.entry_id AND written_in = txid_current()) THEN
    RAISE EXCEPTION 'Lines cannot be added to an entry that is already posted' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER journal_line_arrives BEFORE INSERT ON journal_line FOR EACH ROW EXECUTE FUNCTION journal_line_arrives();

-- An entry balances, judged when the transaction ends.
CREATE FUNCTION journal_entry_balances() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE total numeric; lines integer;
BEGIN
  SELECT coalesce(sum(debit - credit), 0), count(*) INTO total, lines FROM journal_line WHERE entry_id = NEW.id;
  IF lines < 2 OR total <> 0 THEN
    RAISE EXCEPTION 'The entry does not balance: % lines, difference %', lines, total USING ERRCODE = 'check_violation', CONSTRAINT = 'journal_entry_balances';
  END IF;
  RETURN NULL;
END $$;
CREATE CONSTRAINT TRIGGER journal_entry_balances AFTER INSERT ON journal_entry DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION journal_entry_balances();

-- A posted bill has its entry and its open item, and stays as it is; only settlement moves it on.
CREATE FUNCTION bill_posted_is_whole() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.stage IN ('posted', 'paid') AND NOT (EXISTS (SELECT 1 FROM journal_entry WHERE bill_id = NEW.id AND kind = 'bill') AND EXISTS (SELECT 1 FROM open_item WHERE bill_id = NEW.id)) THEN
    RAISE EXCEPTION 'A posted bill needs its journal entry and its open item' USING ERRCODE = 'check_violation', CONSTRAINT = 'bill_posted_is_whole';
  END IF;
  RETURN NULL;
END $$;
CREATE CONSTRAINT TRIGGER bill_posted_is_whole AFTER INSERT OR UPDATE OF stage ON bill DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION bill_posted_is_whole();

CREATE FUNCTION bill_posted_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND (OLD.stage, NEW.stage) IN (('posted', 'paid'), ('paid', 'posted'))
    AND to_jsonb(OLD) - 'stage' - 'row_version' = to_jsonb(NEW) - 'stage' - 'row_version' THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'A posted bill cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
CREATE TRIGGER bill_posted_stays BEFORE UPDATE OR DELETE ON bill FOR EACH ROW WHEN (OLD.stage IN ('posted', 'paid')) EXECUTE FUNCTION bill_posted_stays();

CREATE FUNCTION bill_line_posted_stays() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE of_bill uuid := CASE WHEN TG_OP = 'INSERT' THEN NEW.bill_id ELSE OLD.bill_id END;
BEGIN
  IF EXISTS (SELECT 1 FROM bill WHERE id = of_bill AND stage IN ('posted', 'paid')) THEN
    RAISE EXCEPTION 'The lines of a posted bill cannot be changed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
  END IF;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER bill_line_posted_stays BEFORE INSERT OR UPDATE OR DELETE ON bill_line FOR EACH ROW EXECUTE FUNCTION bill_line_posted_stays();

-- An open item keeps what is owed; only what is settled moves.
CREATE FUNCTION open_item_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND to_jsonb(OLD) - 'settled' = to_jsonb(NEW) - 'settled' THEN RETURN NEW; END IF;
  RAISE EXCEPTION 'An open item cannot be changed or removed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
END $$;
CREATE TRIGGER open_item_stays BEFORE UPDATE OR DELETE ON open_item FOR EACH ROW EXECUTE FUNCTION open_item_stays();

-- A period closes only by its flag and never goes once something was posted in it.
CREATE FUNCTION period_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM journal_entry WHERE company_id = OLD.company_id AND year = OLD.year AND month = OLD.month)
    AND (TG_OP = 'DELETE' OR (OLD.company_id, OLD.year, OLD.month) IS DISTINCT FROM (NEW.company_id, NEW.year, NEW.month)) THEN
    RAISE EXCEPTION 'A period with entries cannot be removed' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'posted_rows_stay';
  END IF;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER period_stays BEFORE UPDATE OR DELETE ON period FOR EACH ROW EXECUTE FUNCTION period_stays();

-- An original keeps its bytes.
CREATE FUNCTION file_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'Originals are kept byte for byte' USING ERRCODE = 'restrict_violation', CONSTRAINT = 'file_stays';
END $$;
CREATE TRIGGER file_stays BEFORE UPDATE OR DELETE ON file FOR EACH ROW EXECUTE FUNCTION file_stays();
ALTER TABLE file ADD CONSTRAINT file_is_its_hash CHECK (encode(sha256(bytes), 'hex') = sha256);
ALTER TABLE file ALTER COLUMN bytes SET STORAGE EXTERNAL;

-- Whoever watches is told when a transaction that touched these tables commits.
CREATE FUNCTION tell() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('ledgerline', json_build_object('area', TG_ARGV[0], 'company', NEW.company_id, 'id', NEW.id)::text);
  RETURN NULL;
END $$;
CREATE TRIGGER arrival_tells AFTER INSERT OR UPDATE ON arrival FOR EACH ROW EXECUTE FUNCTION tell('arrivals');
CREATE TRIGGER document_tells AFTER INSERT OR UPDATE ON document FOR EACH ROW EXECUTE FUNCTION tell('arrivals');
CREATE TRIGGER bill_tells AFTER INSERT OR UPDATE ON bill FOR EACH ROW EXECUTE FUNCTION tell('bills');
CREATE TRIGGER journal_entry_tells AFTER INSERT ON journal_entry FOR EACH ROW EXECUTE FUNCTION tell('ledger');
CREATE TRIGGER supplier_tells AFTER INSERT OR UPDATE ON supplier FOR EACH ROW EXECUTE FUNCTION tell('suppliers');

-- Bills are searched by words; lists are sorted by supplier.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE INDEX bill_number_words ON bill USING gin (invoice_number gin_trgm_ops);
CREATE INDEX supplier_name_words ON supplier USING gin (name gin_trgm_ops);

-- Keyset paging over columns that may be empty.
CREATE INDEX bill_by_due ON bill (company_id, coalesce(due_date, '9999-12-31'), id);
CREATE INDEX bill_by_dated ON bill (company_id, coalesce(issue_date, '0001-01-01'), id);
CREATE INDEX bill_by_total ON bill (company_id, coalesce(gross, 0), id);
