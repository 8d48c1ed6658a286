import { useState } from 'react';
import { addDays } from '@ledgerline/core/dates';
import { Dialog, DialogEnd } from '../ui/dialog';
import { showDay, todayIso } from '../ui/format';
import { DateField } from '../ui/typed';

/** Sets a bill aside: why, and when it comes back by itself. */
export function SetAsideDialog({ close, done }: { close(): void; done(note: string, until: string | null): void }) {
  const [until, setUntil] = useState<string | null>(null);
  const today = todayIso();
  const monday = addDays(today, (8 - new Date(`${today}T12:00:00Z`).getUTCDay()) % 7 || 7);
  const days: [string, string | null][] = [
    ['Tomorrow', addDays(today, 1)],
    ['Monday', monday],
    ['In two weeks', addDays(today, 14)],
    ['No day', null],
  ];
  return (
    <Dialog title="Set this bill aside" close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const note = String(new FormData(e.currentTarget).get('note')).trim();
          if (note) done(note, until);
        }}
      >
        <label className="block">
          Why
          <input name="note" required data-first minLength={3} maxLength={500} className="input mt-1 w-full" />
        </label>
        <div className="mt-3">
          <span id="comes-back">Comes back on</span>
          <div className="mt-1 flex flex-wrap items-center gap-1.5" role="group" aria-labelledby="comes-back">
            <span className="w-28">
              <DateField label="Comes back on" className="input w-full" value={until} onSave={setUntil} />
            </span>
            {days.map(([label, day]) => (
              <button
                key={label}
                type="button"
                aria-pressed={until === day}
                title={day ? showDay(day) : 'It waits until somebody takes it up again'}
                className={`btn btn-sm ${until === day ? 'btn-primary' : ''}`}
                onClick={(e) => {
                  setUntil(day);
                  e.currentTarget.form?.querySelector<HTMLElement>('[data-go]')?.focus();
                }}
              >
                {label}
              </button>
            ))}
          </div>
        </div>
        <DialogEnd close={close} action="Set aside" />
      </form>
    </Dialog>
  );
}
