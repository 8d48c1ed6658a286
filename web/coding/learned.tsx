import { useState } from 'react';
import type { Learned, SupplierAccount } from '@ledgerline/contract';
import { toast } from 'sonner';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Dialog, DialogEnd } from '../ui/dialog';
import { showDay } from '../ui/format';
import { codingApi } from './api';
import { wordsFrom } from './from-row';
import { RuleDialog, type RuleDraft } from './rule-dialog';
import { draftOf } from './rules';

type Group = Learned['groups'][number];

/** How a supplier's lines are coded by themselves: its rules, and what was posted; both can be corrected. */
export function LearnedDialog({ supplier, close }: { supplier: Pick<SupplierAccount, 'id' | 'name'>; close(): void }) {
  const { company, can } = usePlace();
  const asked = { company: company.id, supplierId: supplier.id };
  const { currentData: learned, error } = codingApi.useLearnedQuery(asked);
  const { currentData: rules } = codingApi.useCodingRulesQuery(asked);
  const [forget] = codingApi.useForgetLinesMutation();
  const [drafting, draft] = useState<RuleDraft | null>(null);
  const edits = can('rules:edit');
  const ruleFrom = (g: Group): RuleDraft => {
    const [most] = g.codings;
    return {
      id: null,
      supplierId: supplier.id,
      words: wordsFrom(g.description) || null,
      coding: most?.coding ?? {},
      active: true,
      named(id) {
        if (id === supplier.id) return ` ${supplier.name}`;
        const shown = most?.shown.find((s) => most.coding[s.field] === id);
        return shown ? `${shown.code} ${shown.name}` : null;
      },
    };
  };
  if (drafting) return <RuleDialog draft={drafting} close={() => draft(null)} />;
  return (
    <Dialog title={`How lines of ${supplier.name} are coded`} close={close} wide>
      {error && <p className="text-error">{sentenceOf(error)}</p>}
      {rules && rules.rules.length > 0 && (
        <section className="mb-3">
          <h3 className="mb-1 text-[13px] quiet">Rules, before all else</h3>
          <ul>
            {rules.rules.map((r) => (
              <li key={r.id} className="flex min-h-8 items-center gap-3 border-t hair">
                <span className="w-56 shrink-0 truncate">{r.words ? `“${r.words}”` : 'every line'}</span>
                <span className="grow truncate">
                  {r.shown.map((s) => `${s.code} ${s.name}`).join(' · ')}
                  {!r.active && <span className="quiet"> off</span>}
                </span>
                {edits && (
                  <button className="btn btn-ghost btn-xs" onClick={() => draft(draftOf(r))}>
                    Change …
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h3 className="mb-1 text-[13px] quiet">
          {learned ? `Learned from the last ${learned.lines} posted lines, those that came most often first` : 'Learned'}
        </h3>
        {learned?.groups.length === 0 && <p>Nothing is posted from this supplier yet.</p>}
        <ul className="max-h-[45vh] overflow-auto">
          {learned?.groups.map((g) => (
            <li key={g.words} className="flex items-start gap-3 border-t hair py-1.5">
              <span className="w-56 shrink-0 truncate" title={g.description}>
                {g.description}
              </span>
              <ul className="min-w-0 grow">
                {g.codings.slice(0, 3).map((c, i) => (
                  <li key={i} className={`truncate ${i > 0 ? 'quiet' : ''}`} title={c.shown.map((s) => `${s.code} ${s.name}`).join(' · ')}>
                    {c.shown.map((s) => s.code).join(' · ')} <span className="text-[13px] quiet">{c.shown[0]?.name}</span>
                    <span className="text-[13px] quiet">
                      {' '}
                      {c.times} of {g.times}, last {showDay(c.last)}
                    </span>
                  </li>
                ))}
              </ul>
              {edits && (
                <span className="flex shrink-0">
                  <button className="btn btn-ghost btn-xs" onClick={() => draft(ruleFrom(g))}>
                    Make a rule …
                  </button>
                  <button
                    className="btn btn-ghost btn-xs"
                    title="Lines like this, as far as they are posted, suggest nothing any more"
                    disabled={g.words === ''}
                    onClick={() =>
                      forget({ ...asked, words: g.words })
                        .unwrap()
                        .catch((problem: unknown) => toast.error(sentenceOf(problem)))
                    }
                  >
                    Forget
                  </button>
                </span>
              )}
            </li>
          ))}
        </ul>
      </section>
      <DialogEnd close={close} />
    </Dialog>
  );
}
