import { useState } from 'react';
import type { NewRepeat, RepeatRow } from '@ledgerline/contract';

import { Dialog, DialogEnd } from '../ui/dialog';
import { Problem } from '../ui/form';
import { sentenceOf } from '../app/api';
import { DateField } from '../ui/typed';

export type RepeatSettings = Omit<NewRepeat, 'billId'>;
const everies: [RepeatRow['every'], string][] = [
  ['month', 'Every month'],
  ['quarter', 'Every quarter'],
  ['year', 'Every year'],
  ['weeks', 'Every so many weeks'],
];

/** How a bill repeats: how often, until when, with which amounts, and whether a document comes. */
export function RepeatDialog({
  title,
  values,
  action,
  send,
  close,
}: {
  title: string;
  values: RepeatSettings;
  action: string;
  send(settings: RepeatSettings): Promise<unknown>;
  close(): void;
}) {
  const [set, change] = useState(values);
  const [trouble, say] = useState<string | null>(null);
  const to = (part: Partial<RepeatSettings>) => change({ ...set, ...part });
  const row = 'flex items-center gap-3';
  return (
    <Dialog title={title} close={close}>
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          say(null);
          send(set).catch((error: unknown) => say(sentenceOf(error)));
        }}
      >
        <Problem sentence={trouble} />
        <label className={row}>
          <span className="w-28">Name</span>
          <input
            data-first
            required
            minLength={2}
            maxLength={80}
            className="input grow"
            value={set.name}
            onChange={(e) => to({ name: e.target.value })}
          />
        </label>
        <div className={row}>
          <label className={row}>
            <span className="w-28">How often</span>
            <select
              className="select w-52"
              value={set.every}
              onChange={(e) => {
                const every = e.target.value as RepeatRow['every'];
                to({ every, weeks: every === 'weeks' ? (set.weeks ?? 2) : null });
              }}
            >
              {everies.map(([value, text]) => (
                <option key={value} value={value}>
                  {text}
                </option>
              ))}
            </select>
          </label>
          {set.every === 'weeks' && (
            <input
              type="number"
              aria-label="Weeks"
              min={1}
              max={52}
              required
              className="input w-20"
              value={set.weeks ?? ''}
              onChange={(e) => to({ weeks: Number(e.target.value) || null })}
            />
          )}
        </div>
        <div className={row}>
          <span className="w-28">From</span>
          <span className="w-32">
            <DateField label="From" className="input w-full" value={set.begins} onSave={(begins) => begins && to({ begins })} />
          </span>
          <span>until</span>
          <span className="w-32">
            <DateField label="Until" className="input w-full" value={set.until} onSave={(until) => to({ until })} />
          </span>
        </div>
        <fieldset className={row}>
          <legend className="sr-only">Amounts</legend>
          <span className="w-28">Amounts</span>
          {[true, false].map((fixed) => (
            <label key={String(fixed)} className="flex items-center gap-2">
              <input type="radio" className="radio radio-sm" name="fixed" checked={set.fixed === fixed} onChange={() => to({ fixed })} />
              {fixed ? 'The same each time' : 'Filled in each time'}
            </label>
          ))}
        </fieldset>
        <label className={row}>
          <span className="w-28">Its document</span>
          <select
            className="select grow"
            value={set.documentWithin ?? ''}
            onChange={(e) => to({ documentWithin: e.target.value ? Number(e.target.value) : null })}
          >
            <option value="">None comes: the bill is ready by itself</option>
            {[3, 7, 10, 14, 21, 30].map((days) => (
              <option key={days} value={days}>
                Expected within {days} days of its turn; missed after
              </option>
            ))}
          </select>
        </label>
        <DialogEnd close={close} action={action} />
      </form>
    </Dialog>
  );
}
