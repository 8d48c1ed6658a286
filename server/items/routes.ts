import { Changed, ItemList, ListQuery } from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { changeItem, newItem } from './service.ts';
import { listItems } from './store.ts';

export function itemRoutes(api: Api): void {
  api.query(
    { path: '/items', access: 'settings:see', summary: 'Items, by code', query: ListQuery, answer: ItemList },
    async ({ services, caller, query }) => {
      const limit = query.limit ?? 100;
      const items = await listItems(services.database.db, caller.company.id, query.q ?? '', decodeCursor(query.cursor, 'text'), limit);
      return { items, next: nextOf(items, limit, (last) => [last.code, last.id]) };
    },
  );
  api.command({ method: 'post', path: '/items', summary: 'A new item', answer: Changed }, newItem);
  api.command({ method: 'put', path: '/items/:id', summary: 'Change or close an item', answer: Changed }, changeItem);
}
