import { Link } from 'react-router';
import { toast } from 'sonner';
import type { CheckList, CheckSetting } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Head, Trouble, Waiting } from '../ui/states';
import { settingsApi } from './api';

const scopes: [string, string][] = [
  ['document', 'The document'],
  ['header', 'The head'],
  ['supplier', 'The supplier'],
  ['lines', 'The rows'],
  ['sums', 'The sums'],
];

/** Which checks stop a bill, which only ask, and how often each is open now. */
export function ChecksArea() {
  const { company } = usePlace();
  const { currentData, error } = settingsApi.useChecksQuery({ company: company.id });
  return (
    <>
      <Head
        title="Checks"
        detail="What stops a bill from being sent on, what only asks. A change holds at once for all bills under review"
      />
      <div className="min-h-0 grow overflow-auto px-6 py-3">
        {error ? (
          <Trouble sentence={sentenceOf(error)} />
        ) : !currentData ? (
          <Waiting />
        ) : (
          scopes.map(([scope, label]) => (
            <section key={scope} className="mb-4 max-w-3xl">
              <h2 className="mb-1 font-semibold">{label}</h2>
              <ul>
                {currentData.checks
                  .filter((c) => c.scope === scope)
                  .map((c) => (
                    <CheckRow key={c.code} check={c} />
                  ))}
              </ul>
            </section>
          ))
        )}
      </div>
    </>
  );
}

function CheckRow({ check }: { check: CheckList['checks'][number] }) {
  const { company, can } = usePlace();
  const [set] = settingsApi.useSetCheckMutation();
  return (
    <li className="flex h-9 items-center gap-3 border-t hair">
      <span className="min-w-0 grow truncate">{check.what}</span>
      {check.open > 0 && (
        <Link className="text-[13px] text-accent hover:underline" to={`/bills?q=${encodeURIComponent(`exception:${check.code}`)}`}>
          {check.open} open
        </Link>
      )}
      {check.adjustable && can('settings:edit') ? (
        <select
          aria-label={check.what}
          className="select select-xs w-24"
          value={check.severity}
          onChange={(e) =>
            void set({ company: company.id, code: check.code, severity: e.target.value as CheckSetting })
              .unwrap()
              .catch((error: unknown) => toast.error(sentenceOf(error)))
          }
        >
          <option value="stops">stops</option>
          <option value="asks">asks</option>
          <option value="off">off</option>
        </select>
      ) : (
        <span className="w-24 px-2 text-[13px] quiet" title={check.adjustable ? undefined : 'Posting needs it'}>
          {check.severity}
        </span>
      )}
    </li>
  );
}
