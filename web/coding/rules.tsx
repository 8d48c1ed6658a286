import { useState } from 'react';
import type { CodingRuleRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { DataTable, type Column } from '../ui/data-table';
import { Head } from '../ui/states';
import { codingApi } from './api';
import { SaveMenu } from '../imports/save-menu';
import { RuleDialog, type RuleDraft } from './rule-dialog';

const columns: Column<CodingRuleRow>[] = [
  { id: 'supplier', head: 'Lines of', width: 220, cell: (r) => r.supplier ?? <span className="quiet">any supplier</span> },
  { id: 'words', head: 'that say', width: 200, cell: (r) => r.words ?? <span className="quiet">anything</span> },
  {
    id: 'coding',
    head: 'are coded with',
    cell: (r) =>
      r.shown.map((s) => (
        <span key={s.field} className="mr-3" title={s.name}>
          <span className="code">{s.code}</span> <span className="quiet">{s.name}</span>
        </span>
      )),
  },
  { id: 'by', head: 'By', width: 130, minor: true, cell: (r) => r.madeBy },
  { id: 'active', head: '', width: 70, cell: (r) => <span className={r.active ? '' : 'quiet'}>{r.active ? 'holds' : 'off'}</span> },
];

/** A rule as the dialog begins with it. */
export const draftOf = (r: CodingRuleRow): RuleDraft => ({
  id: r.id,
  supplierId: r.supplierId,
  words: r.words,
  coding: r.coding,
  active: r.active,
  named(id) {
    if (id && id === r.supplierId) return ` ${r.supplier}`;
    const shown = r.shown.find((s) => r.coding[s.field] === id);
    return shown ? `${shown.code} ${shown.name}` : null;
  },
});
export const newDraft: RuleDraft = { id: null, supplierId: null, words: null, coding: {}, active: true, named: () => null };

/** Rules on how lines are coded. */
export function RulesPage() {
  const { company, can } = usePlace();
  const { currentData, error } = codingApi.useCodingRulesQuery({ company: company.id });
  const [open, setOpen] = useState<RuleDraft | null>(null);
  const edits = can('rules:edit');
  return (
    <div className="flex h-full flex-col">
      <Head title="Coding rules" detail="They come before what was posted. A rule that knows more of a line comes first">
        {can('settings:see') && <SaveMenu path="/lists/coding-rules/file" asked={{}} what="the rules" />}
        {edits && (
          <button className="btn btn-primary btn-sm" onClick={() => setOpen(newDraft)}>
            New rule
          </button>
        )}
      </Head>
      <DataTable
        label="Coding rules"
        remember={`Coding rules ${company.id}`}
        rows={currentData?.rules ?? []}
        loading={!currentData && !error}
        error={error}
        columns={columns}
        rowId={(r) => r.id}
        {...(edits ? { open: (r: CodingRuleRow) => setOpen(draftOf(r)) } : {})}
        empty="No rule yet. Make one here, or of a row at the desk by Alt+U."
      />
      {open && <RuleDialog draft={open} close={() => setOpen(null)} />}
    </div>
  );
}
