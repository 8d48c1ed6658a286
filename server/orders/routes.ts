import { Changed, Order, OrderList, OrdersQuery } from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { changeOrder, newOrder } from './service.ts';
import { findOrder, listOrders } from './store.ts';

export function orderRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    { path: '/orders', access: 'orders:see', summary: 'Purchase orders, the newest first', query: OrdersQuery, answer: OrderList },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100;
      const orders = await listOrders(db, caller.company.id, query, decodeCursor(query.cursor, 'day'), limit);
      return { orders, next: nextOf(orders, limit, (last) => [last.orderDate, last.id]) };
    },
  );
  api.query(
    { path: '/orders/:id', access: 'orders:see', summary: 'A purchase order with its lines', answer: Order },
    ({ caller, params }) => findOrder(db, caller.company.id, params['id']!),
  );
  api.command({ method: 'post', path: '/orders', summary: 'A new purchase order', answer: Changed }, newOrder);
  api.command({ method: 'put', path: '/orders/:id', summary: 'Change or close a purchase order', answer: Changed }, changeOrder);
}
