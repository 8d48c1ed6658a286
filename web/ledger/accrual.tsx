import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { Accrual } from '@ledgerline/contract';
import { addDays, endOfMonth } from '@ledgerline/core/dates';
import { dec } from '@ledgerline/core/money';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Dialog, DialogEnd } from '../ui/dialog';
import { money, showDay } from '../ui/format';
import { ledgerApi } from './api';

/** What was posted for what had come and was not billed, and the way to post it; on other days the way to the ends of months. */
export function AccrualStrip({ on, at }: { on: string; at(day: string): void }) {
  const { company, can } = usePlace();
  const atEnd = endOfMonth(on) === on;
  const { currentData: accrual } = ledgerApi.useAccrualQuery({ company: company.id, on }, { skip: !atEnd });
  const [posting, post] = useState(false);
  const ends = [addDays(`${on.slice(0, 7)}-01`, -1), endOfMonth(on)];
  return (
    <div className="flex min-h-10 flex-wrap items-center gap-x-3 border-b hair px-6 py-1 text-[14px]">
      {!atEnd ? (
        <>
          <span className="quiet">It is posted for the last day of a month:</span>
          {ends.map((day) => (
            <button key={day} className="btn btn-xs btn-outline" onClick={() => at(day)}>
              {showDay(day)}
            </button>
          ))}
        </>
      ) : accrual ? (
        <>
          {accrual.posted.length === 0 && <span className="quiet">Nothing was posted for this day so far.</span>}
          {accrual.posted.map((p) => (
            <span key={p.id}>
              Posted{' '}
              <b>
                {accrual.currency} {money(p.amount, accrual.currency)}
              </b>{' '}
              as{' '}
              <Link className="text-accent hover:underline" to={`/ledger/${p.entryId}`}>
                {p.entry}
              </Link>
              , taken back on {showDay(accrual.backOn)} by{' '}
              <Link className="text-accent hover:underline" to={`/ledger/${p.backId}`}>
                {p.back}
              </Link>{' '}
              <span className="quiet">({p.person})</span>
            </span>
          ))}
          {accrual.lines.length > 0 && can('bills:post') && (
            <button className="btn btn-primary btn-sm ml-auto" onClick={() => post(true)}>
              {accrual.posted.length > 0 ? 'Post what changed …' : 'Post it …'}
            </button>
          )}
        </>
      ) : null}
      {posting && accrual && <PostDialog accrual={accrual} close={() => post(false)} />}
    </div>
  );
}

/** The entry as it would be posted, and when it is taken back. */
function PostDialog({ accrual, close }: { accrual: Accrual; close(): void }) {
  const { company } = usePlace();
  const { on, backOn, currency, account, lines, total, troubles } = accrual;
  const [send, { isLoading }] = ledgerApi.usePostAccrualMutation();
  const [wrong, fail] = useState<string | null>(null);
  return (
    <Dialog title={`Received, not billed, on ${showDay(on)}`} wide close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          send({ company: company.id, on, total })
            .unwrap()
            .then(() => {
              toast(`Posted for ${showDay(on)}, and taken back on ${showDay(backOn)}`);
              close();
            })
            .catch((error: unknown) => fail(sentenceOf(error)));
        }}
      >
        {[...troubles, ...(wrong ? [wrong] : [])].map((t) => (
          <p key={t} className="mb-2 border-l-4 border-error bg-error/10 px-3 py-1 text-[14px]">
            {t}
          </p>
        ))}
        <div className="max-h-[50vh] overflow-auto">
          <table aria-label="Entry" className="w-full text-[14px]">
            <thead className="sticky top-0 bg-base-200">
              <tr>
                <th className="plain text-left">Account</th>
                <th className="plain text-left">For</th>
                <th className="plain num">Debit</th>
                <th className="plain num">Credit</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <Row
                  key={`${l.order} ${l.place}`}
                  account={[l.account, l.costCentre, ...l.dimensions].filter(Boolean).join(' · ')}
                  name={l.accountName}
                  text={`${l.order}, line ${l.place}: ${l.description}`}
                  amount={l.amount}
                  currency={currency}
                />
              ))}
            </tbody>
            <tfoot className="sticky bottom-0 bg-base-200">
              {account && (
                <Row
                  account={account.slice(0, account.indexOf(' '))}
                  name={account.slice(account.indexOf(' ') + 1)}
                  text={`${lines.length} ${lines.length === 1 ? 'line' : 'lines'} of orders`}
                  amount={dec(total).negated().toFixed()}
                  currency={currency}
                />
              )}
            </tfoot>
          </table>
        </div>
        <p className="mt-3 text-[13px] quiet">
          Dated {showDay(on)}; the same the other way round is dated {showDay(backOn)}, so that the bills that come then are no cost twice.
        </p>
        <DialogEnd close={close} action="Post both" busy={isLoading || troubles.length > 0} />
      </form>
    </Dialog>
  );
}

function Row({ account, name, text, amount, currency }: Record<'account' | 'name' | 'text' | 'amount' | 'currency', string>) {
  const shown = money(dec(amount).abs().toFixed(), currency),
    debit = !dec(amount).isNegative();
  return (
    <tr className="border-b hair">
      <td className="plain max-w-64 truncate">
        <span className="code">{account}</span> <span className="quiet">{name}</span>
      </td>
      <td className="plain max-w-72 truncate" title={text}>
        {text}
      </td>
      <td className="plain num">{debit ? shown : ''}</td>
      <td className="plain num">{debit ? '' : shown}</td>
    </tr>
  );
}
