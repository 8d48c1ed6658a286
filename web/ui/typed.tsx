import { useState } from 'react';
import { typedDate } from '@ledgerline/core/dates';
import { calculate, minorUnits } from '@ledgerline/core/money';
import { dueOf, termsMeant, type ListedTerms, type WorkingCalendar } from '@ledgerline/core/terms';
import { dateOrder, money, showDay, todayIso } from './format';

interface Props {
  label: string;
  className?: string;
  disabled?: boolean;
  onFocus?(): void;
  /** The id of a list of values to offer. */ list?: string;
}
interface Value {
  value: string | null;
  onSave(value: string | null): void;
}

function Typed({
  label,
  shown,
  className = 'line-field',
  right,
  disabled,
  list,
  onFocus,
  take,
}: Props & { shown: string; right?: boolean; take(typed: string): boolean }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const done = () => {
    if (typed === null || typed === shown) {
      setTyped(null);
      setWrong(false);
      return;
    }
    if (take(typed.trim())) {
      setTyped(null);
      setWrong(false);
    } else setWrong(true);
  };
  return (
    <input
      aria-label={label}
      aria-invalid={wrong}
      disabled={disabled}
      list={list}
      data-typing={typed !== null && typed !== shown}
      autoComplete="off"
      title={wrong ? 'This is not understood.' : undefined}
      className={`${className} ${right ? 'text-right' : ''} ${wrong ? 'wanted' : ''}`}
      value={typed ?? shown}
      onFocus={(e) => {
        e.target.select();
        onFocus?.();
      }}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === 'Enter') done();
      }}
    />
  );
}

/** A line of text. `fits` refuses what cannot stand here. */
export function TextField({ value, onSave, fits, ...props }: Props & Value & { fits?(typed: string): boolean }) {
  return (
    <Typed
      {...props}
      shown={value ?? ''}
      take={(typed) => {
        if (fits && !fits(typed)) return false;
        onSave(typed || null);
        return true;
      }}
    />
  );
}

/** An amount: computes what is typed (12*21.4) and rounds to the currency. `plain` keeps the digits as typed, for quantities. */
export function AmountField({ value, onSave, currency, plain, ...props }: Props & Value & { currency: string; plain?: boolean }) {
  return (
    <Typed
      {...props}
      right
      shown={value === null ? '' : plain ? value : money(value, currency).replace('−', '-')}
      take={(typed) => {
        if (typed === '') {
          onSave(null);
          return true;
        }
        const result = calculate(typed);
        if (!result) return false;
        onSave(plain ? result.toDecimalPlaces(6).toFixed() : result.toFixed(minorUnits(currency)));
        return true;
      }}
    />
  );
}

/** A date: 3/11 in the order of the person's language, 3 nov, today; with `from`, payment terms too (net 15, 30 eom, 50% 30 days, 50% 60 days, or one of the company's `own` by name). */
export function DateField({
  value,
  onSave,
  from,
  calendar,
  own = [],
  onTerms,
  ...props
}: Props & Value & { from?: string | null; calendar?: WorkingCalendar; own?: readonly ListedTerms[]; onTerms?(terms: string): void }) {
  return (
    <Typed
      {...props}
      shown={showDay(value)}
      take={(typed) => {
        if (typed === '') {
          onSave(null);
          return true;
        }
        const day = typedDate(typed, todayIso(), dateOrder());
        if (day) {
          onSave(day);
          return true;
        }
        const terms = termsMeant(typed, own),
          due = from ? dueOf(from, terms, calendar) : null;
        if (!due) return false;
        onTerms?.(terms);
        onSave(due);
        return true;
      }}
    />
  );
}
