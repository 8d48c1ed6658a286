import { useRef } from 'react';
import { useDispatch, useStore } from 'react-redux';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { problemOf, sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { flushBill, type RootState } from '../app/store';
import { billsApi, type MoveKind } from '../bills/api';
import { focusField } from './focus';
import { opened } from './state';
import { useAhead } from './use-ahead';

const said: Partial<Record<MoveKind, string>> = { send: 'went to approval', 'set-aside': 'is set aside', discard: 'is discarded' };

/** The ways a bill leaves the desk: saved first, moved as it then stands, and the next one opened. */
export function useMoves(id: string, number: string | null) {
  const { company } = usePlace();
  const navigate = useNavigate();
  const dispatch = useDispatch();
  const store = useStore<RootState>();
  const { next, left } = useAhead(id);
  const [move] = billsApi.useMoveBillMutation();
  const acting = useRef(false);
  const go = (to: string | null | undefined) => void navigate(to ? `/bills/${to}` : '/bills?q=stage:read,returned');
  const act = async (what: MoveKind, note?: string) => {
    if (acting.current) return;
    acting.current = true;
    // What stands in the field in hand is taken first.
    (document.activeElement as HTMLElement | null)?.blur();
    try {
      if (!(await flushBill(id))) {
        const held = store.getState().desk.held[id];
        toast.error(held?.sentence ?? 'What you typed is not saved yet.');
        return;
      }
      const rowVersion = store.getState().desk.held[id]!.base.rowVersion;
      const done = await move({ company: company.id, id, move: what, rowVersion, ...(note ? { note } : {}) }).unwrap();
      dispatch(opened({ bill: done }));
      if (!said[what]) return;
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
      go(next);
    } catch (e) {
      toast.error(sentenceOf(e));
      const path = problemOf(e).data?.errors?.[0]?.path;
      if (path && document.activeElement === document.body) focusField(path);
    } finally {
      acting.current = false;
    }
  };
  /** Leaves the desk; what is typed is kept and saved on the way. */
  const leave = () => {
    void flushBill(id);
    void navigate(-1);
  };
  return { act, leave, left };
}
