import { Refusal } from '../http/problems.ts';

/** The PostgreSQL or network code of an error, however deep it lies. */
export function codeOf(error: unknown): string | null {
  for (let e: unknown = error; e instanceof Error; e = e.cause) if ('code' in e && typeof e.code === 'string') return e.code;
  return null;
}

/** Codes that say that the room is used up: the database's disk, or this machine's (PostgreSQL, appendix A; errno). */
const full = new Set(['53100', 'ENOSPC', 'EDQUOT']);
/** Codes that say that the database is not there now: gone, ending, starting, or with no connection left. */
const gone = /^(57P0[1-5]|53300|08\w{3}|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|EHOSTUNREACH)$/;

export const isFull = (error: unknown): boolean => full.has(codeOf(error) ?? '');
export const isGone = (error: unknown): boolean =>
  gone.test(codeOf(error) ?? '') || /Connection terminated|timeout exceeded when trying to connect/.test(messageOf(error));
/** Two units of work waited for each other, or saw each other's rows change: each may be done again from the start. */
export const isCrossed = (error: unknown): boolean => ['40P01', '40001'].includes(codeOf(error) ?? '');

function messageOf(error: unknown): string {
  let said = '';
  for (let e: unknown = error; e instanceof Error; e = e.cause) said += `${e.message} `;
  return said;
}

/** What is wrong with the machine rather than with what was asked, in words; null for anything else. */
export function away(error: unknown): Refusal | null {
  if (isFull(error))
    return new Refusal(507, 'The disk is full, so nothing can be kept now. Nothing was changed; try again once there is room.');
  if (isGone(error)) return new Refusal(503, 'The database does not answer just now. Nothing was changed; please try again in a moment.');
  if (codeOf(error) === '57014') return new Refusal(503, 'This took too long and was stopped. Nothing was changed; ask for less at once.');
  if (isCrossed(error)) return new Refusal(409, 'Somebody else changed the same at this moment. Nothing was changed; please try again.');
  return null;
}
