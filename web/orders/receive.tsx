import type { UseFormReturn } from 'react-hook-form';
import { Type } from '@sinclair/typebox';
import { NewReceipt, type Order } from '@ledgerline/contract';
import { dec } from '@ledgerline/core/money';
import { usePlace } from '../app/company';
import { amountOf } from '../matching/said';
import { FormField } from '../ui/form';
import { FormDay } from '../ui/form-day';
import { FormDialog } from '../ui/form-dialog';
import { todayIso } from '../ui/format';
import { ordersApi } from './api';

/** The form's shape: nothing came of a line that is left empty. */
const Form = Type.Composite([
  Type.Omit(NewReceipt, ['lines']),
  Type.Object({ lines: Type.Array(Type.Object({ quantity: Type.String({ pattern: '^(-?\\d{1,15}(\\.\\d{1,6})?)?$' }) })) }),
]);
const still = (l: Order['lines'][number]) => dec(l.quantity).minus(l.received);

/** What came of an order, or went back: begun with all that is still expected. */
export function ReceiveDialog({ order, close }: { order: Order; close(): void }) {
  const { company } = usePlace();
  const [receive] = ordersApi.useReceiveMutation();
  return (
    <FormDialog
      title={`What came of order ${order.number}`}
      schema={Form}
      values={{
        orderId: order.id,
        number: `${order.receipts.length + 1}`,
        receivedOn: todayIso(),
        note: null,
        lines: order.lines.map((l) => ({ quantity: l.needsReceipt && still(l).gt(0) ? still(l).toFixed() : '' })),
      }}
      action="Book it"
      send={({ lines, ...head }) =>
        receive({
          company: company.id,
          body: {
            ...head,
            lines: lines.flatMap(({ quantity }, i) => (quantity === '' ? [] : [{ orderLineId: order.lines[i]!.id, quantity }])),
          },
        })
          .unwrap()
          .then(close)
      }
      close={close}
      wide
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[1fr_1fr_2fr] gap-x-3">
            <FormField form={form} name="number" label="Delivery note" autoFocus />
            <FormDay form={form} name="receivedOn" label="Came on" none="" />
            <FormField form={form} name="note" label="Note" empty="null" />
          </div>
          <Lines form={form as unknown as UseFormReturn<{ lines: { quantity: string }[] }>} order={order} />
        </>
      )}
    </FormDialog>
  );
}

function Lines({ form, order }: { form: UseFormReturn<{ lines: { quantity: string }[] }>; order: Order }) {
  return (
    <div className="max-h-[46vh] overflow-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr>
            <th className="plain text-left">Line</th>
            <th className="plain num">Ordered</th>
            <th className="plain num">Came before</th>
            <th className="plain num w-32">Came now</th>
          </tr>
        </thead>
        <tbody>
          {order.lines.map((l, i) => (
            <tr key={l.id} className="border-t hair">
              <td className="plain max-w-72 truncate">
                {i + 1}: {l.description}
              </td>
              <td className="plain num">{amountOf(l.quantity, l.unit)}</td>
              <td className="plain num">{dec(l.received).isZero() ? '' : amountOf(l.received, null)}</td>
              <td className="plain num">
                <input
                  aria-label={`Came now of line ${i + 1}`}
                  aria-invalid={Boolean(form.formState.errors.lines?.[i])}
                  className="input input-sm w-28 text-right"
                  autoComplete="off"
                  {...form.register(`lines.${i}.quantity`)}
                />
                {form.formState.errors.lines?.[i]?.quantity && (
                  <span className="block text-[12px] text-error">
                    {form.formState.errors.lines[i].quantity.type === 'custom'
                      ? form.formState.errors.lines[i].quantity.message
                      : 'A number, below zero where it went back.'}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
