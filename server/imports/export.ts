import { formatCsv } from '@ledgerline/core/clipboard';
import type { ImportListName } from '@ledgerline/contract';
import type { ImportValue } from '@ledgerline/core/imports';
import type { Executor } from '../db/client.ts';
import type { Sheet } from './sheet.ts';
import { writers } from './writers/index.ts';

const textOf = (value: ImportValue | undefined): string => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? ''));

/** A company's list as heads and rows of text, as an import takes it: those that the words fit, by what tells them apart. `empty`: heads alone; `dimension`: values of this one alone. */
export async function tableOfList(
  db: Executor,
  companyId: string,
  list: ImportListName,
  q: string,
  empty: boolean,
  dimension?: string,
): Promise<Sheet> {
  const writer = writers[list],
    { fields, key } = writer.spec;
  const heads = fields.map((f) => f.label);
  if (empty) return { heads, rows: [] };
  const words = q.toLowerCase().split(/\s+/).filter(Boolean);
  const all = [...(await writer.current(db, companyId)).values()].map((c) => c.values);
  const fits = all.filter((v) => {
    if (dimension !== undefined && v['dimension'] !== dimension) return false;
    const said = ['dimension', 'code', 'name', 'group', 'taxId', 'currency', 'day', 'account', 'costCentre', 'year', 'alsoCalled']
      .map((k) => textOf(v[k]))
      .join(' ')
      .toLowerCase();
    return words.every((word) => said.includes(word));
  });
  const order = (v: (typeof all)[number]) => key.map((k) => textOf(v[k])).join(' ');
  fits.sort((a, b) => (order(a) < order(b) ? -1 : 1));
  return { heads, rows: fits.map((v) => fields.map((f) => textOf(v[f.key]))) };
}

/** A table as CSV, with the mark by which spreadsheets know UTF-8. */
export const csvOf = ({ heads, rows }: Sheet): string => `\uFEFF${formatCsv([heads, ...rows])}`;
