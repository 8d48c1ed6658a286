import { isIsoDate } from '@ledgerline/core/dates';
import { keepable } from '../db/text.ts';
import { Refusal } from './problems.ts';

/** The sort value and id of a list's last row, opaque to the browser. */
const encodeCursor = (parts: [key: string, id: string]): string => Buffer.from(JSON.stringify(parts)).toString('base64url');

/** Where a list goes on after these rows, of which `limit` were asked for; null at its end. */
export function nextOf<T>(rows: readonly T[], limit: number, parts: (last: T) => [key: string, id: string]): string | null {
  const last = rows[rows.length - 1];
  return last !== undefined && rows.length === limit ? encodeCursor(parts(last)) : null;
}

/** Whether a text is the sort value of a list of this kind. */
const fits = {
  text: keepable,
  whole: (key: string) => /^\d{1,15}$/.test(key),
  number: (key: string) => /^-?\d{1,18}(\.\d{1,12})?$/.test(key),
  // Bills without a date stand at the ends of time.
  day: (key: string) => isIsoDate(key) || key === '9999-12-31' || key === '0001-01-01',
  dayed: (key: string) => isIsoDate(key.slice(0, 10)) && keepable(key),
  item: (key: string) => /^(open|settled) /.test(key) && isIsoDate(key.slice(key.indexOf(' ') + 1)),
  moment: (key: string) =>
    /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}:\d{2}(\.\d{1,6})?(Z|[+-]\d{2}(:?\d{2})?)$/.test(key) &&
    isIsoDate(key.slice(0, 10)) &&
    !Number.isNaN(Date.parse(`${key.slice(0, 10)}T${key.slice(11, 19)}Z`)),
};

/** The sort value and id that a cursor stands for; null without one. Refused where it is none of this list's. */
export function decodeCursor(cursor: string | undefined, kind: keyof typeof fits): [key: string, id: string] | null {
  if (!cursor) return null;
  try {
    const parts: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString());
    if (
      Array.isArray(parts) &&
      parts.length === 2 &&
      parts.every((p) => typeof p === 'string') &&
      fits[kind](parts[0] as string) &&
      /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(parts[1] as string)
    )
      return parts as [string, string];
  } catch {
    /* falls through */
  }
  throw new Refusal(400, 'This place in the list is not known any more. Load the list again.');
}
