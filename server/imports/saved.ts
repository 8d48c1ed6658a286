import type { SheetFormat } from '@ledgerline/contract';
import { Refusal } from '../http/problems.ts';
import type { Services } from '../services.ts';
import { csvOf } from './export.ts';
import type { Sheet } from './sheet.ts';

const types: Record<SheetFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};

/** A table as a file to be saved, under a name without its ending. */
export async function savedAs(services: Services, table: Sheet, format: SheetFormat, name: string): Promise<Response> {
  const bytes = format === 'csv' ? Buffer.from(csvOf(table)) : await services.sheets.write(table);
  if (!bytes) throw new Refusal(413, 'This list is too large for a spreadsheet. Take it as CSV.');
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': types[format],
      'content-disposition': `attachment; filename="${name}.${format}"`,
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}

/** So many rows a file has at most. */
const mostSaved = 100_000;

/** All rows of a list that is fetched page by page; refused where they are more than a file has. */
export async function allRows<T, P>(page: (after: P | null) => Promise<{ rows: T[]; next: P | null }>): Promise<T[]> {
  const all: T[] = [];
  for (let at: P | null = null; ;) {
    const { rows, next } = await page(at);
    all.push(...rows);
    if (all.length > mostSaved)
      throw new Refusal(413, `These are more than ${mostSaved.toLocaleString('en-GB')} rows. Narrow the list down, by days for instance.`);
    if (next === null) return all;
    at = next;
  }
}
