export { addDays, addMonths, endOfMonth, yearOf, monthOf, daysBetween, dayInWords, dayOf, isIsoDate, type IsoDate } from './dates.ts';
export { findDates, typedDate, type DateOrder, type FoundDate } from './parse.ts';
