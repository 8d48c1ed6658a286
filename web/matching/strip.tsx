import { isGoods } from '@ledgerline/core/bills';
import { ClipboardList } from 'lucide-react';
import type { Desk } from '../desk/use-desk';
import { usePlace } from '../app/company';
import { matchingApi } from './api';
import { summaryOf } from './said';

/** A bill's rows that bill goods or services. */
export const goodsOf = (desk: Desk): string[] => desk.bill.lines.filter((l) => isGoods(l.kind) && l.amount !== null).map((l) => l.id);
/** A bill beside its orders, asked for anew with each version of the bill. */
export function useBillOrders(desk: Desk) {
  const { company, can } = usePlace();
  const asked = { company: company.id, id: desk.bill.id, version: desk.bill.rowVersion };
  return matchingApi.useBillOrdersQuery(asked, { skip: !can('orders:see') }).data;
}

/** Above a bill's head: how it stands with its orders, and the way to them. */
export function OrderStrip({ desk, open }: { desk: Desk; open(): void }) {
  const orders = useBillOrders(desk);
  const said = orders && summaryOf(orders, goodsOf(desk));
  if (!said) return null;
  const off = said.includes('not as ordered');
  return (
    <p className="flex min-h-8 items-center gap-2 border-b hair px-5 py-0.5 text-[14px]">
      <ClipboardList size={14} className={off ? 'shrink-0 text-error' : 'shrink-0 quiet'} aria-hidden />
      <span className="min-w-0 truncate" title={said}>
        {said}
      </span>
      <button className="btn btn-xs btn-outline ml-auto" title="Alt+B" onClick={open}>
        Beside the order
      </button>
    </p>
  );
}
