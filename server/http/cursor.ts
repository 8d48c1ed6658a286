import { Refusal } from './problems.ts';

/** Where a list goes on: the sort value and id of its last row, opaque to the browser. */
export const encodeCursor = (parts: string[]): string => Buffer.from(JSON.stringify(parts)).toString('base64url');

export function decodeCursor(cursor: string | undefined): string[] | null {
  if (!cursor) return null;
  try {
    const parts: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString());
    if (
      Array.isArray(parts) &&
      parts.length === 2 &&
      parts.every((p) => typeof p === 'string') &&
      /^[0-9a-f-]{36}$/.test(parts[1] as string)
    )
      return parts as string[];
  } catch {
    /* falls through */
  }
  throw new Refusal(400, 'This place in the list is not known any more. Load the list again.');
}
