import type { ImportListName } from '@ledgerline/contract';
import { at } from '../app/api';

/** Has the browser save a list as a file; `empty`: its heads alone. */
export function saveList(company: string, list: ImportListName, asked: { format: 'csv' | 'xlsx'; q?: string; empty?: '1' }): void {
  const link = document.createElement('a');
  link.href = `/api${at(company, `/exports/${list}`)}?${new URLSearchParams(asked).toString()}`;
  link.download = '';
  link.click();
}
