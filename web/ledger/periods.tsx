import { toast } from 'sonner';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { ledgerApi } from './api';

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** The company's periods by year; whoever may opens and closes them. */
export function Periods() {
  const { company, can } = usePlace();
  const { currentData: data } = ledgerApi.usePeriodsQuery({ company: company.id });
  const [set] = ledgerApi.useSetPeriodMutation();
  const [openYear] = ledgerApi.useOpenYearMutation();
  const years = [...new Set(data?.periods.map((p) => p.year))].sort((a, b) => b - a);
  const may = can('periods:set');
  const told = (work: Promise<unknown>) => void work.catch((e: unknown) => toast.error(sentenceOf(e)));
  const next = (years[0] ?? new Date().getFullYear() - 1) + 1;
  return (
    <aside aria-label="Periods" className="w-56 shrink-0 overflow-auto border-l hair px-4 py-3 text-[13px] max-md:hidden">
      <h2 className="font-semibold">Periods</h2>
      <p className="mb-2 quiet">{may ? 'Click to open or close.' : 'Struck out: closed.'}</p>
      {may && (
        <button className="btn btn-xs mb-2" onClick={() => told(openYear({ company: company.id, year: next }).unwrap())}>
          Open {next}
        </button>
      )}
      {years.map((year) => (
        <div key={year} className="mb-2">
          <div className="quiet">{year}</div>
          <div className="grid grid-cols-4 gap-0.5">
            {data!.periods
              .filter((p) => p.year === year)
              .map((p) => (
                <button
                  key={p.month}
                  disabled={!may}
                  title={`${p.open ? 'Open' : 'Closed'}, ${p.entries} entries`}
                  aria-label={`${months[p.month - 1]} ${year}, ${p.open ? 'open' : 'closed'}`}
                  className={`rounded px-1 py-0.5 ${p.open ? 'hover:bg-base-200' : 'bg-base-300 line-through'} ${p.entries ? 'font-semibold' : ''}`}
                  onClick={() => told(set({ company: company.id, year, month: p.month, open: !p.open }).unwrap())}
                >
                  {months[p.month - 1]}
                </button>
              ))}
          </div>
        </div>
      ))}
    </aside>
  );
}
