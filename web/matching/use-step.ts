import { toast } from 'sonner';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { flushBill, store } from '../app/store';
import { opened } from '../desk/state';
import { matchingApi, type MatchStep } from './api';

/** Does something with a bill's orders once what was typed is saved; true where it was done. */
export function useMatchStep(billId: string): (step: MatchStep, body?: object) => Promise<boolean> {
  const { company } = usePlace();
  const [send] = matchingApi.useMatchStepMutation();
  return async (step, body = {}) => {
    if (!(await flushBill(billId))) {
      toast.error('What you typed is not saved yet.');
      return false;
    }
    const { rowVersion } = store.getState().desk.held[billId]!.base;
    try {
      store.dispatch(opened({ bill: await send({ company: company.id, id: billId, step, body: { rowVersion, ...body } }).unwrap() }));
      return true;
    } catch (error) {
      toast.error(sentenceOf(error));
      return false;
    }
  };
}
