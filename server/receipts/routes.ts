import { Changed } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { newReceipt } from './service.ts';

export function receiptRoutes(api: Api): void {
  api.command({ method: 'post', path: '/receipts', summary: 'What came of an order, or went back', answer: Changed }, newReceipt);
}
