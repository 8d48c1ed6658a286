import { Changed, Choice, ItemsQuery, Nothing, SupplierAccount, SupplierItems, SupplierList, SuppliersQuery } from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { proposeAccount, retireAccount, verifyAccount } from './bank.ts';
import { changeSupplier, newSupplier } from './service.ts';
import { listSuppliers, supplierAccount, supplierItems } from './store.ts';

export function supplierRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    {
      path: '/suppliers',
      access: 'suppliers:see',
      summary: 'The supplier master list with what is open, by name',
      query: SuppliersQuery,
      answer: SupplierList,
    },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100;
      const suppliers = await listSuppliers(db, caller.company.id, query.q ?? '', decodeCursor(query.cursor, 'text'), limit);
      return { suppliers, next: nextOf(suppliers, limit, (last) => [last.name, last.id]) };
    },
  );
  api.query(
    { path: '/suppliers/:id', access: 'suppliers:see', summary: 'A supplier and its account', answer: SupplierAccount },
    ({ caller, params }) => supplierAccount(db, caller.company.id, params['id']!),
  );
  api.query(
    {
      path: '/suppliers/:id/items',
      access: 'suppliers:see',
      summary: 'What is owed to a supplier or by it, open before settled, new before old',
      query: ItemsQuery,
      answer: SupplierItems,
    },
    async ({ caller, params, query }) => {
      const limit = query.limit ?? 100,
        at = decodeCursor(query.cursor, 'item');
      const after = at && { open: at[0].startsWith('open '), day: at[0].slice(-10), id: at[1] };
      const rows = await supplierItems(db, caller.company.id, params['id']!, query.show, after, limit);
      return {
        items: rows.map((r) => r.item),
        next: nextOf(rows, limit, ({ key }) => [`${key.open ? 'open' : 'settled'} ${key.day}`, key.id]),
      };
    },
  );
  api.command({ method: 'post', path: '/suppliers', summary: 'A new supplier', answer: Choice }, newSupplier);
  api.command(
    { method: 'put', path: '/suppliers/:id', summary: 'Change a supplier’s master data', answer: Changed, tried: true },
    changeSupplier,
  );
  api.command(
    { method: 'post', path: '/suppliers/:id/bank-accounts', summary: 'Enter bank details; they wait for a second person', answer: Changed },
    proposeAccount,
  );
  api.command(
    { method: 'post', path: '/bank-accounts/:id/verify', summary: 'Verify bank details, and say how', answer: Nothing },
    verifyAccount,
  );
  api.command({ method: 'post', path: '/bank-accounts/:id/retire', summary: 'Retire bank details', answer: Nothing }, retireAccount);
}
