import { useDispatch } from 'react-redux';
import { toast } from 'sonner';
import type { BillRow } from '@ledgerline/contract';
import { api, list, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { billsApi } from './api';

/** What can be done with many bills at once. */
export type Together = { do: 'send' } | { do: 'assign'; personId: string | null } | { do: 'set-aside'; note: string; until: string | null };
const words = { send: 'sent to approval', assign: 'handed over', 'set-aside': 'set aside' };

/**
 * Does the same with many bills, one after another: each is done wholly or not at all, and one that cannot be keeps back none of the
 * others. Tells how far it is, and in the end which were left, and why.
 */
export function useTogether(): (what: Together, bills: readonly BillRow[]) => Promise<void> {
  const { company } = usePlace();
  const [move] = billsApi.useMoveBillMutation();
  const [assign] = billsApi.useAssignBillMutation();
  const dispatch = useDispatch();
  return async (what, bills) => {
    const id = toast.loading(`0 of ${bills.length} …`);
    const left: string[] = [];
    for (const [i, b] of bills.entries()) {
      const of = { company: company.id, id: b.id, rowVersion: b.rowVersion };
      try {
        if (what.do === 'assign') await assign({ ...of, personId: what.personId }).unwrap();
        else if (what.do === 'send') await move({ ...of, move: 'send' }).unwrap();
        else await move({ ...of, move: 'set-aside', note: what.note, until: what.until }).unwrap();
      } catch (e) {
        left.push(`${b.invoiceNumber ?? 'No number'}: ${sentenceOf(e)}`);
      }
      toast.loading(`${i + 1} of ${bills.length} …`, { id });
    }
    dispatch(api.util.invalidateTags([list('bill'), 'today']));
    const done = `${bills.length - left.length} ${words[what.do]}`;
    if (left.length === 0) toast.success(done, { id });
    else
      toast.error(`${done}. Left: ${left.slice(0, 5).join(' ')}${left.length > 5 ? ` and ${left.length - 5} more.` : ''}`, {
        id,
        duration: 15_000,
      });
  };
}
