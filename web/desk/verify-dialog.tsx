import { Type } from '@sinclair/typebox';
import { toast } from 'sonner';
import { VerifyBill, type Bill, type Exception } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { flushBill, store } from '../app/store';
import { billsApi } from '../bills/api';
import { FormField } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { opened } from './state';

/** What a second person writes down who asked the supplier about what is not as it is known. */
export function VerifyDialog({ bill, of: { code, path, key, sentence }, close }: { bill: Bill; of: Exception; close(): void }) {
  const { company } = usePlace();
  const [send] = billsApi.useVerifyBillMutation();
  return (
    <FormDialog
      title="Verify this bill"
      schema={Type.Pick(VerifyBill, ['asked', 'how'])}
      values={{ asked: '', how: '' }}
      action="It is theirs"
      send={async (said) => {
        // What was typed on the bill meanwhile is kept first.
        if (!(await flushBill(bill.id))) return void toast.error('What you typed is not saved yet.');
        const next = await send({ company: company.id, id: bill.id, body: { code, path, key, ...said } }).unwrap();
        store.dispatch(opened({ bill: next }));
        close();
      }}
      close={close}
    >
      {(form) => (
        <>
          <p>
            {sentence} Payment is held until you have asked in a way that was known before: never at a number or address that came with this
            bill.
          </p>
          <FormField form={form} name="asked" label="Whom you asked" autoFocus hint="Mrs Arden, accounts" />
          <FormField
            form={form}
            name="how"
            label="How, and what they said"
            hint="Called the number we had; they have moved to a new printer"
          />
        </>
      )}
    </FormDialog>
  );
}
