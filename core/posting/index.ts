export { bearerOf, journalOf, type Bearer, type Journal, type JournalLine, type PostingBill, type PostingLine } from './journal.ts';
