import { Changed, NotBilled, NotBilledQuery } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { newReceipt } from './service.ts';
import { receivedNotBilled } from './unbilled.ts';

export function receiptRoutes(api: Api): void {
  api.query(
    {
      path: '/received-not-billed',
      access: 'orders:see',
      summary: 'What had come by a day and was not billed then',
      query: NotBilledQuery,
      answer: NotBilled,
    },
    ({ services, caller, query }) => receivedNotBilled(services.database.db, caller.company, query.on),
  );
  api.command({ method: 'post', path: '/receipts', summary: 'What came of an order, or went back', answer: Changed }, newReceipt);
}
