export { checkOf, checks, runChecks } from './registry.ts';
export { spacedIban } from './supplier.ts';
export type { Check, CheckedBill, CheckedLine, Exception, Facts, Setting, Settling, Severity } from './types.ts';
