export {
  bearerOf,
  journalOf,
  type Bearer,
  type Journal,
  type JournalLine,
  type TaxLine,
  type PostingBill,
  type PostingLine,
} from './journal.ts';
