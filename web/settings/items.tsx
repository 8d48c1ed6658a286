import { useState } from 'react';
import { PutItem, type ItemRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField, FormTick } from '../ui/form';
import { FormChoice } from '../ui/form-choice';
import { useRows } from '../ui/infinite';
import { price } from '../ui/format';
import { settingsApi } from './api';
import { ListArea, RowDialog } from './list-area';

const columnsOf = (base: string): Column<ItemRow>[] => [
  { id: 'code', head: 'Code', width: 104, cell: (i) => <span className="code">{i.code}</span> },
  { id: 'name', head: 'Name', cell: (i) => i.name },
  { id: 'also', head: 'Also called', width: 150, minor: true, cell: (i) => i.alsoCalled },
  { id: 'unit', head: 'Unit', width: 60, minor: true, cell: (i) => i.unit },
  {
    id: 'price',
    head: 'Price',
    width: 104,
    num: true,
    cell: (i) => (i.price === null ? '' : `${price(i.price, i.currency ?? base)} ${i.currency}`),
  },
  {
    id: 'bought',
    head: 'In stock by bills',
    width: 116,
    num: true,
    minor: true,
    cell: (i) => (i.bought === null ? '' : Number(i.bought).toLocaleString('en-GB')),
  },
  { id: 'account', head: 'Usual account', width: 170, cell: (i) => i.account },
  { id: 'tax', head: 'Usual tax', width: 76, minor: true, cell: (i) => <span className="code">{i.taxCode}</span> },
  { id: 'active', head: '', width: 56, cell: (i) => (i.active ? '' : <span className="quiet">closed</span>) },
];

export function ItemsArea() {
  const { company } = usePlace();
  const [q, setQ] = useState('');
  const rows = useRows(settingsApi.useItemListInfiniteQuery({ company: company.id, ...(q ? { q } : {}) }), (p) => p.items);
  return (
    <ListArea
      title="Items"
      detail="What is bought again and again, and how rows that say so are coded"
      what="item"
      rows={rows}
      columns={columnsOf(company.baseCurrency)}
      files="items"
      rowId={(i) => i.id}
      search={{ value: q, change: setQ }}
      form={(row, close) => <ItemForm row={row} close={close} />}
    />
  );
}

function ItemForm({ row, close }: { row: ItemRow | null; close(): void }) {
  return (
    <RowDialog
      what="item"
      row={row}
      schema={PutItem}
      values={{
        code: row?.code ?? '',
        name: row?.name ?? '',
        alsoCalled: row?.alsoCalled ?? null,
        unit: row?.unit ?? null,
        price: row?.price ?? null,
        currency: row?.currency ?? null,
        accountId: row?.accountId ?? null,
        taxCodeId: row?.taxCodeId ?? null,
        stocked: row?.stocked ?? false,
        active: row?.active ?? true,
      }}
      path="/items"
      plain
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-[120px_1fr] gap-x-3 gap-y-2">
            <FormField form={form} name="code" label="Code" autoFocus />
            <FormField form={form} name="name" label="Name" />
          </div>
          <FormField
            form={form}
            name="alsoCalled"
            label="Also called"
            empty="null"
            hint="Suppliers’ codes, or words that their lines begin with, with commas between: KWH-2, electricity"
          />
          <div className="grid grid-cols-3 gap-x-3">
            <FormField form={form} name="unit" label="Unit" empty="null" />
            <FormField form={form} name="price" label="Price of one, without tax" empty="null" />
            <FormField form={form} name="currency" label="Currency" empty="null" />
          </div>
          <div className="grid grid-cols-2 gap-x-3">
            <FormChoice form={form} name="accountId" label="Usual account" of="accounts" shown={row?.account ?? null} />
            <FormChoice
              form={form}
              name="taxCodeId"
              label="Usual tax code"
              of="tax-codes"
              shown={row?.taxCode ? `${row.taxCode} ` : null}
            />
          </div>
          <FormTick form={form} name="stocked" label="Kept in stock: posting a bill of it makes its receipt" />
          <FormTick form={form} name="active" label="Still bought; without this it is not offered any more" />
        </>
      )}
    </RowDialog>
  );
}
