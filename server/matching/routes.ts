import { Bill, BillOrders, MatchingRules, Nothing } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { today } from '../services.ts';
import { matchingRules, setMatchingRules } from './rules.ts';
import { drawDebitNote, setMatch, setWithoutOrder } from './service.ts';
import { billOrders } from './view.ts';
import { waitForReceipt } from './waiting.ts';

export function matchingRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    { path: '/bills/:id/orders', access: 'bills:see', summary: 'A bill beside the orders that it bills', answer: BillOrders },
    ({ services, caller, params }) => billOrders(db, caller.company.id, params['id']!, today(services)),
  );
  api.query(
    { path: '/matching', access: 'settings:see', summary: 'How far bills may be from their orders', answer: MatchingRules },
    ({ caller }) => matchingRules(db, caller.company.id),
  );
  api.command(
    { method: 'put', path: '/matching', summary: 'Set how far bills may be from their orders', answer: Nothing },
    setMatchingRules,
  );
  const step = (path: string, summary: string) => ({ method: 'post' as const, path: `/bills/:id/${path}`, summary, answer: Bill });
  api.command(step('match', 'Say which line of an order a row bills'), setMatch);
  api.command(step('without-order', 'A bill of no order, and back'), setWithoutOrder);
  api.command(step('await-receipt', 'Aside until what it bills has come'), waitForReceipt);
  api.command(step('debit-note', 'Draw up a debit note for what is beyond the orders'), drawDebitNote);
}
