import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { CheckList, CheckSetting, OverruledBy, SetCheck } from '@ledgerline/contract';
import { overrulers } from '@ledgerline/core/checks';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Head, Trouble, Waiting } from '../ui/states';
import { SaveMenu } from '../imports/save-menu';
import { settingsApi } from './api';
import { EffectSaid } from './effect';

const scopes: [string, string][] = [
  ['document', 'The document'],
  ['header', 'The head'],
  ['supplier', 'The supplier'],
  ['orders', 'Its orders'],
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
        detail="What stops a bill from being sent on, what only asks. What a change would do to bills in hand is said first"
      >
        <SaveMenu path="/lists/checks/file" asked={{}} what="the list" />
      </Head>
      <div className="min-h-0 grow overflow-auto px-6 py-3">
        {error ? (
          <Trouble sentence={sentenceOf(error)} />
        ) : !currentData ? (
          <Waiting />
        ) : (
          scopes.map(([scope, label]) => (
            <section key={scope} className="mb-4 max-w-4xl">
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

const overruled: Record<OverruledBy, string> = {
  nobody: 'overruled by nobody',
  controllers: 'overruled by controllers',
  approvers: 'overruled by approvers too',
  clerks: 'overruled by clerks too',
};

function CheckRow({ check }: { check: CheckList['checks'][number] }) {
  const { company, can } = usePlace();
  const [asked, ask] = useState<CheckSetting | null>(null);
  const [set, { isLoading }] = settingsApi.useSetCheckMutation();
  const { currentData: effect } = settingsApi.useEffectQuery(
    { company: company.id, path: `/checks/${check.code}`, body: { severity: asked } },
    { skip: asked === null },
  );
  const keep = (body: SetCheck) =>
    void set({ company: company.id, code: check.code, body })
      .unwrap()
      .then(() => ask(null))
      .catch((error: unknown) => toast.error(sentenceOf(error)));
  return (
    <li className="border-t hair">
      <div className="flex h-9 items-center gap-3">
        <span className="min-w-0 grow truncate">{check.what}</span>
        {check.open > 0 && (
          <Link className="text-[13px] text-accent hover:underline" to={`/bills?q=${encodeURIComponent(`exception:${check.code}`)}`}>
            {check.open} open
          </Link>
        )}
        {check.overruledBy !== null &&
          (can('settings:edit') ? (
            <select
              aria-label={`Who overrules: ${check.what}`}
              title="Who may overrule it"
              className="select select-xs w-52"
              value={check.overruledBy}
              onChange={(e) => keep({ overruledBy: e.target.value as OverruledBy })}
            >
              {overrulers.map((by) => (
                <option key={by} value={by}>
                  {overruled[by]}
                </option>
              ))}
            </select>
          ) : (
            <span className="w-52 px-2 text-[13px] quiet">{overruled[check.overruledBy]}</span>
          ))}
        {check.adjustable && can('settings:edit') ? (
          <select
            aria-label={check.what}
            className="select select-xs w-24"
            value={asked ?? check.severity}
            onChange={(e) => ask(e.target.value === check.severity ? null : (e.target.value as CheckSetting))}
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
      </div>
      {asked !== null && (
        <div
          role="group"
          aria-label={`Change: ${check.what}`}
          className="mb-2 flex items-start gap-3 border-l-4 border-accent bg-base-200 px-3 py-2 text-[13px]"
        >
          <div className="min-w-0 grow break-words">
            {effect ? <EffectSaid effect={effect} /> : <p className="quiet">Looking at the bills in hand …</p>}
          </div>
          <button className="btn btn-xs" onClick={() => ask(null)}>
            Leave it
          </button>
          <button className="btn btn-primary btn-xs" disabled={!effect || isLoading} onClick={() => keep({ severity: asked })}>
            {asked === 'off' ? 'Switch it off' : asked === 'stops' ? 'Let it stop' : 'Let it ask'}
          </button>
        </div>
      )}
    </li>
  );
}
