import { Changed, NotBilled, NotBilledFileQuery, NotBilledQuery } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { savedAs } from '../imports/saved.ts';
import { newReceipt } from './service.ts';
import { notBilledTable, receivedNotBilled } from './unbilled.ts';

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
  api.raw(
    {
      method: 'get',
      path: '/received-not-billed/file',
      access: 'orders:see',
      summary: 'What had come by a day and was not billed then, as CSV or XLSX',
      query: NotBilledFileQuery,
    },
    async ({ services, caller, query }) => {
      const found = await receivedNotBilled(services.database.db, caller.company, query.on);
      return savedAs(services, notBilledTable(found), query.format, `received not billed ${query.on}`);
    },
  );
  api.command({ method: 'post', path: '/receipts', summary: 'What came of an order, or went back', answer: Changed }, newReceipt);
}
