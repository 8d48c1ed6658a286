export { parseTerms, dueDate, type PaymentTerms } from './terms.ts';
