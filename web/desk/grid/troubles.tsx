import { X } from 'lucide-react';
import { focusField } from '../focus';
import type { Trouble } from './edits';

/** Cells of a paste that could not be taken, each a way to its cell. */
export function Troubles({ troubles, done }: { troubles: Trouble[]; done(): void }) {
  if (troubles.length === 0) return null;
  return (
    <section aria-label="Not taken" className="border-l-4 border-error bg-error/10 px-5 py-2 text-[14px]">
      <div className="flex items-center justify-between">
        <b>{troubles.length === 1 ? 'One cell was left as it was:' : `${troubles.length} cells were left as they were:`}</b>
        <button className="btn btn-ghost btn-xs btn-square" aria-label="Close" onClick={done}>
          <X size={14} />
        </button>
      </div>
      <ul className="max-h-28 overflow-auto">
        {troubles.map((t) => (
          <li key={t.path}>
            <button className="hover:underline" onClick={() => focusField(t.path)}>
              {t.sentence}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
