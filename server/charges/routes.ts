import { Bill, ChargeShares, GoodsList, GoodsQuery } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { findGoods } from './goods.ts';
import { shareCharge, showShares } from './service.ts';

export function chargeRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    { path: '/goods', access: 'orders:see', summary: 'What came, line by line, the last first', query: GoodsQuery, answer: GoodsList },
    async ({ caller, query }) => ({ goods: await findGoods(db, caller.company, query) }),
  );
  api.query(
    { path: '/bills/:id/rows/:row/shares', access: 'bills:see', summary: 'How a charge is shared over what came', answer: ChargeShares },
    ({ caller, params }) => showShares(db, caller.company, params['id']!, params['row']!),
  );
  api.command(
    { method: 'post', path: '/bills/:id/share-charge', summary: 'Share a charge over what came, or expense it', answer: Bill },
    shareCharge,
  );
}
