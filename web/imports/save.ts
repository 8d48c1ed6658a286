import type { ImportListName, SheetFormat } from '@ledgerline/contract';
import { at } from '../app/api';

/** Has the browser save what a path of a company answers as a file. */
export function saveFile(company: string, path: string, asked: Record<string, string | undefined>): void {
  const given = Object.entries(asked).filter((pair): pair is [string, string] => Boolean(pair[1]));
  const link = document.createElement('a');
  link.href = `/api${at(company, path)}?${new URLSearchParams(given).toString()}`;
  link.download = '';
  link.click();
}

/** The same of a list that also comes from files; `empty`: its heads alone. */
export const saveList = (
  company: string,
  list: ImportListName,
  asked: { format: SheetFormat; q?: string; dimension?: string; empty?: '1' },
): void => saveFile(company, `/exports/${list}`, asked);
