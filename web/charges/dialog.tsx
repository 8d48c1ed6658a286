import { useState } from 'react';
import type { ChargeShares, GoodsRow } from '@ledgerline/contract';
import { bases, type Basis } from '@ledgerline/core/charges';
import { usePlace } from '../app/company';
import type { Desk } from '../desk/use-desk';
import { useMatchStep } from '../matching/use-step';
import { Dialog, DialogEnd } from '../ui/dialog';
import { money } from '../ui/format';
import { chargesApi } from './api';
import { ChosenGoods } from './chosen';
import { FindGoods } from './find';
import { basisNames, tried, type Chosen } from './share';

/** Shares a charge over what came: over which goods, by what, and what each bears, before it is done. */
export function ShareDialog({ desk, row, close }: { desk: Desk; row: number; close(): void }) {
  const { company } = usePlace();
  const line = desk.bill.lines[row]!;
  const asked = { company: company.id, id: desk.bill.id, row: line.id, version: desk.bill.rowVersion };
  const { currentData } = chargesApi.useChargeSharesQuery(asked, { refetchOnMountOrArgChange: true });
  const title = `Share row ${row + 1} over what came`;
  return (
    <Dialog title={title} wide="whole" close={close}>
      {currentData ? <Share desk={desk} row={row} now={currentData} close={close} /> : <p className="quiet">One moment …</p>}
    </Dialog>
  );
}

/** Begun with how it is shared now, or with what the bill itself bills. */
const begun = ({ goods, suggested }: ChargeShares): Chosen[] =>
  goods.length > 0 ? goods.map(({ amount, ...g }) => ({ goods: g, typed: amount })) : suggested.map((g) => ({ goods: g, typed: null }));

function Share({ desk, row, now, close }: { desk: Desk; row: number; now: ChargeShares; close(): void }) {
  const { bill, locked } = desk,
    line = bill.lines[row]!;
  const step = useMatchStep(bill.id);
  const [chosen, choose] = useState(() => begun(now));
  const [basis, by] = useState<Basis>(now.basis ?? 'value');
  const { parts, trouble } = tried(line.amount, basis, chosen, bill.currency);
  const send = async (of: Basis | null) => {
    const goods = of === null ? [] : chosen.map((c) => ({ id: c.goods.id, amount: of === 'by-hand' ? (c.typed ?? '0') : null }));
    if (await step('share-charge', { row: line.id, basis: of, goods })) close();
  };
  const take = (goods: GoodsRow) => {
    if (!chosen.some((c) => c.goods.id === goods.id)) choose([...chosen, { goods, typed: null }]);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (trouble === null) void send(basis);
      }}
    >
      <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-1">
        <p className="min-w-0 grow truncate">
          {line.description}:{' '}
          <b>
            {bill.currency} {money(line.amount, bill.currency)}
          </b>
          <span className="quiet"> {bill.pricesIncludeTax ? 'with' : 'without'} tax; each part is posted to where its goods are</span>
        </p>
        <label className="flex items-center gap-2 text-[14px]">
          Share
          <select
            data-first
            aria-label="By what"
            className="select select-sm w-36"
            disabled={locked}
            value={basis}
            onChange={(e) => {
              const to = e.target.value as Basis;
              // By hand begins with what stands there.
              if (to === 'by-hand') choose(chosen.map((c) => ({ ...c, typed: parts.get(c.goods.id) ?? c.typed })));
              by(to);
            }}
          >
            {bases.map((b) => (
              <option key={b} value={b}>
                {basisNames[b]}
              </option>
            ))}
          </select>
        </label>
      </div>
      <ChosenGoods {...{ chosen, choose, parts, basis, locked }} currency={bill.currency} baseCurrency={now.baseCurrency} />
      <p className="mt-1 min-h-6 text-[13px]" aria-live="polite">
        {trouble && chosen.length > 0 ? <span className="text-error">{trouble}</span> : ''}
      </p>
      {!locked && <FindGoods chosen={chosen} take={take} baseCurrency={now.baseCurrency} />}
      <DialogEnd close={close} {...(locked ? {} : { action: 'Share it' })} busy={trouble !== null}>
        {!locked && now.basis !== null && (
          <button type="button" className="btn btn-outline" onClick={() => void send(null)}>
            Expense it as one
          </button>
        )}
      </DialogEnd>
    </form>
  );
}
