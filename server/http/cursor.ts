import { isIsoDate } from '@ledgerline/core/dates';
import { Refusal } from './problems.ts';

/** Where a list goes on: the sort value and id of its last row, opaque to the browser. */
export const encodeCursor = (parts: [key: string, id: string]): string => Buffer.from(JSON.stringify(parts)).toString('base64url');

/** Whether a text is the sort value of a list of this kind. */
const fits = {
  text: (key: string) => !key.includes('\0'),
  whole: (key: string) => /^\d{1,15}$/.test(key),
  number: (key: string) => /^-?\d{1,18}(\.\d{1,12})?$/.test(key),
  day: (key: string) => isIsoDate(key),
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
