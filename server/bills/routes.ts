import { and, asc, eq, inArray, ne, sql } from 'drizzle-orm';
import { BillsQuery, MoveBill, MoveWithNote, SaveBill, type BillList, type JournalPreview, type NextBill } from '@ledgerline/contract';
import { Type } from '@sinclair/typebox';
import { bill } from '../db/schema/index.ts';
import { encodeCursor } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { previewOf } from '../ledger/journal.ts';
import { today } from '../services.ts';
import { approve, discard, getBill, restore, returnBill, saveBill, sendOn, setAside, takeBack } from './service.ts';
import { listBills } from './store.ts';

const queues = { review: ['read', 'returned'], approve: ['coded'] } as const;
const NextQuery = Type.Object({
  after: Type.Optional(Type.String({ format: 'uuid' })),
  queue: Type.Optional(Type.Union([Type.Literal('review'), Type.Literal('approve')])),
});

export function billRoutes(api: Api): void {
  api.define(
    { method: 'get', path: '/bills', access: 'bills:see', summary: 'Bills of all stages: searched, sorted, by keyset', query: BillsQuery },
    async ({ services, caller, query }): Promise<BillList> => {
      const rows = await listBills(services.database.db, caller.company.id, query, today(services));
      const last = rows[rows.length - 1];
      return {
        bills: rows.map((r) => r.row),
        next: last && rows.length === (query.limit ?? 100) ? encodeCursor([last.key, last.row.id]) : null,
      };
    },
  );
  api.define(
    {
      method: 'get',
      path: '/bills/next',
      access: 'bills:see',
      summary: 'The next bill that waits, oldest first, and how many wait',
      query: NextQuery,
    },
    async ({ services, caller, query }): Promise<NextBill> => {
      const waiting = and(
        eq(bill.companyId, caller.company.id),
        inArray(bill.stage, [...queues[query.queue ?? 'review']]),
        query.queue === 'approve' ? ne(bill.sentBy, caller.me.id) : undefined,
      );
      const rows = await services.database.db
        .select({ id: bill.id })
        .from(bill)
        .where(waiting)
        .orderBy(asc(bill.createdAt), asc(bill.id))
        .limit(500);
      const at = rows.findIndex((r) => r.id === query.after);
      const next = rows[at + 1] ?? rows.find((r) => r.id !== query.after) ?? null;
      return { id: next?.id ?? null, left: rows.length };
    },
  );
  api.define(
    { method: 'get', path: '/bills/:id', access: 'bills:see', summary: 'One bill with lines, exceptions and history' },
    ({ services, caller, params }) => getBill(services.database.db, caller, params['id']!, today(services)),
  );
  api.define(
    { method: 'patch', path: '/bills/:id', access: 'bills:edit', summary: 'Save what changed', body: SaveBill },
    ({ services, caller, params, body }) => saveBill(services, caller, params['id']!, body),
  );
  api.define(
    {
      method: 'post',
      path: '/bills/:id/send',
      access: 'bills:edit',
      summary: 'Send a reviewed and coded bill to approval',
      body: MoveBill,
    },
    ({ services, caller, params, body }) => sendOn(services, caller, params['id']!, body.rowVersion),
  );
  api.define(
    {
      method: 'post',
      path: '/bills/:id/take-back',
      access: 'bills:edit',
      summary: 'Take back a bill that nobody has decided yet',
      body: MoveBill,
    },
    ({ services, caller, params, body }) => takeBack(services, caller, params['id']!, body.rowVersion),
  );
  api.define(
    { method: 'post', path: '/bills/:id/approve', access: 'bills:approve', summary: 'Approve a bill', body: MoveBill },
    ({ services, caller, params, body }) => approve(services, caller, params['id']!, body.rowVersion),
  );
  api.define(
    { method: 'post', path: '/bills/:id/return', access: 'bills:approve', summary: 'Return a bill with a note', body: MoveWithNote },
    ({ services, caller, params, body }) => returnBill(services, caller, params['id']!, body.rowVersion, body.note),
  );
  api.define(
    { method: 'post', path: '/bills/:id/set-aside', access: 'bills:edit', summary: 'Set a bill aside', body: MoveWithNote },
    ({ services, caller, params, body }) => setAside(services, caller, params['id']!, body.rowVersion, body.note),
  );
  api.define(
    { method: 'post', path: '/bills/:id/discard', access: 'bills:edit', summary: 'Discard a bill', body: MoveWithNote },
    ({ services, caller, params, body }) => discard(services, caller, params['id']!, body.rowVersion, body.note),
  );
  api.define(
    { method: 'post', path: '/bills/:id/restore', access: 'bills:edit', summary: 'Take up a bill again', body: MoveBill },
    ({ services, caller, params, body }) => restore(services, caller, params['id']!, body.rowVersion),
  );
  api.define(
    { method: 'get', path: '/bills/:id/journal', access: 'ledger:see', summary: 'The journal entry before it exists' },
    ({ services, caller, params }): Promise<JournalPreview> =>
      previewOf(services.database.db, caller.company, params['id']!, today(services)),
  );
  api.define(
    { method: 'get', path: '/bills/:id/with-supplier', access: 'bills:see', summary: 'The last bills from the same supplier' },
    async ({ services, caller, params }): Promise<BillList> => {
      const [one] = await services.database.db
        .select({ supplierId: bill.supplierId })
        .from(bill)
        .where(and(eq(bill.companyId, caller.company.id), eq(bill.id, params['id']!)));
      if (!one?.supplierId) return { bills: [], next: null };
      const ids = await services.database.db
        .select({
          id: bill.id,
          number: bill.invoiceNumber,
          issueDate: bill.issueDate,
          gross: bill.gross,
          currency: bill.currency,
          stage: bill.stage,
          kind: bill.kind,
          dueDate: bill.dueDate,
          createdAt: bill.createdAt,
          rowVersion: bill.rowVersion,
        })
        .from(bill)
        .where(
          and(
            eq(bill.companyId, caller.company.id),
            eq(bill.supplierId, one.supplierId),
            ne(bill.id, params['id']!),
            ne(bill.stage, 'discarded'),
          ),
        )
        .orderBy(sql`${bill.issueDate} desc nulls last`)
        .limit(6);
      return {
        bills: ids.map((r) => ({
          id: r.id,
          stage: r.stage,
          kind: r.kind as 'invoice',
          supplier: null,
          supplierId: one.supplierId,
          invoiceNumber: r.number,
          issueDate: r.issueDate,
          dueDate: r.dueDate,
          currency: r.currency,
          gross: r.gross,
          arrivedAt: r.createdAt.toISOString(),
          rowVersion: r.rowVersion,
          sentBy: null,
          entry: null,
          unsure: 0,
        })),
        next: null,
      };
    },
  );
}
