import { TriangleAlert } from 'lucide-react';
import { toast } from 'sonner';
import type { ImportRun } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { importsApi } from './api';

/** Which field each column of the file holds, beside what stands in its first rows. */
export function ColumnsOfFile({ run, locked }: { run: ImportRun; locked: boolean }) {
  const { company } = usePlace();
  const [set, { isLoading }] = importsApi.useSetMappingMutation();
  const change = (at: number, key: string | null) =>
    void set({ company: company.id, id: run.id, mapping: run.heads.map((_, i) => (i === at ? key : (run.mapping[i] ?? null))) })
      .unwrap()
      .catch((error: unknown) => toast.error(sentenceOf(error)));
  return (
    <section aria-label="Columns" className="shrink-0 border-b hair px-6 py-3">
      <div className="max-h-64 overflow-auto">
        <table className="text-[14px]" aria-busy={isLoading}>
          <thead>
            <tr className="text-left text-[13px] quiet">
              <th className="pr-6 font-normal">Column in the file</th>
              <th className="pr-6 font-normal">Is</th>
              <th className="font-normal">What stands in it</th>
            </tr>
          </thead>
          <tbody>
            {run.heads.map((head, at) => (
              <tr key={at} className="border-t hair">
                <td className="max-w-56 truncate pr-6">{head || <span className="quiet">without a head</span>}</td>
                <td className="py-0.5 pr-6">
                  <select
                    aria-label={`What ${head || `column ${at + 1}`} is`}
                    className={`select select-xs w-52 ${run.mapping[at] ? '' : 'quiet'}`}
                    value={run.mapping[at] ?? ''}
                    disabled={locked}
                    onChange={(e) => change(at, e.target.value || null)}
                  >
                    <option value="">left out</option>
                    {run.fields.map((f) => (
                      <option key={f.key} value={f.key} disabled={run.mapping.includes(f.key) && run.mapping[at] !== f.key}>
                        {f.label}
                        {f.required ? ' (needed)' : ''}
                      </option>
                    ))}
                  </select>
                </td>
                <td className="max-w-[560px] truncate text-[13px] quiet">
                  {run.sample
                    .map((row) => row[at])
                    .filter(Boolean)
                    .join(' · ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {run.fault && (
        <p role="alert" className="mt-2 flex items-center gap-2">
          <TriangleAlert size={15} className="text-warning" aria-hidden />
          {run.fault}
        </p>
      )}
    </section>
  );
}
