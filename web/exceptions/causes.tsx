import type { ExceptionCauses } from '@ledgerline/contract';
import { money, showDay } from '../ui/format';

type Cause = ExceptionCauses['causes'][number];
/** How often a check was right, of what ended; nothing where too little has. */
export const rightOf = ({ ended, right }: Cause): string =>
  ended < 5 ? '' : `right ${Math.round((100 * right) / ended)}% of ${ended} times`;

/** What is open by cause, what is most at stake first. One is chosen, or all. */
export function Causes({ of, chosen, choose }: { of: ExceptionCauses; chosen: string | null; choose(code: string | null): void }) {
  const open = of.causes.filter((c) => c.open > 0);
  const all = open.reduce((n, c) => n + c.open, 0);
  const entry = (code: string | null, what: string, n: number, said: string, stops: boolean) => (
    <li key={code ?? 'all'}>
      <button
        aria-pressed={chosen === code}
        className={`flex w-full items-baseline gap-2 border-l-4 px-4 py-1.5 text-left ${chosen === code ? 'border-primary bg-base-200' : 'border-transparent hover:bg-base-200'}`}
        onClick={() => choose(code)}
      >
        <span className="min-w-0 grow">
          <span className="block">{what}</span>
          <span className="block text-[12px] quiet">{said}</span>
        </span>
        <b className={`font-semibold ${stops ? 'text-error' : ''}`} title={stops ? 'Keeps bills back' : undefined}>
          {n}
        </b>
      </button>
    </li>
  );
  return (
    <nav aria-label="Causes" className="w-72 shrink-0 overflow-auto border-r hair py-2 max-md:max-h-52 max-md:w-full max-md:border-b">
      <ul>
        {entry(null, 'All of them', all, '', false)}
        {open.map((c) =>
          entry(
            c.code,
            c.what,
            c.open,
            [`${of.currency} ${money(c.amount, of.currency)} at stake`, c.oldest && `since ${showDay(c.oldest.slice(0, 10))}`, rightOf(c)]
              .filter(Boolean)
              .join(' · '),
            c.stops > 0,
          ),
        )}
      </ul>
    </nav>
  );
}
