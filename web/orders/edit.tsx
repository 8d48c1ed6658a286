import { X } from 'lucide-react';
import { useFieldArray, type Path, type UseFormReturn } from 'react-hook-form';
import { codingFields } from '@ledgerline/core/bills';
import { PutOrder, type Choice, type Order } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { useCodingFields } from '../coding/rule-dialog';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { FormDay } from '../ui/form-day';
import { FormDialog } from '../ui/form-dialog';
import { todayIso } from '../ui/format';
import { ordersApi } from './api';

type Line = PutOrder['lines'][number];
const noCoding = () => Object.fromEntries(codingFields.map((field) => [field, null]));
const newLine = (): Line => ({
  itemId: null,
  code: null,
  description: '',
  quantity: '1',
  unit: null,
  unitPrice: '0',
  weight: null,
  volume: null,
  needsReceipt: true,
  coding: noCoding(),
});
const lineOf = ({ item: _i, net: _n, shown: _s, received: _r, billed: _b, coding, ...line }: Order['lines'][number]): Line => ({
  ...line,
  coding: { ...noCoding(), ...coding },
});

/** A new order, or one that is changed: its head and its lines. */
export function OrderDialog({ order, close, done }: { order: Order | null; close(): void; done(id: string): void }) {
  const { company } = usePlace();
  const [put] = ordersApi.usePutOrderMutation();
  return (
    <FormDialog
      title={order ? `Order ${order.number}` : 'New order'}
      schema={PutOrder}
      values={{
        number: order?.number ?? '',
        supplierId: order?.supplierId ?? '',
        orderDate: order?.orderDate ?? todayIso(),
        currency: order?.currency ?? company.baseCurrency,
        note: order?.note ?? null,
        active: order?.active ?? true,
        lines: order?.lines.map(lineOf) ?? [newLine()],
      }}
      action={order ? 'Save' : 'Make order'}
      send={(body) =>
        put({ company: company.id, id: order?.id ?? null, body })
          .unwrap()
          .then(({ id }) => done(id))
      }
      close={close}
      wide
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[1fr_2fr_1fr_0.7fr] gap-x-3 gap-y-1">
            <FormField form={form} name="number" label="Number" autoFocus />
            <FormChoice form={form} name="supplierId" label="Supplier" of="suppliers" shown={order ? ` ${order.supplier}` : null} none="" />
            <FormDay form={form} name="orderDate" label="Ordered" none="" />
            <FormField form={form} name="currency" label="Currency" />
          </div>
          <FormField form={form} name="note" label="Note" empty="null" />
          <Lines form={form as unknown as UseFormReturn<PutOrder>} order={order} />
          <FormTick form={form} name="active" label="Open: bills of it are expected" />
        </>
      )}
    </FormDialog>
  );
}

/** What an item says goes where the line says nothing yet. */
function fillFrom(form: UseFormReturn<PutOrder>, i: number, item: Choice): void {
  const line = form.getValues(`lines.${i}`);
  if (!line.code) form.setValue(`lines.${i}.code`, item.code);
  if (!line.description.trim()) form.setValue(`lines.${i}.description`, item.name);
  if (!line.unit && item.unit) form.setValue(`lines.${i}.unit`, item.unit);
  if (Number(line.unitPrice) === 0 && item.price && item.currency === form.getValues('currency'))
    form.setValue(`lines.${i}.unitPrice`, item.price);
}

function Lines({ form, order }: { form: UseFormReturn<PutOrder>; order: Order | null }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'lines', keyName: 'key' });
  const coding = useCodingFields();
  const shown = (id: string | undefined, field: string) => {
    const one = order?.lines.find((l) => l.id === id)?.shown.find((s) => s.field === field);
    return one ? `${one.code} ${one.name}` : null;
  };
  return (
    <fieldset>
      <legend className="sr-only">Lines</legend>
      <ol className="max-h-[46vh] overflow-auto">
        {fields.map((field, i) => (
          <li key={field.key} className="border-t hair py-1.5" aria-label={`Line ${i + 1}`}>
            <div className="grid grid-cols-[110px_1fr_80px_70px_90px_28px] items-end gap-x-2">
              <FormField form={form} name={`lines.${i}.code`} label="Code" empty="null" />
              <FormField form={form} name={`lines.${i}.description`} label="Description" />
              <FormField form={form} name={`lines.${i}.quantity`} label="Quantity" />
              <FormField form={form} name={`lines.${i}.unit`} label="Unit" empty="null" />
              <FormField form={form} name={`lines.${i}.unitPrice`} label="Price of one" />
              <button
                type="button"
                className="btn btn-ghost btn-sm px-1"
                aria-label={`Remove line ${i + 1}`}
                disabled={fields.length === 1}
                onClick={() => remove(i)}
              >
                <X size={14} aria-hidden />
              </button>
            </div>
            <div className="mt-1 mb-1 grid grid-cols-[1fr_120px_120px_1fr] items-end gap-x-2">
              <FormChoice
                form={form}
                name={`lines.${i}.itemId`}
                label="Item"
                of="items"
                shown={order?.lines.find((l) => l.itemId === form.getValues(`lines.${i}.itemId`))?.item ?? null}
                picked={(item) => fillFrom(form, i, item)}
              />
              <FormField form={form} name={`lines.${i}.weight`} label="Weight of one, kg" empty="null" />
              <FormField form={form} name={`lines.${i}.volume`} label="Volume of one, m³" empty="null" />
              <FormTick form={form} name={`lines.${i}.needsReceipt`} label="Bills of it wait for what has come" />
            </div>
            <div className="grid grid-cols-3 gap-x-2 gap-y-1">
              {coding.map(([of, choices, label]) => (
                <FormChoice
                  key={of}
                  form={form}
                  name={`lines.${i}.coding.${of}` as Path<PutOrder>}
                  label={label}
                  of={choices}
                  shown={shown(field.id, of)}
                />
              ))}
            </div>
          </li>
        ))}
      </ol>
      <button type="button" className="btn btn-ghost btn-sm -ml-2" disabled={fields.length >= 500} onClick={() => append(newLine())}>
        Another line …
      </button>
    </fieldset>
  );
}
