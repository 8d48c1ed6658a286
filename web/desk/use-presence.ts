import { useEffect } from 'react';
import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { notesApi } from '../notes/api';

/** How often one tells that one is still at the bill, in milliseconds: the server forgets after three times as long. */
const often = 10_000;

/** Who else has this bill before them. What names this person on it counts as seen. */
export function usePresence(id: string, named: boolean): { id: string; name: string }[] {
  const { company } = usePlace();
  const { currentData } = billsApi.useAtBillQuery(
    { company: company.id, id },
    { pollingInterval: often, skipPollingIfUnfocused: false, refetchOnMountOrArgChange: true },
  );
  const [leave] = billsApi.useLeftBillMutation();
  const [saw] = notesApi.useSawNotesMutation();
  useEffect(() => () => void leave({ company: company.id, id }), [leave, company.id, id]);
  useEffect(() => {
    if (named) void saw({ company: company.id, id });
  }, [saw, named, company.id, id]);
  return currentData?.others ?? [];
}
