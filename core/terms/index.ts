export { onlyDays, parseTerms, discountDate, dueDate, type PaymentTerms } from './terms.ts';
