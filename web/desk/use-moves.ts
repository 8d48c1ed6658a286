import { useCallback, useEffect, useRef } from 'react';
import { useDispatch, useStore } from 'react-redux';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api, problemOf, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { flushBill, type RootState } from '../app/store';
import { billsApi, movedTags, type MoveKind } from '../bills/api';
import { focusField } from './focus';
import { opened } from './state';
import { useAhead } from './use-ahead';
import { useSitting } from './use-sitting';

const said: Partial<Record<MoveKind, string>> = { send: 'went to approval', 'set-aside': 'is set aside', discard: 'is discarded' };

/** The ways a bill leaves the desk: saved first, moved as it then stands, and the next one opened. `shown`: it is on the screen, page and all. */
export function useMoves(id: string, number: string | null, shown: boolean) {
  const { company } = usePlace();
  const navigate = useNavigate();
  const dispatch = useDispatch();
  const store = useStore<RootState>();
  const { ahead, left } = useAhead(id, shown);
  const { sitting, note: noteDone } = useSitting(id);
  const [take] = billsApi.useTakeNextMutation();
  const [assign] = billsApi.useAssignBillMutation();
  const [moveTo] = billsApi.useMoveToCompanyMutation();
  const [move] = billsApi.useMoveBillMutation();
  const acting = useRef(false);
  // The bill that left is told of when the next one is on the screen, or nobody is at the desk: what is looked at comes first.
  const owed = useRef<string | null>(null);
  const tell = useCallback(() => {
    if (owed.current) dispatch(api.util.invalidateTags(movedTags(owed.current)));
    owed.current = null;
  }, [dispatch]);
  useEffect(() => {
    if (shown && owed.current !== id) tell();
  }, [id, shown, tell]);
  useEffect(() => tell, [tell]);
  const go = (to: string | null | undefined) => void navigate(to ? `/bills/${to}` : '/bills?q=stage:read,returned');
  /** On to the next of the queue, which is in this person's hands from then on: one of those that are ready, if nobody has taken it. */
  const nextOf = () =>
    take({ company: company.id, body: { prefer: ahead, not: [id] } })
      .unwrap()
      .catch(() => ({ id: ahead[0] ?? null }));
  /** Does something with the bill as it stands here: what is typed is saved first. False where it was not done. */
  const saved = async (work: (rowVersion: number) => Promise<void>): Promise<boolean> => {
    if (acting.current) return false;
    acting.current = true;
    // What stands in the field in hand is taken first.
    (document.activeElement as HTMLElement | null)?.blur();
    try {
      if (!(await flushBill(id))) {
        const held = store.getState().desk.held[id];
        toast.error(held?.sentence ?? 'What you typed is not saved yet.');
        return false;
      }
      await work(store.getState().desk.held[id]!.base.rowVersion);
      return true;
    } catch (e) {
      toast.error(sentenceOf(e));
      const path = problemOf(e).data?.errors?.[0]?.path;
      if (path && document.activeElement === document.body) focusField(path);
      return false;
    } finally {
      acting.current = false;
    }
  };
  const act = (what: MoveKind, more: { note?: string; until?: string | null } = {}) =>
    saved(async (rowVersion) => {
      // Asked for at once, so that nobody waits for two answers one after the other; not where it is known that this one stays.
      const stays = what === 'send' && store.getState().desk.held[id]!.base.exceptions.some((e) => e.severity === 'stops');
      const begun = said[what] && !stays ? nextOf() : null;
      const leaves = said[what] !== undefined;
      const done = await move({ company: company.id, id, move: what, rowVersion, later: leaves, ...more }).unwrap();
      dispatch(opened({ bill: done }));
      if (!leaves) return;
      owed.current = id;
      if (what === 'send') noteDone(number ?? 'no number');
      toast(`${number ?? 'The bill'} ${said[what]}`, {
        action: {
          label: 'Undo',
          onClick: () =>
            void move({ company: company.id, id, move: what === 'send' ? 'take-back' : 'restore', rowVersion: done.rowVersion })
              .unwrap()
              .then(
                (back) => {
                  dispatch(opened({ bill: back }));
                  go(id);
                },
                (e) => toast.error(sentenceOf(e)),
              ),
        },
      });
      go((await (begun ?? nextOf())).id);
    });
  /** Gives the bill into somebody's hands; null: back to the queue. */
  const handOver = (personId: string | null) =>
    saved(async (rowVersion) => void dispatch(opened({ bill: await assign({ company: company.id, id, rowVersion, personId }).unwrap() })));
  const moveCompany = (to: { id: string; name: string }) =>
    saved(async (rowVersion) => {
      const next = nextOf();
      await moveTo({ company: company.id, id, rowVersion, companyId: to.id }).unwrap();
      toast(`${number ?? 'The bill'} is with ${to.name} now`);
      go((await next).id);
    });
  /** Leaves the desk; what is typed is kept and saved on the way. */
  const leave = () => {
    void flushBill(id);
    void navigate(-1);
  };
  return { act, handOver, moveCompany, leave, left, sitting };
}
