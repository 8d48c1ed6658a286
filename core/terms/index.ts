export { onlyDays, parseTerms, discountDate, dueDate, type PaymentTerms, type WorkingCalendar } from './terms.ts';
export { dueOf, inParts, instalments, readTerms, type Instalment, type TermsPart } from './instalments.ts';
export { termsKnown, termsMeant, type ListedTerms } from './listed.ts';
