import { useState } from 'react';
import type { GoodsRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { amountOf } from '../matching/said';
import { money, showDay } from '../ui/format';
import { useSettled } from '../ui/settled';
import { DateField } from '../ui/typed';
import { chargesApi } from './api';
import type { Chosen } from './share';

/** Finds goods by order, receipt, supplier, item or words, and by the days on which they came. */
export function FindGoods({
  chosen,
  take,
  baseCurrency,
}: {
  chosen: readonly Chosen[];
  take(goods: GoodsRow): void;
  baseCurrency: string;
}) {
  const { company } = usePlace();
  const [words, say] = useState('');
  const [days, within] = useState<{ from: string | null; to: string | null }>({ from: null, to: null });
  const q = useSettled(words.trim());
  const { data } = chargesApi.useGoodsQuery({
    company: company.id,
    asked: { ...(q ? { q } : {}), ...(days.from ? { from: days.from } : {}), ...(days.to ? { to: days.to } : {}) },
  });
  const found = (data?.goods ?? []).filter((g) => !chosen.some((c) => c.goods.id === g.id));
  return (
    <section aria-label="What came">
      <div className="flex items-center gap-3 text-[14px]">
        <h3 className="font-semibold whitespace-nowrap">What came</h3>
        <input
          aria-label="Find goods"
          className="input input-sm w-72"
          placeholder="Order, receipt, supplier, item or words"
          autoComplete="off"
          value={words}
          onChange={(e) => say(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return;
            e.preventDefault();
            if (found[0] && q === words.trim()) take(found[0]);
          }}
        />
        <span className="ml-auto quiet">Came from</span>
        <span className="w-32">
          <DateField label="Came from" className="input input-sm w-full" value={days.from} onSave={(from) => within({ ...days, from })} />
        </span>
        <span className="quiet">to</span>
        <span className="w-32">
          <DateField label="Came by" className="input input-sm w-full" value={days.to} onSave={(to) => within({ ...days, to })} />
        </span>
      </div>
      <ul className="mt-1 h-[22vh] overflow-auto border-t hair text-[14px]">
        {data && found.length === 0 && <li className="py-2 quiet">Nothing more is found.</li>}
        {found.map((g) => (
          <li key={g.id} className="border-b hair">
            <button
              type="button"
              className="grid w-full cursor-pointer grid-cols-[90px_100px_170px_1fr_110px_100px] items-center gap-x-3 px-1 py-1 text-left hover:bg-base-200"
              onClick={() => take(g)}
            >
              <span className="code">{g.order}</span>
              <span>{showDay(g.receivedOn)}</span>
              <span className="truncate quiet">{g.supplier}</span>
              <span className="truncate">{g.description}</span>
              <span className="text-right">{amountOf(g.quantity, g.unit)}</span>
              <span className="text-right">{g.value === null ? '' : money(g.value, baseCurrency)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
