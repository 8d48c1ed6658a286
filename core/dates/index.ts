export { addDays, addMonths, endOfMonth, yearOf, monthOf, daysBetween, dayInWords, dayOf, isIsoDate, type IsoDate } from './dates.ts';
export { addWorkingDays, calendarCountries, dueOns, easter, holidays, isWorkingDay, onWorkingDay, type DueOn } from './working.ts';
export { monthNamed } from './months.ts';
export { findDates, typedDate, type DateOrder, type FoundDate } from './parse.ts';
