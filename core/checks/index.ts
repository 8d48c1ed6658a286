export { check, type CheckedBill, type CheckedLine, type CheckContext, type Exception } from './checks.ts';
