import { toast } from 'sonner';
import { usePlace } from '../app/company';
import { repeatsApi } from '../repeats/api';
import { RepeatDialog } from '../repeats/dialog';
import { todayIso } from '../ui/format';
import type { Desk } from './use-desk';

/** Makes the bill in hand repeat: as it stands now it is made again on each turn. */
export function MakeRepeat({ desk, close }: { desk: Desk; close(): void }) {
  const { company } = usePlace();
  const [make] = repeatsApi.useNewRepeatMutation();
  const { bill } = desk;
  return (
    <RepeatDialog
      title="Make this bill repeat"
      action="Make it repeat"
      values={{
        name: (desk.choiceOf(bill.supplierId)?.name ?? bill.supplierName ?? 'Repeating bill').slice(0, 80),
        every: 'month',
        weeks: null,
        begins: bill.issueDate ?? todayIso(),
        until: null,
        fixed: true,
        documentWithin: bill.documentId ? 10 : null,
      }}
      close={close}
      send={(settings) =>
        make({ company: company.id, body: { billId: bill.id, ...settings } })
          .unwrap()
          .then(() => {
            close();
            toast('It repeats now: see Bills, Repeating');
          })
      }
    />
  );
}
