import { Type } from '@sinclair/typebox';
import {
  Bill,
  BillDocuments,
  BillList,
  Changed,
  BillsFileQuery,
  BillsQuery,
  Id,
  JournalPreview,
  MovedTo,
  NextBill,
  Nothing,
  Presence,
} from '@ledgerline/contract';
import { snapshot } from '../db/client.ts';
import { nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { notFound } from '../http/problems.ts';
import { previewOf } from '../ledger/journal.ts';
import { today } from '../services.ts';
import { uploadLimit } from '../arrivals/routes.ts';
import { savedAs } from '../imports/saved.ts';
import { filesOf } from '../http/body.ts';
import { changeBill } from './change.ts';
import { newBill } from './by-hand.ts';
import { billTable } from './file.ts';
import { documentsFor, fileForBill, joinDocument } from './documents.ts';
import { assignBill, takeNext } from './hands.ts';
import { moveToCompany } from './move-company.ts';
import { atBill, leftBill } from './presence.ts';
import { approve, discard, restore, returnBill, sendOn, setAside, takeBack } from './moves.ts';
import { listBills, nextBill, sameSupplier } from './search.ts';
import { settleException } from './settle.ts';
import { getBill } from './show.ts';

const Arrived = Type.Object({ arrivalId: Id });
const NextQuery = Type.Object({
  after: Type.Optional(Type.String({ format: 'uuid' })),
  queue: Type.Optional(Type.Union([Type.Literal('review'), Type.Literal('approve')])),
});

export function billRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    {
      path: '/bills',
      access: 'bills:see',
      summary: 'Bills of all stages: searched, sorted, by keyset',
      query: BillsQuery,
      answer: BillList,
    },
    async ({ services, caller, query }) => {
      const rows = await listBills(db, caller, query, today(services));
      return {
        bills: rows.map((r) => r.row),
        next: nextOf(rows, query.limit ?? 100, (last) => [last.key, last.row.id]),
      };
    },
  );
  api.raw(
    { method: 'get', path: '/bills/file', access: 'bills:see', summary: 'Bills as CSV or XLSX, as they are found', query: BillsFileQuery },
    async ({ services, caller, query: { format, ...asked } }) =>
      savedAs(services, await billTable(db, caller, asked, today(services)), format, 'bills'),
  );
  api.query(
    {
      path: '/bills/next',
      access: 'bills:see',
      summary: 'The next bill that waits, oldest first, and how many wait',
      query: NextQuery,
      answer: NextBill,
    },
    ({ caller, query }) => nextBill(db, caller.company.id, caller.me.id, query.queue ?? 'review', query.after),
  );
  api.query(
    { path: '/bills/:id', access: 'bills:see', summary: 'One bill with lines, exceptions and history', answer: Bill },
    ({ services, caller, params }) => snapshot(db, (tx) => getBill(tx, caller.company, params['id']!, today(services))),
  );
  api.query(
    { path: '/bills/:id/journal', access: 'ledger:see', summary: 'The journal entry before it exists', answer: JournalPreview },
    ({ services, caller, params }) => previewOf(db, caller.company, params['id']!, today(services)),
  );
  api.query(
    { path: '/bills/:id/with-supplier', access: 'bills:see', summary: 'The last bills from the same supplier', answer: BillList },
    async ({ caller, params }) => {
      const bills = await sameSupplier(db, caller.company.id, params['id']!);
      if (!bills) throw notFound('This bill');
      return { bills, next: null };
    },
  );
  api.command({ method: 'patch', path: '/bills/:id', summary: 'Save what changed, by operations', answer: Bill }, changeBill);
  api.command(
    { method: 'post', path: '/bills/:id/exceptions', summary: 'Settle an exception: choose, confirm or overrule', answer: Bill },
    settleException,
  );
  api.command({ method: 'post', path: '/bills', summary: 'A bill by hand: new, a copy, a credit note', answer: Changed }, newBill);
  api.query(
    {
      path: '/bills/:id/documents',
      access: 'bills:see',
      summary: 'Documents beside a bill, and those that could be',
      answer: BillDocuments,
    },
    ({ services, caller, params }) => documentsFor(db, caller.company.id, params['id']!, services.now()),
  );
  api.command({ method: 'post', path: '/bills/:id/documents', summary: 'Put a document that came to a bill', answer: Bill }, joinDocument);
  for (const [path, as, summary] of [
    ['own-file', 'own', 'Bring the file of a bill that has none (multipart, field "file")'],
    ['further-file', 'further', 'Bring a file to keep beside a bill (multipart, field "file")'],
  ] as const)
    api.raw(
      { method: 'post', path: `/bills/:id/${path}`, access: 'bills:edit', summary, answer: Arrived },
      async ({ c, services, caller, params }) => {
        const given = async () => {
          const [file] = await filesOf(c, 'file', uploadLimit, 'This is more than 100 MB. Bring a smaller one.');
          const bytes = new Uint8Array(await file!.arrayBuffer());
          return { name: file!.name || 'file', mediaType: file!.type || 'application/octet-stream', bytes };
        };
        return { arrivalId: await fileForBill(services, caller, params['id']!, as, given) };
      },
    );
  api.command({ method: 'post', path: '/bills/take', summary: 'Take the next bill of the queue', answer: NextBill }, takeNext);
  api.command({ method: 'post', path: '/bills/:id/assign', summary: 'Into whose hands a bill goes', answer: Bill }, assignBill);
  api.command({ method: 'post', path: '/bills/:id/move', summary: 'Move a bill to another company', answer: MovedTo }, moveToCompany);
  api.command({ method: 'post', path: '/bills/:id/here', summary: 'Be at a bill, and see who else is', answer: Presence }, atBill);
  api.command({ method: 'delete', path: '/bills/:id/here', summary: 'Leave a bill', answer: Nothing }, leftBill);
  for (const [path, summary, use] of [
    ['send', 'Send a reviewed and coded bill to approval', sendOn],
    ['take-back', 'Take back a bill that nobody has decided yet', takeBack],
    ['approve', 'Approve a bill', approve],
    ['restore', 'Take up a bill again', restore],
  ] as const)
    api.command({ method: 'post', path: `/bills/:id/${path}`, summary, answer: Bill }, use);
  for (const [path, summary, use] of [
    ['return', 'Return a bill with a note', returnBill],
    ['set-aside', 'Set a bill aside', setAside],
    ['discard', 'Discard a bill', discard],
  ] as const)
    api.command({ method: 'post', path: `/bills/:id/${path}`, summary, answer: Bill }, use);
}
