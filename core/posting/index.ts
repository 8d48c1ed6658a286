export { journalOf, type Journal, type JournalLine, type PostingBill, type PostingLine } from './journal.ts';
